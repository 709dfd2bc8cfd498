package zander.desk.folder;

import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.beans.property.ReadOnlyStringProperty;
import javafx.beans.property.ReadOnlyStringWrapper;
import javafx.beans.property.SimpleStringProperty;
import javafx.beans.property.StringProperty;
import javafx.collections.FXCollections;
import javafx.collections.ObservableList;
import javafx.collections.transformation.FilteredList;
import zander.core.crossing.LocalSide;
import zander.core.crossing.Node;
import zander.core.files.FileKind;
import zander.core.files.RemoteEntry;
import zander.core.files.RemotePath;
import zander.core.listing.Listed;
import zander.core.listing.Narrowing;
import zander.core.listing.NaturalOrder;
import zander.core.local.Trash;
import zander.desk.folder.LocalRow.Standing;
import zander.desk.work.Background;
import zander.desk.work.FailureWords;
import zander.desk.work.HomePath;
import zander.desk.work.Settings;

/** A folder on this computer, below the waterline. */
public final class LocalModel {
  /** Times on some file systems are kept in steps of two seconds. */
  private static final long SAME_TIME = 2;

  private final Background background;
  private final Settings settings;
  private final Path home;
  private final ReadOnlyObjectWrapper<Path> folder = new ReadOnlyObjectWrapper<>();
  private final ReadOnlyStringWrapper problem = new ReadOnlyStringWrapper("");
  private final StringProperty narrow = new SimpleStringProperty("");
  private final ReadOnlyObjectWrapper<Narrowing> narrowing =
      new ReadOnlyObjectWrapper<>(Narrowing.NONE);
  private final ObservableList<LocalRow> rows = FXCollections.observableArrayList();
  private final FilteredList<LocalRow> shown = new FilteredList<>(rows);
  private final ObservableList<LocalRow> selection = FXCollections.observableArrayList();

  /** The entries of the server's folder; {@code null} while none is shown. */
  private List<RemoteEntry> server;

  private String serverName;

  private final ReadOnlyObjectWrapper<Set<String>> names = new ReadOnlyObjectWrapper<>();
  private long request;

  public LocalModel(Background background, Settings settings, Path home, Path start) {
    this.background = background;
    this.settings = settings;
    this.home = home;
    narrow.addListener((observed, old, now) -> narrow());
    settings.valuesProperty().addListener((observed, old, now) -> narrow());
    narrow();
    go(start);
  }

  private void narrow() {
    Narrowing now = Narrowing.parse(narrow.get(), System.currentTimeMillis() / 1000);
    boolean hidden = settings.now().showHidden();
    shown.setPredicate(
        row -> (hidden || !row.node().name().startsWith(".")) && now.fits(listed(row)));
    narrowing.set(now);
  }

  private static Listed listed(LocalRow row) {
    String[] owners = row.node().owner().split(":", 2);
    return new Listed(
        row.name(),
        row.node().kind(),
        row.node().size(),
        row.node().modified(),
        row.node().mode(),
        owners[0],
        owners.length > 1 ? owners[1] : "");
  }

  public void go(Path to) {
    long mine = ++request;
    Path goal = to.toAbsolutePath().normalize();
    background.run(
        () -> {
          if (!Files.isDirectory(goal)) {
            throw new java.nio.file.NoSuchFileException(goal.toString());
          }
          return new LocalSide(goal).list("");
        },
        nodes -> {
          if (mine == request) {
            boolean moved = !goal.equals(folder.get());
            folder.set(goal);
            problem.set("");
            if (moved) {
              narrow.set("");
            }
            show(nodes);
          }
        },
        failure -> {
          if (mine == request) {
            problem.set(FailureWords.of(failure).headline() + ": " + goal);
          }
        });
  }

  public void refresh() {
    if (folder.get() != null) {
      go(folder.get());
    }
  }

  public void goUp() {
    if (folder.get() != null && folder.get().getParent() != null) {
      go(folder.get().getParent());
    }
  }

  /** Goes to what was typed: absolute, from home by {@code ~}, or relative to here. */
  public void goTyped(String typed) {
    String text = typed.strip();
    if (text.equals("~") || text.startsWith("~/")) {
      go(home.resolve("." + text.substring(1)));
    } else if (!text.isEmpty()) {
      go(folder.get().resolve(text));
    }
  }

  private void show(List<Node> nodes) {
    List<LocalRow> made = new ArrayList<>();
    Map<String, RemoteEntry> there = new HashMap<>();
    if (server != null) {
      server.forEach(entry -> there.put(entry.path().wireName(), entry));
    }
    for (Node node : nodes) {
      Path path =
          folder
              .get()
              .resolve(
                  new String(
                      zander.core.files.WireName.bytes(node.name()),
                      java.nio.charset.StandardCharsets.UTF_8));
      made.add(new LocalRow(path, node, standing(node, there.get(node.name()))));
    }
    // What is here, by name, when the two folders are partners: the server's rows ask for it.
    names.set(
        server != null && isPartner()
            ? nodes.stream().map(Node::name).collect(Collectors.toSet())
            : null);
    made.sort(
        Comparator.comparing((LocalRow row) -> !row.isFolder())
            .thenComparing(LocalRow::name, NaturalOrder.NAMES));
    Set<Path> selected = selection.stream().map(LocalRow::path).collect(Collectors.toSet());
    rows.setAll(made);
    selection.setAll(made.stream().filter(row -> selected.contains(row.path())).toList());
  }

