package zander.desk.model;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import javafx.beans.property.BooleanProperty;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.beans.property.ReadOnlyStringProperty;
import javafx.beans.property.ReadOnlyStringWrapper;
import javafx.beans.property.SimpleBooleanProperty;
import javafx.beans.property.SimpleObjectProperty;
import javafx.collections.FXCollections;
import javafx.collections.ObservableList;
import zander.core.book.ServerBook;
import zander.core.book.ServerEntry;
import zander.core.connect.Connection;
import zander.core.connect.Connector;
import zander.core.connect.ServerAddress;
import zander.core.connect.SignInWays;
import zander.core.files.RemotePath;
import zander.core.journal.FileJournal;
import zander.core.journal.Journal;
import zander.desk.work.Background;
import zander.desk.work.FailureWords;
import zander.desk.work.Said;

/** The whole program as a model: the book, the open desks, and signing in. */
public final class AppModel {
  private final Background background;
  private final Connector connector;
  private final ServerTalk.Prompts prompts;
  private final Path home;
  private final Path stateFolder;
  private final ObservableList<ServerEntry> servers = FXCollections.observableArrayList();
  private final ObservableList<DeskModel> desks = FXCollections.observableArrayList();
  private final ObjectProperty<DeskModel> current = new SimpleObjectProperty<>();
  private final ReadOnlyStringWrapper step = new ReadOnlyStringWrapper("");
  private final ReadOnlyObjectWrapper<Said> failure = new ReadOnlyObjectWrapper<>();
  private final BooleanProperty dark = new SimpleBooleanProperty(false);
  private final BooleanProperty localFolded = new SimpleBooleanProperty(false);
  private final Map<String, Journal> journals = new LinkedHashMap<>();
  private final Map<String, List<RemotePath>> visited = new LinkedHashMap<>();

  /**
   * @param home the person's home folder on this computer
   * @param stateFolder where journals are kept
   */
  public AppModel(
      Background background,
      Connector connector,
      ServerTalk.Prompts prompts,
      Path home,
      Path stateFolder) {
    this.background = background;
    this.connector = connector;
    this.prompts = prompts;
    this.home = home;
    this.stateFolder = stateFolder;
  }

  /** Reads the server book; a damaged one is told and left as it is. */
  public void readBook(Path file) {
    background.run(
        () -> ServerBook.read(file),
        book -> servers.setAll(book.servers()),
        e ->
            failure.set(
                new Said(
                    "The server book could not be read",
                    file + ": " + e.getMessage() + "\nThe file was left as it is.")));
  }

  /** Opens a desk for a saved server; one that is open is shown. */
  public void open(ServerEntry entry) {
    for (DeskModel desk : desks) {
      if (desk.entry().equals(entry)) {
        current.set(desk);
        return;
      }
    }
    signIn(
        entry,
        connection -> {
          DeskModel desk = new DeskModel(this, entry, connection, journals.get(entry.name()));
          desks.add(desk);
          current.set(desk);
        },
        failure::set);
  }

  /** Opens a desk for {@code account@host:port}. */
  public void openTyped(String typed, String keyFile) {
    try {
      String key = keyFile == null || keyFile.isBlank() ? null : keyFile.strip();
      open(ServerEntry.typed(ServerAddress.parse(typed), key));
    } catch (IllegalArgumentException e) {
      failure.set(FailureWords.of(e));
    }
  }

  /**
   * Signs in on a background thread.
   *
   * @param failed told in words why it did not work
   */
  void signIn(ServerEntry entry, Consumer<Connection> opened, Consumer<Said> failed) {
    if (!step.get().isEmpty()) {
      return;
    }
    failure.set(null);
    step.set("Opening " + entry.name());
    ServerTalk talk =
        new ServerTalk(
            background,
            prompts,
            reached ->
                step.set(
                    "Opening "
                        + entry.name()
                        + ": "
                        + reached.name().toLowerCase(java.util.Locale.ROOT).replace('_', ' ')));
    Path keyFile = entry.keyFile() == null ? null : home.resolve(entry.keyFile());
    background.run(
        () -> {
          Connection connection =
              connector.open(entry.address(), new SignInWays(keyFile, entry.password()), talk);
          openJournal(entry);
          return connection;
        },
        connection -> {
          step.set("");
          opened.accept(connection);
        },
        e -> {
          step.set("");
          failed.accept(FailureWords.of(e));
        });
  }

  private synchronized void openJournal(ServerEntry entry) throws java.io.IOException {
    if (!journals.containsKey(entry.name())) {
      String folder = entry.address().toString().replaceAll("[^A-Za-z0-9@.:-]", "_");
      journals.put(entry.name(), new FileJournal(stateFolder.resolve("journal").resolve(folder)));
    }
  }

  void remember(String server, RemotePath path) {
    List<RemotePath> paths = visited.computeIfAbsent(server, name -> new ArrayList<>());
    paths.remove(path);
    paths.add(0, path);
    if (paths.size() > 30) {
      paths.remove(30);
    }
  }

  /** The folders visited on a server, newest first. */
  public List<RemotePath> visited(String server) {
    return List.copyOf(visited.getOrDefault(server, List.of()));
  }

  public void close(DeskModel desk) {
    if (desk.hasUnsaved()) {
      current.set(desk);
      desk.sheets().stream()
          .filter(sheet -> sheet.unsavedProperty().get())
          .findFirst()
          .ifPresent(desk::close);
      return;
    }
    desk.end();
    desks.remove(desk);
    if (current.get() == desk) {
      current.set(desks.isEmpty() ? null : desks.get(desks.size() - 1));
    }
  }

  public boolean hasUnsaved() {
    return desks.stream().anyMatch(DeskModel::hasUnsaved);
  }

  public void stop() {
    new ArrayList<>(desks).forEach(DeskModel::end);
    connector.close();
    background.stop();
  }

  Background background() {
    return background;
  }

  Path home() {
    return home;
  }

  public ObservableList<ServerEntry> servers() {
    return servers;
  }

  public ObservableList<DeskModel> desks() {
    return desks;
  }

  /** The desk in front; {@code null} while a server is being chosen. */
  public ObjectProperty<DeskModel> currentProperty() {
    return current;
  }

  /** What a sign-in is doing; empty when none is under way. */
  public ReadOnlyStringProperty stepProperty() {
    return step.getReadOnlyProperty();
  }

  /** Why the last sign-in failed; {@code null} for none. */
  public ReadOnlyObjectProperty<Said> failureProperty() {
    return failure.getReadOnlyProperty();
  }

  public void dismissFailure() {
    failure.set(null);
  }

  public BooleanProperty darkProperty() {
    return dark;
  }

  public BooleanProperty localFoldedProperty() {
    return localFolded;
  }
}
