package zander.desk.folder;

import java.io.IOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import javafx.beans.property.ReadOnlyBooleanProperty;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.beans.property.SimpleStringProperty;
import javafx.beans.property.StringProperty;
import javafx.collections.ObservableList;
import zander.core.files.DiskSpace;
import zander.core.files.RemoteEntry;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.files.WireName;
import zander.core.listing.Listed;
import zander.core.listing.Narrowing;
import zander.desk.sheet.OpenDesk;
import zander.desk.sheet.Sheet;
import zander.desk.words.Words;
import zander.desk.work.FailureWords;
import zander.desk.work.Message;
import zander.desk.work.Settings;

/** A folder on the server: where it is, what is in it, what is selected. */
public final class FolderModel extends Sheet {
  private static final Words WORDS = Words.of(FolderModel.class);
  private final OpenDesk desk;
  private final ReadOnlyObjectWrapper<RemotePath> path = new ReadOnlyObjectWrapper<>();
  private final ReadOnlyObjectWrapper<Narrowing> narrowing =
      new ReadOnlyObjectWrapper<>(Narrowing.NONE);
  private final FolderWatch watch;
  private final FolderReading reading;
  private final FolderFacts facts;
  private final ReadOnlyObjectWrapper<Set<RemotePath>> marked =
      new ReadOnlyObjectWrapper<>(Set.of());
  private final StringProperty narrow = new SimpleStringProperty("");
  private final ArrangedRows<RemoteEntry, RemotePath> rows;
  private final ReadOnlyObjectWrapper<List<RemoteEntry>> all =
      new ReadOnlyObjectWrapper<>(List.of());
  private final FolderVisits trail = new FolderVisits();
  private Column column = Column.NAME;
  private boolean descending;
  private long lastRead;
  private long hiddenNames;

  public FolderModel(OpenDesk desk) {
    this.desk = desk;
    this.rows = new ArrangedRows<>(desk.background(), RemoteEntry::path);
    this.watch = new FolderWatch(desk);
    this.reading = new FolderReading(desk, watch);
    this.facts = new FolderFacts(desk);
    narrow.addListener(
        (observed, old, now) -> {
          narrowing.set(Narrowing.parse(now, System.currentTimeMillis() / 1000));
          arrange();
        });
    desk.subscriptions().on(desk.settings().value(Settings.SHOW_HIDDEN), now -> arrange());
    desk.subscriptions().on(desk.settings().value(Settings.FOLDERS_FIRST), now -> arrange());
  }

  // Going somewhere.

  /** Goes to a folder; on a failure stays where it was and says why. */
  public void go(RemotePath to) {
    RemotePath from = path.get();
    load(
        to,
        () -> {
          if (from != null && !from.equals(to)) {
            trail.went(from);
          }
        });
  }

  /** Shows what was read on arrival; where that failed, home, and why. */
  public void land(RemoteFiles.Landing landing) {
    IOException failure = landing.failure();
    if (failure == null) {
      watch.readingBegins(landing.folder());
      arrive(landing.folder(), landing.entries());
    } else {
      // Told when home is there: arriving somewhere answers what is told of the place before.
      load(landing.home(), () -> notRead(landing.folder(), failure));
    }
  }

  public void goUp() {
    if (path.get() != null && !path.get().isRoot()) {
      go(path.get().parent());
    }
  }

  public void goHome() {
    go(desk.home());
  }

  public boolean mayGoBack() {
    return trail.peekBack() != null;
  }

  public boolean mayGoForward() {
    return trail.peekForward() != null;
  }

  public void goBack() {
    RemotePath from = path.get();
    if (trail.peekBack() != null) {
      load(trail.peekBack(), () -> trail.wentBack(from));
    }
  }

  public void goForward() {
    RemotePath from = path.get();
    if (trail.peekForward() != null) {
      load(trail.peekForward(), () -> trail.wentForward(from));
    }
  }

