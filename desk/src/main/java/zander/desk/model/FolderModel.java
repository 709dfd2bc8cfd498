package zander.desk.model;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.Deque;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import javafx.beans.property.ReadOnlyBooleanProperty;
import javafx.beans.property.ReadOnlyBooleanWrapper;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.beans.property.SimpleStringProperty;
import javafx.beans.property.StringProperty;
import javafx.collections.FXCollections;
import javafx.collections.ObservableList;
import javafx.collections.transformation.FilteredList;
import zander.core.files.RemoteEntry;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.desk.work.FailureWords;

/** A folder on the server: where it is, what is in it, what is selected. */
public final class FolderModel extends Sheet {
  private final DeskModel desk;
  private final ReadOnlyBooleanWrapper loading = new ReadOnlyBooleanWrapper(false);
  private final ReadOnlyObjectWrapper<RemotePath> path = new ReadOnlyObjectWrapper<>();
  private final StringProperty narrow = new SimpleStringProperty("");
  private final ObservableList<RemoteEntry> all = FXCollections.observableArrayList();
  private final FilteredList<RemoteEntry> shown = new FilteredList<>(all);
  private final ObservableList<RemoteEntry> selection = FXCollections.observableArrayList();
  private final Deque<RemotePath> before = new ArrayDeque<>();
  private long request;

  FolderModel(DeskModel desk) {
    this.desk = desk;
    narrow.addListener((observed, old, now) -> shown.setPredicate(e -> matches(e, now)));
  }

  private static boolean matches(RemoteEntry entry, String text) {
    String wanted = text.strip().toLowerCase(java.util.Locale.ROOT);
    return wanted.isEmpty()
        || entry.name().toLowerCase(java.util.Locale.ROOT).contains(wanted)
        || entry.owner().equals(wanted)
        || entry.group().equals(wanted);
  }

  /** Folders first, then by name without regard to case. */
  static final Comparator<RemoteEntry> ORDER =
      Comparator.comparing((RemoteEntry e) -> !e.attributes().isFolder())
          .thenComparing(RemoteEntry::name, String.CASE_INSENSITIVE_ORDER)
          .thenComparing(RemoteEntry::path);

  /** Goes to a folder; on a failure stays where it was and says why. */
  public void go(RemotePath to) {
    RemotePath from = path.get();
    load(
        to,
        () -> {
          if (from != null && !from.equals(to)) {
            before.push(from);
          }
        });
  }

  /** Shows what was read on arrival; where that failed, home, and why. */
  void land(RemoteFiles.Landing landing) {
    if (landing.failure() == null) {
      arrive(landing.folder(), sorted(landing.entries()));
    } else {
      go(landing.home());
      ask(Question.notice(FailureWords.of(landing.failure()), true, dismiss()));
    }
  }

  public void goUp() {
    if (path.get() != null && !path.get().isRoot()) {
      go(path.get().parent());
    }
  }

  public void goBack() {
    if (!before.isEmpty()) {
      RemotePath to = before.pop();
      load(to, () -> {});
    }
  }

  /** Goes to what was typed: absolute, relative to here, or from the home folder by {@code ~}. */
  public void goTyped(String typed) {
    String text = typed.strip();
    RemotePath home = desk.home();
    try {
      if (text.equals("~") || text.startsWith("~/")) {
        go(home.resolve("." + text.substring(1)));
      } else if (!text.isEmpty()) {
        go(path.get().resolve(text));
      }
    } catch (IllegalArgumentException e) {
      ask(Question.notice(FailureWords.of(e), true, dismiss()));
    }
  }

  /** Reads the folder again and keeps the selection. */
  public void refresh() {
    if (path.get() != null) {
      load(path.get(), () -> {});
    }
  }

  private void load(RemotePath to, Runnable onArrival) {
    long mine = ++request;
    loading.set(true);
    desk.background()
        .run(
            () -> sorted(desk.files().list(to, portion -> {})),
            entries -> {
              if (mine == request) {
                loading.set(false);
                if (!to.equals(path.get())) {
                  // Reading the same folder again answers nothing that is being told or asked.
                  dismissQuestion();
                }
                arrive(to, entries);
                onArrival.run();
              }
            },
            failure -> {
              if (mine == request) {
                loading.set(false);
                boolean lost =
                    failure instanceof RemoteFailure remote
                        && remote.reason() == RemoteFailure.Reason.LINE_LOST;
                // A line that broke is told above all sheets, and this is read again when it is
                // back.
                if (!lost || !to.equals(path.get())) {
                  ask(Question.notice(FailureWords.of(failure), true, dismiss()));
                }
                desk.checkLine();
              }
            });
  }

  private static List<RemoteEntry> sorted(List<RemoteEntry> entries) {
    List<RemoteEntry> rows = new ArrayList<>(entries);
    rows.sort(ORDER);
    return rows;
  }

  private void arrive(RemotePath to, List<RemoteEntry> entries) {
    boolean moved = !to.equals(path.get());
    Set<RemotePath> selected =
        moved ? Set.of() : selection.stream().map(RemoteEntry::path).collect(Collectors.toSet());
    if (moved) {
      narrow.set("");
    }
    path.set(to);
    setTitle(to.name());
    all.setAll(entries);
    selection.setAll(entries.stream().filter(entry -> selected.contains(entry.path())).toList());
    desk.arrivedAt(to);
  }

  private Set<RemotePath> selectedPaths() {
    return selection.stream().map(RemoteEntry::path).collect(Collectors.toSet());
  }

  /** Puts rows in the place of those with the same path: after a change of one's own. */
  public void update(List<RemoteEntry> changed) {
    // Taken before: replacing a row takes its selection away.
    Set<RemotePath> selected = selectedPaths();
    for (RemoteEntry entry : changed) {
      for (int i = 0; i < all.size(); i++) {
        if (all.get(i).path().equals(entry.path())) {
          all.set(i, entry);
        }
      }
    }
    selection.setAll(all.stream().filter(e -> selected.contains(e.path())).toList());
  }

  /** Opens a row: goes into a folder, or opens a file as a sheet. */
  public void open(RemoteEntry entry) {
    if (entry.leadsToFolder()) {
      go(entry.path());
    } else if (entry.leadsToFile()) {
      desk.openFile(entry.path());
    } else {
      String why =
          entry.isBrokenLink()
              ? "It is a link to "
                  + zander.core.files.WireName.toText(entry.target())
                  + ", and nothing is there, or the link leads to itself."
              : "It is a device, a pipe or a socket.";
      ask(
          Question.notice(
              new zander.desk.work.Said(entry.name() + " cannot be opened", why), true, dismiss()));
    }
  }

  Question.Choice dismiss() {
    return new Question.Choice("Close", ticked -> dismissQuestion());
  }

  public void select(List<RemoteEntry> entries) {
    selection.setAll(entries);
  }

  public ObservableList<RemoteEntry> selection() {
    return selection;
  }

  /** The rows that match what was typed to narrow the list. */
  public ObservableList<RemoteEntry> rows() {
    return shown;
  }

  /** All rows, narrowed away or not. */
  public ObservableList<RemoteEntry> allRows() {
    return all;
  }

  public StringProperty narrowProperty() {
    return narrow;
  }

  public ReadOnlyObjectProperty<RemotePath> pathProperty() {
    return path.getReadOnlyProperty();
  }

  public RemotePath path() {
    return path.get();
  }

  public ReadOnlyBooleanProperty loadingProperty() {
    return loading.getReadOnlyProperty();
  }
}
