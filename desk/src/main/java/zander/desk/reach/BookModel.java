package zander.desk.reach;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.beans.property.SimpleStringProperty;
import javafx.beans.property.StringProperty;
import javafx.collections.FXCollections;
import javafx.collections.ObservableList;
import org.jspecify.annotations.Nullable;
import zander.core.book.BookFile;
import zander.core.book.ConfigEntries;
import zander.core.book.MarkedFolder;
import zander.core.book.ServerBook;
import zander.core.book.ServerEntry;
import zander.core.config.ClientConfig;
import zander.core.config.ConfigWriter;
import zander.core.config.ConfiguredHost;
import zander.core.connect.channel.WayUp;
import zander.core.phrase.Phrase;
import zander.core.work.AtomicFile;
import zander.desk.words.Phrases;
import zander.desk.words.Words;
import zander.desk.work.Background;
import zander.desk.work.Message;

/**
 * The server book with, beside it, the hosts of the person's OpenSSH configuration: searched,
 * edited, written.
 */
public final class BookModel {
  private static final Words WORDS = Words.of(BookModel.class);

  /** Where a row comes from. */
  public enum Source {
    BOOK,
    /** The OpenSSH configuration, which is only read. */
    CONFIG,
    /** Removed from the book, and can be put back. */
    REMOVED
  }

  /** A server in the list. */
  public record Row(Source source, ServerEntry entry) {}

  private final Background background;
  private final BookFile file;
  private final AllowedCommands allowed;
  private final Path home;
  private final String person;
  private final ObservableList<Row> rows = FXCollections.observableArrayList();
  private final StringProperty search = new SimpleStringProperty("");
  private final ReadOnlyObjectWrapper<Row> selected = new ReadOnlyObjectWrapper<>();
  private final ReadOnlyObjectWrapper<EntryDraft> draft = new ReadOnlyObjectWrapper<>();
  private final ReadOnlyObjectWrapper<Message> notice = new ReadOnlyObjectWrapper<>();
  private volatile ServerBook book = ServerBook.of(List.of());
  private volatile List<ServerEntry> configured = List.of();
  private volatile ClientConfig config = ClientConfig.NONE;

  /**
   * @param home the person's home folder
   * @param person the account on this computer, for hosts that name none
   */
  public BookModel(Background background, Path file, Path home, String person) {
    this.background = background;
    this.file = new BookFile(file);
    this.allowed = new AllowedCommands(file.resolveSibling("allowed-commands"));
    this.home = home;
    this.person = person;
    search.addListener((observed, old, now) -> show());
  }

  private record Loaded(BookFile.Read read, ClientConfig config) {}

  /** Reads book and configuration; what cannot be read is told, and left as it is. */
  public void read() {
    background.run(
        () -> new Loaded(file.read(), ClientConfig.read(home)),
        loaded -> {
          book = loaded.read().book();
          config = loaded.config();
          configured =
              loaded.config().hosts().stream()
                  .map(name -> ofConfiguration(loaded.config().resolve(name)))
                  .toList();
          tellProblems(loaded);
          show();
        },
        failure -> notice.set(new Message(WORDS.say("theServerBookCould"), Phrases.of(failure))));
  }

  /** What is said of a host there and does not hold here is its note. */
  private ServerEntry ofConfiguration(ConfiguredHost host) {
    ServerEntry entry = ConfigEntries.entry(host, person);
    return host.unmet().isEmpty()
        ? entry
        : entry.withPlaces(null, null, WORDS.say("notDoneHere", String.join(", ", host.unmet())));
  }

  private void tellProblems(Loaded loaded) {
    if (loaded.read().problem() != null) {
      notice.set(
          new Message(
              WORDS.say("theServerBookCould"),
              WORDS.say("theFileWasLeft", file.file(), Phrases.say(loaded.read().problem()))));
    } else if (!loaded.config().problems().isEmpty()) {
      notice.set(
          new Message(
              WORDS.say("partsOfYourOpenSSH"),
              loaded.config().problems().stream()
                  .map(Phrases::say)
                  .collect(Collectors.joining("\n"))));
    }
  }

  private void show() {
    List<Row> all = new ArrayList<>();
    String typed = search.get();
    book.servers().forEach(entry -> all.add(new Row(Source.BOOK, entry)));
    configured.forEach(entry -> all.add(new Row(Source.CONFIG, entry)));
    book.removed().forEach(entry -> all.add(new Row(Source.REMOVED, entry)));
    all.removeIf(row -> !row.entry().fits(typed));
    rows.setAll(all);
    Row before = selected.get();
    selected.set(
        all.stream()
            .filter(
                row ->
                    before != null
                        && row.source() == before.source()
                        && row.entry().name().equals(before.entry().name()))
            .findFirst()
            .orElse(all.isEmpty() ? null : all.get(0)));
  }

  /** Finds a server by its name: the book's own before the configuration's. For any thread. */
  public ServerEntry find(String name) {
    return book.named(name)
        .orElseGet(
            () -> configured.stream().filter(e -> e.name().equals(name)).findFirst().orElse(null));
  }

  /**
   * The same for a jump host, as an entry names it: what the configuration says of a host that it
   * does not name by itself holds too. May wait for the disk.
   */
  @Nullable ServerEntry findJump(String name) {
    ServerEntry named = find(name);
    return named == null ? ConfigEntries.jump(config, name, person) : named;
  }

  AllowedCommands allowedCommands() {
    return allowed;
  }

  public List<String> groups() {
    return book.groups();
  }

  public void select(Row row) {
    selected.set(row);
  }