  /** Folders of different names are not copies of each other: comparing them says nothing. */
  private boolean isPartner() {
    Path name = folder.get() == null ? null : folder.get().getFileName();
    return name != null && name.toString().equals(serverName);
  }

  private Standing standing(Node here, RemoteEntry there) {
    if (server == null || !isPartner()) {
      return Standing.UNKNOWN;
    }
    if (there == null) {
      return Standing.ONLY_HERE;
    }
    if (here.kind() != FileKind.FILE || there.kind() != FileKind.FILE) {
      return here.kind() == there.kind() ? Standing.UNKNOWN : Standing.DIFFERS;
    }
    long apart = here.modified() - there.attributes().modified();
    if (Math.abs(apart) <= SAME_TIME) {
      return here.size() == there.attributes().size() ? Standing.SAME : Standing.DIFFERS;
    }
    return apart > 0 ? Standing.NEWER_HERE : Standing.OLDER_HERE;
  }

  /** Compares with these entries of a server's folder from now on. */
  public void compareWith(RemotePath serverFolder, List<RemoteEntry> entries) {
    server = List.copyOf(entries);
    serverName = serverFolder == null ? null : serverFolder.name();
    show(rows.stream().map(LocalRow::node).toList());
  }

  // Changing what is here.

  /** Gives another name; the name must be free. */
  public void rename(LocalRow row, String typed) {
    if (typed.isBlank() || typed.equals(row.name()) || typed.contains("/")) {
      return;
    }
    change(
        () -> {
          Path to = row.path().resolveSibling(typed);
          if (Files.exists(to, LinkOption.NOFOLLOW_LINKS)) {
            throw new java.nio.file.FileAlreadyExistsException(to.toString());
          }
          Files.move(row.path(), to);
        });
  }

  /** Moves the selection to the desktop's trash, from where the desktop restores it. */
  public void delete() {
    List<Path> paths = selection.stream().map(LocalRow::path).toList();
    Trash trash = trash();
    change(
        () -> {
          for (Path path : paths) {
            trash.put(path);
          }
        });
  }

  public void makeFolder(String typed) {
    if (!typed.isBlank()) {
      change(() -> Files.createDirectories(folder.get().resolve(typed.strip())));
    }
  }

  private interface Change {
    void run() throws java.io.IOException;
  }

  private void change(Change change) {
    background.run(
        () -> {
          change.run();
          return folder.get();
        },
        done -> refresh(),
        failure -> {
          refresh();
          problem.set(
              failure instanceof java.nio.file.AtomicMoveNotSupportedException
                  ? "It is on another disk than the trash: nothing was deleted"
                  : FailureWords.of(failure).headline());
        });
  }

  /**
   * The wire names that are here, if this folder is the partner of the server's; {@code null} when
   * it is another one.
   */
  public ReadOnlyObjectProperty<Set<String>> namesProperty() {
    return names.getReadOnlyProperty();
  }

  public void select(List<LocalRow> chosen) {
    selection.setAll(chosen);
  }

  public ObservableList<LocalRow> selection() {
    return selection;
  }

  public ObservableList<LocalRow> rows() {
    return shown;
  }

  /** What the narrowing was understood as. */
  public ReadOnlyObjectProperty<Narrowing> narrowingProperty() {
    return narrowing.getReadOnlyProperty();
  }

  /** How many entries there are, shown or not. */
  public int allCount() {
    return rows.size();
  }

  public StringProperty narrowProperty() {
    return narrow;
  }

  public ReadOnlyObjectProperty<Path> folderProperty() {
    return folder.getReadOnlyProperty();
  }

  public Path folder() {
    return folder.get();
  }

  /** The folder for people, with {@code ~} for the home folder. */
  public String shownFolder() {
    Path at = folder.get();
    if (at == null) {
      return "";
    }
    return HomePath.shown(at, home);
  }

  public ReadOnlyStringProperty problemProperty() {
    return problem.getReadOnlyProperty();
  }

  /** Where what is deleted here goes. */
  public Trash trash() {
    String data = System.getenv("XDG_DATA_HOME");
    Path dataHome =
        data != null
                && data.startsWith("/")
                && home.equals(Path.of(System.getProperty("user.home")))
            ? Path.of(data)
            : home.resolve(".local/share");
    return new Trash(dataHome);
  }
}
