package zander.desk.reach;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import javafx.beans.property.BooleanProperty;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.SimpleBooleanProperty;
import javafx.beans.property.SimpleObjectProperty;
import javafx.beans.property.SimpleStringProperty;
import javafx.beans.property.StringProperty;
import javafx.collections.FXCollections;
import javafx.collections.ObservableList;
import org.jspecify.annotations.Nullable;
import zander.core.book.Mark;
import zander.core.book.MarkedFolder;
import zander.core.book.ServerEntry;
import zander.core.book.SignIn;
import zander.core.connect.address.ServerAddress;
import zander.desk.words.Words;

/** An entry of the server book while it is being edited. */
public final class EntryDraft {
  private static final Words WORDS = Words.of(EntryDraft.class);

  /** A marked folder being edited. */
  public static final class Folder {
    public final StringProperty name = new SimpleStringProperty("");
    public final StringProperty path = new SimpleStringProperty("");
    public final StringProperty local = new SimpleStringProperty("");
    public final StringProperty address = new SimpleStringProperty("");

    /** The lines of the rights that it keeps; changed in a sheet of their own. */
    private List<String> rights = List.of();
  }

  public final StringProperty name = new SimpleStringProperty("");
  public final StringProperty group = new SimpleStringProperty("");
  public final StringProperty account = new SimpleStringProperty("");
  public final StringProperty host = new SimpleStringProperty("");
  public final StringProperty port = new SimpleStringProperty("22");
  public final StringProperty jump = new SimpleStringProperty("");
  public final StringProperty keyFile = new SimpleStringProperty("");
  public final StringProperty certificate = new SimpleStringProperty("");
  public final BooleanProperty agent = new SimpleBooleanProperty(true);
  public final BooleanProperty password = new SimpleBooleanProperty(true);
  public final BooleanProperty oldAlgorithms = new SimpleBooleanProperty();
  public final StringProperty landing = new SimpleStringProperty("");
  public final StringProperty local = new SimpleStringProperty("");
  public final StringProperty service = new SimpleStringProperty("");
  public final StringProperty note = new SimpleStringProperty("");
  public final ObjectProperty<Mark> mark = new SimpleObjectProperty<>(Mark.NONE);
  private final ObservableList<Folder> folders = FXCollections.observableArrayList();
  private final @Nullable String original;
  private final @Nullable ServerEntry from;

  /**
   * @param original the name of the entry it is to replace; {@code null} for a new one
   */
  EntryDraft(@Nullable ServerEntry from, @Nullable String original) {
    this.original = original;
    this.from = from;
    if (from == null) {
      return;
    }
    name.set(from.name());
    group.set(from.group());
    account.set(from.account());
    host.set(from.host());
    port.set(String.valueOf(from.port()));
    jump.set(String.join(", ", from.jump()));
    keyFile.set(text(from.signIn().keyFile()));
    certificate.set(text(from.signIn().certificate()));
    agent.set(from.signIn().triesAgent());
    password.set(from.signIn().triesPassword());
    oldAlgorithms.set(from.signIn().allowsOldAlgorithms());
    landing.set(text(from.landing()));
    local.set(text(from.local()));
    service.set(text(from.service()));
    note.set(text(from.note()));
    mark.set(from.mark());
    for (MarkedFolder folder : from.folders()) {
      Folder made = addFolder();
      made.name.set(text(folder.name()));
      made.path.set(text(folder.path()));
      made.local.set(text(folder.local()));
      made.address.set(text(folder.address()));
      made.rights = folder.rights();
    }
  }

  private static String text(@Nullable String value) {
    return value == null ? "" : value;
  }

  /** The name of the entry it is to replace; {@code null} for a new one. */
  public @Nullable String original() {
    return original;
  }

  public ObservableList<Folder> folders() {
    return folders;
  }

  public Folder addFolder() {
    Folder folder = new Folder();
    folders.add(folder);
    return folder;
  }

  /**
   * The entry it makes.
   *
   * @throws IllegalArgumentException with words on what is missing or wrong
   */
  ServerEntry entry() {
    String typedHost = host.get().strip();
    if (typedHost.isEmpty()) {
      throw new IllegalArgumentException(WORDS.say("theHostIsMissing"));
    }
    if (account.get().isBlank()) {
      throw new IllegalArgumentException(WORDS.say("theAccountIsMissing"));
    }
    String number = port.get().strip();
    if (!number.matches("[0-9]{1,5}")
        || Integer.parseInt(number) < 1
        || Integer.parseInt(number) > 65535) {
      throw new IllegalArgumentException(WORDS.say("aPortIsA"));
    }
    if (!landing.get().isBlank() && !landing.get().strip().startsWith("/")) {
      throw new IllegalArgumentException(WORDS.say("theFolderToLand"));
    }
    String typedName = name.get().isBlank() ? typedHost : name.get().strip();
    SignIn signIn =
        new SignIn(
            orNull(keyFile), orNull(certificate), agent.get(), password.get(), oldAlgorithms.get());
    ServerAddress address =
        new ServerAddress(account.get().strip(), typedHost, Integer.parseInt(number));
    // Another server, or another account of it, has ways of its own.
    ServerEntry same = from != null && from.address().equals(address) ? from : null;
    return ServerEntry.of(typedName, address, signIn)
        .withWays(same == null ? Map.of() : same.ways())
        .withProxyCommand(same == null ? null : same.proxyCommand())
        .withGroup(group.get().strip())
        .withMark(mark.get())
        .withJump(
            Arrays.stream(jump.get().split(","))
                .map(String::strip)
                .filter(one -> !one.isEmpty())
                .toList())
        .withPlaces(orNull(landing), orNull(local), orNull(note))
        .withService(orNull(service))
        .withFolders(madeFolders());
  }

  private List<MarkedFolder> madeFolders() {
    List<MarkedFolder> made = new ArrayList<>();
    for (Folder folder : folders) {
      String path = folder.path.get().strip();
      if (path.isEmpty()) {
        continue;
      }
      if (!path.startsWith("/")) {
        throw new IllegalArgumentException(WORDS.say("aMarkedFolderBegins", path));
      }
      String named = folder.name.get().isBlank() ? path : folder.name.get().strip();
      made.add(
          new MarkedFolder(
              named, path, orNull(folder.local), orNull(folder.address), folder.rights));
    }
    return made;
  }

  private static @Nullable String orNull(StringProperty property) {
    return property.get() == null || property.get().isBlank() ? null : property.get().strip();
  }
}