  // Editing.

  public void startNew() {
    EntryDraft made = new EntryDraft(null, null);
    made.account.set(person);
    draft.set(made);
  }

  /** Edits an entry of the book; one of the configuration is copied into the book. */
  public void edit(Row row) {
    boolean own = row.source() == Source.BOOK;
    draft.set(new EntryDraft(row.entry(), own ? row.entry().name() : null));
  }

  /** Edits what was tried to be opened; an address that is not in the book becomes a new entry. */
  public void edit(ServerEntry tried) {
    ServerEntry own = book.named(tried.name()).orElse(null);
    draft.set(own == null ? new EntryDraft(tried, null) : new EntryDraft(own, own.name()));
  }

  public void duplicate(Row row) {
    draft.set(new EntryDraft(row.entry().withName(book.freeName(row.entry().name())), null));
  }

  public void cancelEdit() {
    draft.set(null);
  }

  /** Saves what is being edited; what is wrong with it is told, and it stays open. */
  public void saveDraft() {
    EntryDraft editing = draft.get();
    try {
      ServerEntry made = editing.entry();
      String replaces = editing.original();
      change(
          now -> replaces == null ? now.with(made) : now.with(replaces, made),
          () -> {
            draft.set(null);
            notice.set(null);
            selectNamed(made.name());
          });
    } catch (IllegalArgumentException e) {
      notice.set(new Message(WORDS.say("theServerIsNot"), Phrases.sentence(Phrase.of(e))));
    }
  }

  private void selectNamed(String name) {
    rows.stream()
        .filter(row -> row.source() == Source.BOOK && row.entry().name().equals(name))
        .findFirst()
        .ifPresent(selected::set);
  }

  public void remove(Row row) {
    change(
        now -> now.without(row.entry().name()),
        () ->
            notice.set(
                new Message(
                    WORDS.say("isRemovedFromThe", row.entry().name()),
                    WORDS.say("itStandsAtThe"))));
  }

  public void putBack(Row row) {
    change(now -> now.putBack(row.entry()), () -> selectNamed(row.entry().name()));
  }

  /** Puts an entry in the place of the one of its name, or adds it. */
  public void keep(ServerEntry entry, Runnable done) {
    change(now -> now.with(entry.name(), entry), done);
  }

  /** The marked folders of a server, as the book has them now. */
  public List<MarkedFolder> foldersOf(ServerEntry server) {
    return inBook(book, server).orElse(server).folders();
  }

  /** Changes them; a server that is not in the book yet is added, under a name that is free. */
  public void changeFolders(
      ServerEntry server, UnaryOperator<List<MarkedFolder>> folders, Runnable done) {
    change(
        now -> {
          ServerEntry own = inBook(now, server).orElse(null);
          return own == null
              ? now.with(server.withFolders(folders.apply(server.folders())))
              : now.with(own.name(), own.withFolders(folders.apply(own.folders())));
        },
        done);
  }

  /** By its name; or else by its address, where it was opened under another name. */
  private static Optional<ServerEntry> inBook(ServerBook book, ServerEntry server) {
    List<ServerEntry> same =
        book.servers().stream().filter(own -> own.address().equals(server.address())).toList();
    return same.stream()
        .filter(own -> own.name().equals(server.name()))
        .findFirst()
        .or(() -> same.stream().findFirst());
  }

  /** Keeps by which program an account is acted as on a server of the book. */
  public void keepWay(ServerEntry server, String actedAs, WayUp way) {
    ServerEntry own = book.named(server.name()).orElse(null);
    if (own != null && own.address().equals(server.address()) && own.ways().get(actedAs) != way) {
      keep(own.withWay(actedAs, way), () -> {});
    }
  }

  private void change(UnaryOperator<ServerBook> change, Runnable done) {
    background.run(
        () -> file.change(change),
        changed -> {
          book = changed;
          show();
          done.run();
        },
        failure ->
            notice.set(new Message(WORDS.say("theServerBookCouldNot"), Phrases.of(failure))));
  }

  /** Writes the book as an OpenSSH configuration beside it, for others to include. */
  public void writeConfig(Consumer<Path> written) {
    Path target = file.file().resolveSibling("openssh_config");
    ServerBook now = book;
    background.run(
        () -> {
          String text =
              ConfigWriter.write(
                  now.servers().stream().map(e -> ConfigEntries.host(e, home)).toList());
          AtomicFile.write(target, text.getBytes(java.nio.charset.StandardCharsets.UTF_8));
          return target;
        },
        path -> {
          notice.set(
              new Message(WORDS.say("theBookIsWritten"), WORDS.say("toUseItPut", path, path)));
          written.accept(path);
        },
        failure -> notice.set(new Message(WORDS.say("itCouldNotBe"), Phrases.of(failure))));
  }

  public void dismissNotice() {
    notice.set(null);
  }

  public void tell(Message said) {
    notice.set(said);
  }

  /** The servers that fit what is searched for. */
  public ObservableList<Row> rows() {
    return rows;
  }

  public StringProperty searchProperty() {
    return search;
  }

  public ReadOnlyObjectProperty<Row> selectedProperty() {
    return selected.getReadOnlyProperty();
  }

  /** The entry being edited; {@code null} for none. */
  public ReadOnlyObjectProperty<EntryDraft> draftProperty() {
    return draft.getReadOnlyProperty();
  }

  /** What is to be told; {@code null} for nothing. */
  public ReadOnlyObjectProperty<Message> noticeProperty() {
    return notice.getReadOnlyProperty();
  }
}