  /** Goes to what was typed: absolute, relative to here, or from the home folder by {@code ~}. */
  public void goTyped(String typed) {
    try {
      RemotePath to = PathCompletion.read(typed, this);
      if (to != null) {
        go(to);
      }
    } catch (IllegalArgumentException e) {
      tellFailure(FailureWords.of(e));
    }
  }

  /** Reads the folder again and keeps the selection. */
  public void refresh() {
    if (path.get() != null) {
      load(path.get(), () -> {});
    }
  }

  /** The same when the person comes back to the window, unless it was read just now. */
  public void refreshIfOld() {
    if (!reading.isUnderWay() && System.nanoTime() - lastRead > 2_000_000_000L) {
      refresh();
    }
  }

  /** Reads it again if others changed it; called every few seconds while it is in front. */
  public void lookForChanges() {
    if (!reading.isUnderWay() && path.get() != null) {
      watch.look(this::refresh);
    }
  }

  private void load(RemotePath to, Runnable onArrival) {
    reading.read(
        to,
        to.equals(path.get()) ? all.get() : null,
        new FolderReading.Reader() {
          @Override
          public void part(List<RemoteEntry> soFar, boolean first) {
            if (first) {
              dismissQuestion();
            }
            arrive(to, soFar);
            if (first) {
              onArrival.run();
            }
          }

          @Override
          public void whole(List<RemoteEntry> entries, Set<RemotePath> changed, boolean shown) {
            if (!to.equals(path.get())) {
              // Reading the same folder again answers nothing that is being told or asked.
              dismissQuestion();
            } else if (!changed.isEmpty()) {
              marked.set(changed);
            }
            arrive(to, entries);
            if (!shown) {
              onArrival.run();
            }
          }

          @Override
          public void failed(Throwable failure) {
            notRead(to, failure);
          }
        });
  }

  private void notRead(RemotePath to, Throwable failure) {
    if (path.get() != null) {
      watch.readingBegins(path.get());
    }
    new NotRead(this, desk).take(to, failure);
  }

  private void arrive(RemotePath to, List<RemoteEntry> entries) {
    boolean moved = !to.equals(path.get());
    lastRead = System.nanoTime();
    if (moved) {
      rows.clear();
      marked.set(Set.of());
      path.set(to);
      setTitle(to.name());
      narrow.set("");
      desk.arrivedAt(to);
      facts.learn(to);
    }
    know(List.copyOf(entries));
  }

  private void know(List<RemoteEntry> entries) {
    hiddenNames = entries.stream().filter(FolderModel::isHidden).count();
    all.set(entries);
    arrange();
  }

  private static boolean isHidden(RemoteEntry entry) {
    return entry.path().wireName().startsWith(".");
  }

  // Rows.

  /** Shows rows in the order of a column from now on. */
  public void orderBy(Column by, boolean down) {
    column = by;
    descending = down;
    arrange();
  }

  private void arrange() {
    boolean hidden = desk.settings().get(Settings.SHOW_HIDDEN);
    boolean foldersFirst = desk.settings().get(Settings.FOLDERS_FIRST);
    Narrowing narrowed = narrowing.get();
    // Shown even if hidden: what was just made or changed.
    Set<RemotePath> stays = marked.get();
    rows.arrange(
        all.get(),
        new FolderOrder(column, descending, foldersFirst, facts.notesProperty().get()),
        entry ->
            (hidden || !isHidden(entry) || stays.contains(entry.path()))
                && (narrowed.isEmpty() || narrowed.fits(Listed.of(entry))));
  }

  /** Puts rows that changed in the place of those shown for the same paths. */
  public void update(List<RemoteEntry> now) {
    Map<RemotePath, RemoteEntry> fresh = new HashMap<>();
    now.forEach(entry -> fresh.put(entry.path(), entry));
    know(all.get().stream().map(entry -> fresh.getOrDefault(entry.path(), entry)).toList());
  }

