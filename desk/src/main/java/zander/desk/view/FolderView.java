package zander.desk.view;

import java.time.Clock;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import javafx.collections.ListChangeListener;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TableCell;
import javafx.scene.control.TableColumn;
import javafx.scene.control.TableView;
import javafx.scene.control.TextField;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import zander.core.files.FileKind;
import zander.core.files.RemoteEntry;
import zander.core.files.RemotePath;
import zander.core.files.WireName;
import zander.desk.model.EntryNotes;
import zander.desk.model.FolderModel;
import zander.desk.model.Texts;

/** A folder of the server as a table. */
final class FolderView extends VBox {
  private final FolderModel model;
  private final TableView<RemoteEntry> table = new TableView<>();
  private final PathBar path;
  private final TextField narrow = new TextField();
  private final Clock clock = Clock.systemDefaultZone();

  FolderView(FolderModel model) {
    this.model = model;
    this.path = new PathBar("server-path", this::goTyped);
    getStyleClass().add("sheet");
    Button up = Parts.button("Up", "up", model::goUp);
    Parts.hint(up, "To the folder above (Alt+Up)");
    narrow.setId("narrow");
    narrow.setPromptText("Narrow the list");
    narrow.textProperty().bindBidirectional(model.narrowProperty());
    narrow.setPrefWidth(150);
    HBox bar = Parts.row("sheet-bar", up, path, narrow);
    buildTable();
    VBox.setVgrow(table, Priority.ALWAYS);
    getChildren().addAll(bar, new QuestionStrip(model.questionProperty()), table);
    model.pathProperty().addListener((observed, old, now) -> showPath());
    model.loadingProperty().addListener((observed, old, now) -> showEmptiness());
    model.rows().addListener((ListChangeListener<RemoteEntry>) change -> showEmptiness());
    showPath();
    showEmptiness();
  }

  private void showPath() {
    RemotePath at = model.path();
    if (at == null) {
      return;
    }
    List<PathBar.Crumb> crumbs = new ArrayList<>();
    for (RemotePath folder : at.chain()) {
      crumbs.add(new PathBar.Crumb(folder.name(), () -> model.go(folder)));
    }
    path.show(at.text(), crumbs);
    table.scrollTo(0);
  }

  private void showEmptiness() {
    String words =
        model.loadingProperty().get()
            ? "Reading the folder"
            : !model.allRows().isEmpty()
                ? "Nothing here matches. Clear the field above to see all."
                : "This folder is empty. Select files below the waterline and send them up.";
    ((Label) table.getPlaceholder()).setText(words);
  }

  private void buildTable() {
    table.setId("server-table");
    table.setPlaceholder(Parts.label("", "quiet"));
    TableColumn<RemoteEntry, RemoteEntry> name = Tables.column("Name", 220, e -> e, this::nameCell);
    name.setComparator(
        Comparator.comparing((RemoteEntry e) -> !e.attributes().isFolder())
            .thenComparing(RemoteEntry::name, String.CASE_INSENSITIVE_ORDER));
    TableColumn<RemoteEntry, Long> size =
        Tables.column(
            "Size",
            80,
            e -> sizeOf(e),
            () -> Tables.text(Texts::size, Pos.CENTER_RIGHT, "figures"));
    size.getStyleClass().add("right");
    TableColumn<RemoteEntry, Long> changed =
        Tables.column("Changed", 132, e -> e.attributes().modified(), this::timeCell);
    TableColumn<RemoteEntry, String> owner =
        Tables.column("Owner", 76, RemoteEntry::owner, this::plain);
    TableColumn<RemoteEntry, String> group =
        Tables.column("Group", 70, RemoteEntry::group, this::plain);
    TableColumn<RemoteEntry, String> mode =
        Tables.column("Mode", 122, FolderView::modeOf, this::mono);
    TableColumn<RemoteEntry, EntryNotes.Note> note =
        Tables.column("Notes", 128, EntryNotes::of, FolderView::noteCell);
    note.setComparator(Comparator.comparing(EntryNotes.Note::words));
    table.getColumns().addAll(List.of(name, size, changed, owner, group, mode, note));
    Tables.fill(table, model.rows(), model::open);
    Tables.bindSelection(table, model.selection(), model::select);
    name.prefWidthProperty()
        .bind(
            javafx.beans.binding.Bindings.max(
                160, table.widthProperty().subtract(80 + 132 + 76 + 70 + 122 + 128 + 36)));
  }

  private TableCell<RemoteEntry, String> plain() {
    return Tables.text(text -> text, Pos.CENTER_LEFT, "plain");
  }

  private TableCell<RemoteEntry, String> mono() {
    return Tables.text(text -> text, Pos.CENTER_LEFT, "mono");
  }

  private TableCell<RemoteEntry, Long> timeCell() {
    TableCell<RemoteEntry, Long> cell =
        Tables.text(seconds -> Texts.when(seconds, clock), Pos.CENTER_LEFT, "plain");
    cell.itemProperty()
        .addListener(
            (observed, old, now) ->
                cell.setTooltip(now == null ? null : new Tooltip(Texts.exactly(now))));
    return cell;
  }

  private TableCell<RemoteEntry, RemoteEntry> nameCell() {
    return new TableCell<>() {
      @Override
      protected void updateItem(RemoteEntry entry, boolean empty) {
        super.updateItem(entry, empty);
        getStyleClass().removeAll("folder-name", "link-name");
        if (empty || entry == null) {
          setText(null);
          setTooltip(null);
          return;
        }
        boolean link = entry.kind() == FileKind.LINK;
        String target = link ? "  →  " + WireName.toText(entry.target()) : "";
        setText(entry.name() + target);
        setTooltip(entry.name().length() > 30 || link ? new Tooltip(getText()) : null);
        if (entry.leadsToFolder()) {
          getStyleClass().add("folder-name");
        }
        if (link) {
          getStyleClass().add("link-name");
        }
      }
    };
  }

  private static Long sizeOf(RemoteEntry entry) {
    return entry.kind() == FileKind.FILE ? (Long) entry.attributes().size() : null;
  }

  private static String modeOf(RemoteEntry entry) {
    return entry.attributes().mode().letters() + " " + entry.attributes().mode().shortOctal();
  }

  private static TableCell<RemoteEntry, EntryNotes.Note> noteCell() {
    return Tables.tag(
        EntryNotes.Note::words,
        note -> List.of("tag", note.weight() == EntryNotes.Weight.DANGER ? "danger" : "look"));
  }

  private void goTyped(String typed) {
    model.goTyped(typed);
    table.requestFocus();
  }

  void focusTable() {
    table.requestFocus();
  }

  void typePath() {
    path.type();
  }

  void focusNarrow() {
    narrow.requestFocus();
    narrow.selectAll();
  }
}
