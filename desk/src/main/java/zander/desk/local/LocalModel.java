package zander.desk.local;

import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.beans.property.ReadOnlyStringProperty;
import javafx.beans.property.ReadOnlyStringWrapper;
import javafx.beans.property.SimpleStringProperty;
import javafx.beans.property.StringProperty;
import javafx.collections.ObservableList;
import org.jspecify.annotations.Nullable;
import zander.core.files.RemoteEntry;
import zander.core.files.RemotePath;
import zander.core.files.WireName;
import zander.core.listing.Listed;
import zander.core.listing.Narrowing;
import zander.core.local.Trash;
import zander.core.transfer.endpoint.TreeEntry;
import zander.core.transfer.local.LocalEndpoint;
import zander.desk.folder.ArrangedRows;
import zander.desk.folder.Emptiness;
import zander.desk.folder.OtherSide;
import zander.desk.words.Words;
import zander.desk.work.Background;
import zander.desk.work.FailureWords;
import zander.desk.work.HomePath;
import zander.desk.work.Settings;
import zander.desk.work.Subscriptions;

/** A folder on this computer, below the waterline. */
public final class LocalModel {
  private static final Words WORDS = Words.of(LocalModel.class);

  private final ReadOnlyObjectWrapper<Emptiness> emptiness =
      new ReadOnlyObjectWrapper<>(Emptiness.EMPTY);
  private final Background background;
  private final Settings settings;
  private final Path home;
  private final ReadOnlyObjectWrapper<Path> folder = new ReadOnlyObjectWrapper<>();
  private final ReadOnlyStringWrapper problem = new ReadOnlyStringWrapper("");
  private final StringProperty narrow = new SimpleStringProperty("");
  private final ReadOnlyObjectWrapper<Narrowing> narrowing =
      new ReadOnlyObjectWrapper<>(Narrowing.NONE);
  private final ArrangedRows<LocalRow, Path> rows;
  private List<TreeEntry> nodes = List.of();
  private List<LocalRow> all = List.of();
  private OtherSide server = OtherSide.NONE;
  private LocalOrder order = new LocalOrder(LocalColumn.NAME, false);
  private long making;

  private final ReadOnlyObjectWrapper<Set<String>> names = new ReadOnlyObjectWrapper<>();
  private long request;

  /**
   * @param subscriptions end with the desk
   */
  public LocalModel(
      Background background,
      Settings settings,
      Subscriptions subscriptions,
      Path home,
      Path start) {
    this.background = background;
    this.settings = settings;
    this.home = home;
    this.rows = new ArrangedRows<>(background, LocalRow::path);
    narrow.addListener((observed, old, now) -> narrow());
    subscriptions.on(settings.value(Settings.SHOW_HIDDEN), now -> narrow());
    narrow();
    go(start);
  }

  private void narrow() {
    narrowing.set(Narrowing.parse(narrow.get(), System.currentTimeMillis() / 1000));
    arrange();
  }

  private void arrange() {
    Narrowing now = narrowing.get();
    emptiness.set(whyEmpty());
    boolean hidden = settings.get(Settings.SHOW_HIDDEN);
    rows.arrange(
        all, order, row -> (hidden || !isHidden(row)) && (now.isEmpty() || now.fits(listed(row))));
  }

  private static boolean isHidden(LocalRow row) {
    return row.node().name().startsWith(".");
  }

  private Emptiness whyEmpty() {
    boolean shown = settings.get(Settings.SHOW_HIDDEN);
    long hidden = shown ? 0 : all.stream().filter(LocalModel::isHidden).count();
    return Emptiness.of(all.size(), hidden, !narrowing.get().isEmpty());
  }

  /** Why there are no rows, when there are none. */
  public ReadOnlyObjectProperty<Emptiness> emptinessProperty() {
    return emptiness.getReadOnlyProperty();
  }

  /** Shows rows in the order of a column from now on. */
  public void orderBy(LocalColumn column, boolean descending) {
    order = new LocalOrder(column, descending);
    arrange();
  }

  private record LocalOrder(LocalColumn column, boolean descending)
      implements ArrangedRows.Order<LocalRow> {
    @Override
    public Comparator<LocalRow> of(List<LocalRow> all) {
      return column.order(descending);
    }
  }

  private static Listed listed(LocalRow row) {
    String[] owners = row.node().owner().split(":", 2);
    return new Listed(
        row.name(),
        row.node().kind(),
        row.node().size(),
        row.node().modified(),
        row.node().mode(),
        Listed.Account.of(owners[0]),
        Listed.Account.of(owners.length > 1 ? owners[1] : ""));
  }

  public void go(Path to) {
    long mine = ++request;
    Path goal = to.toAbsolutePath().normalize();
    background.run(
        () -> {
          if (!Files.isDirectory(goal)) {
            throw new java.nio.file.NoSuchFileException(goal.toString());
          }
          return new LocalEndpoint(goal).list("");
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

  private record Made(List<LocalRow> rows, @Nullable Set<String> names) {}

  private void show(List<TreeEntry> found) {
    nodes = List.copyOf(found);
    long mine = ++making;
    Path at = folder.get();
    OtherSide against = server.isPartnerOf(at) ? server : OtherSide.NONE;
    if (nodes.size() + against.size() <= ArrangedRows.MANY) {
      take(make(at, found, against));
      return;
    }
    background.run(
        () -> make(at, found, against),
        made -> {
          if (mine == making) {
            take(made);
          }
        },
        failure -> {});
  }

  private void take(Made made) {
    all = made.rows;
    names.set(made.names);
    arrange();
  }

  private static Made make(Path at, List<TreeEntry> nodes, OtherSide against) {
    List<LocalRow> rows = new ArrayList<>(nodes.size());
    for (TreeEntry node : nodes) {
      String name = new String(WireName.bytes(node.name()), StandardCharsets.UTF_8);
      rows.add(new LocalRow(at.resolve(name), node, against.compare(node)));
    }
    // What is here, by name, when the two folders are partners: the server's rows ask for it.
    boolean partners = against != OtherSide.NONE;
    return new Made(
        List.copyOf(rows),
        partners ? nodes.stream().map(TreeEntry::name).collect(Collectors.toSet()) : null);
  }

  /** Compares with these entries of a server's folder from now on. */
  public void compareWith(RemotePath serverFolder, List<RemoteEntry> entries) {
    server = new OtherSide(serverFolder == null ? null : serverFolder.name(), entries);
    if (folder.get() != null) {
      show(nodes);
    }
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
    List<Path> paths = rows.selectedKeys();
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
                  ? WORDS.say("itIsOnAnother")
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
    rows.select(chosen);
  }

  public ObservableList<LocalRow> selection() {
    return rows.selection();
  }

  public ObservableList<LocalRow> rows() {
    return rows.rows();
  }

  /** What the narrowing was understood as. */
  public ReadOnlyObjectProperty<Narrowing> narrowingProperty() {
    return narrowing.getReadOnlyProperty();
  }

  /** How many entries there are, shown or not. */
  public int allCount() {
    return all.size();
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