  /** Looks at some paths again: rows come, change and go, without the folder being read. */
  public void lookAgain(List<RemotePath> paths) {
    List<RemotePath> here =
        paths.stream().filter(one -> !one.isRoot() && one.parent().equals(path.get())).toList();
    if (here.isEmpty()) {
      return;
    }
    RemotePath folder = path.get();
    desk.background()
        .run(
            () -> desk.files().entries(here),
            found -> {
              if (folder.equals(path.get())) {
                Set<RemotePath> gone = new HashSet<>(here);
                List<RemoteEntry> merged = new ArrayList<>(found);
                all.get().stream()
                    .filter(entry -> !gone.contains(entry.path()))
                    .forEach(merged::add);
                marked.set(found.stream().map(RemoteEntry::path).collect(Collectors.toSet()));
                know(List.copyOf(merged));
              }
            },
            failure -> desk.checkLine());
  }

  /** Selects rows as soon as they are shown. */
  public void selectNext(List<RemotePath> paths) {
    rows.selectNext(paths);
  }

  // Opening, telling.

  /** Opens a row: goes into a folder, or opens a file as a sheet. */
  public void open(RemoteEntry entry) {
    if (entry.leadsToFolder()) {
      go(entry.path());
    } else if (entry.leadsToFile()) {
      desk.openFile(entry.path(), 0);
    } else {
      String target = entry.target();
      String why =
          entry.isBrokenLink() && target != null
              ? WORDS.say("itIsALink", WireName.toText(target))
              : WORDS.say("itIsADevice");
      tellFailure(new Message(WORDS.say("cannotBeOpened", entry.name()), why));
    }
  }

  // What views see.

  public void select(List<RemoteEntry> entries) {
    rows.select(entries);
  }

  public ObservableList<RemoteEntry> selection() {
    return rows.selection();
  }

  /** The selected paths, in the order of the rows. */
  public List<RemotePath> selectedPaths() {
    return rows.selectedKeys();
  }

  /** The rows that are shown, in their order. */
  public ObservableList<RemoteEntry> rows() {
    return rows.rows();
  }

  /** Whether what is known of the folder is a part of it: more is coming, or it broke off. */
  public ReadOnlyBooleanProperty partialProperty() {
    return reading.partialProperty();
  }

  /** All entries, shown or not. */
  public ReadOnlyObjectProperty<List<RemoteEntry>> allProperty() {
    return all.getReadOnlyProperty();
  }

  /** Which marked folder it is in; those of one are of a kind. Empty for none. */
  public String kind() {
    return path.get() == null ? "" : desk.markedFolderOf(path.get());
  }

  /** Why there are no rows. */
  public Emptiness emptiness() {
    return Emptiness.of(
        allProperty().get().size(), hiddenCount(), !narrowingProperty().get().isEmpty());
  }

  /** How many are hidden by their names, and not by narrowing. */
  public long hiddenCount() {
    return desk.settings().get(Settings.SHOW_HIDDEN) ? 0 : hiddenNames;
  }

  public StringProperty narrowProperty() {
    return narrow;
  }

  /** What the narrowing was understood as. */
  public ReadOnlyObjectProperty<Narrowing> narrowingProperty() {
    return narrowing.getReadOnlyProperty();
  }

  public ReadOnlyObjectProperty<EntryNotes> notesProperty() {
    return facts.notesProperty();
  }

  /** The room there is; {@code null} while the server has not told. */
  public ReadOnlyObjectProperty<DiskSpace> spaceProperty() {
    return facts.spaceProperty();
  }

  /** Rows that changed at the last look. */
  public ReadOnlyObjectProperty<Set<RemotePath>> markedProperty() {
    return marked.getReadOnlyProperty();
  }

  public ReadOnlyObjectProperty<RemotePath> pathProperty() {
    return path.getReadOnlyProperty();
  }

  /** The folder that is being read; {@code null} for none. */
  public ReadOnlyObjectProperty<RemotePath> goalProperty() {
    return reading.goalProperty();
  }

  public RemotePath path() {
    return path.get();
  }

  public ReadOnlyBooleanProperty loadingProperty() {
    return reading.underWayProperty();
  }

  public OpenDesk desk() {
    return desk;
  }
}
