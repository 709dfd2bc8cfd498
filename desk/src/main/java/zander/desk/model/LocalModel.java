package zander.desk.model;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
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
import zander.desk.model.LocalRow.Standing;
import zander.desk.work.Background;
import zander.desk.work.FailureWords;
import zander.desk.work.HomePath;

/** A folder on this computer, below the waterline. */
public final class LocalModel {
  /** Times on some file systems are kept in steps of two seconds. */
  private static final long SAME_TIME = 2;

  private final Background background;
  private final Path home;
  private final ReadOnlyObjectWrapper<Path> folder = new ReadOnlyObjectWrapper<>();
  private final ReadOnlyStringWrapper problem = new ReadOnlyStringWrapper("");
  private final StringProperty narrow = new SimpleStringProperty("");
  private final ObservableList<LocalRow> rows = FXCollections.observableArrayList();
  private final FilteredList<LocalRow> shown = new FilteredList<>(rows);
  private final ObservableList<LocalRow> selection = FXCollections.observableArrayList();

  /** The entries of the server's folder; {@code null} while none is shown. */
  private List<RemoteEntry> server;

  private String serverName;

  private long request;

  LocalModel(Background background, Path home, Path start) {
    this.background = background;
    this.home = home;
    narrow.addListener(
        (observed, old, now) ->
            shown.setPredicate(
                row -> row.name().toLowerCase().contains(now.strip().toLowerCase())));
    go(start);
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
    made.sort(
        Comparator.comparing((LocalRow row) -> !row.isFolder())
            .thenComparing(LocalRow::name, String.CASE_INSENSITIVE_ORDER));
    List<Path> selected = selection.stream().map(LocalRow::path).toList();
    rows.setAll(made);
    selection.setAll(made.stream().filter(row -> selected.contains(row.path())).toList());
  }

  /** Folders of different names are not copies of each other: comparing them says nothing. */
  private boolean isPartner() {
    Path name = folder.get().getFileName();
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
  void compareWith(RemotePath serverFolder, List<RemoteEntry> entries) {
    server = List.copyOf(entries);
    serverName = serverFolder == null ? null : serverFolder.name();
    show(rows.stream().map(LocalRow::node).toList());
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
}
