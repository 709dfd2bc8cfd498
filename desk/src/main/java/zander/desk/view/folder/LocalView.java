package zander.desk.view.folder;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.function.Consumer;
import javafx.collections.ListChangeListener;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.ContextMenu;
import javafx.scene.control.Label;
import javafx.scene.control.TableCell;
import javafx.scene.control.TableColumn;
import javafx.scene.control.TableView;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;
import zander.core.files.FileKind;
import zander.core.transfer.rules.Comparison;
import zander.desk.local.LocalColumn;
import zander.desk.local.LocalModel;
import zander.desk.local.LocalRow;
import zander.desk.model.DeskModel;
import zander.desk.sheet.Action;
import zander.desk.sheet.Texts;
import zander.desk.view.part.NarrowField;
import zander.desk.view.part.Parts;
import zander.desk.view.part.RelativeTimes;
import zander.desk.view.part.Tables;
import zander.desk.words.Words;

/** This computer's folder, below the waterline. */
public final class LocalView extends VBox {
  private static final Words WORDS = Words.of(LocalView.class);

  private final LocalModel model;
  private final TableView<LocalRow> table = new TableView<>();
  private final PathBar path;
  private final TextField name = new TextField();

  public LocalView(DeskModel desk) {
    this.model = desk.local();
    this.path = new PathBar("local-path", this::goTyped);
    getStyleClass().add("local");
    Button up = Parts.button(WORDS.say("up"), "local-up", model::goUp);
    up.setMinWidth(USE_PREF_SIZE);
    NarrowField narrow =
        new NarrowField(
            "local-narrow",
            model.narrowProperty(),
            model.narrowingProperty(),
            () -> WORDS.say("of", model.rows().size(), model.allCount()));
    model.rows().addListener((ListChangeListener<LocalRow>) change -> narrow.explain());
    Label problem = Parts.label("", "problem");
    problem.textProperty().bind(model.problemProperty());
    HBox bar =
        Parts.row(
            "sheet-bar",
            Parts.label(WORDS.say("thisComputer"), "strong-word"),
            up,
            path,
            problem,
            name,
            narrow);
    name.setId("local-name");
    name.setPromptText(WORDS.say("name"));
    Parts.show(name, false);
    name.focusedProperty().addListener((observed, old, now) -> Parts.show(name, now));
    buildTable();
    ServerDrags.installBelow(table, desk);
    offer(desk);
    VBox.setVgrow(table, Priority.ALWAYS);
    getChildren().addAll(bar, narrow.explained(), table);
    model.folderProperty().addListener((observed, old, now) -> showPath());
    showPath();
  }

  private void showPath() {
    Path folder = model.folder();
    if (folder == null) {
      return;
    }
    List<PathBar.Crumb> crumbs = new ArrayList<>();
    String shown = model.shownFolder();
    int names = shown.startsWith("~") ? shown.split("/").length : folder.getNameCount() + 1;
    Path at = folder;
    for (int i = 0; i < names && at != null; i++) {
      Path to = at;
      boolean first = i == names - 1;
      String name = first ? (shown.startsWith("~") ? "~" : "/") : at.getFileName().toString();
      crumbs.add(new PathBar.Crumb(name, () -> model.go(to)));
      at = at.getParent();
    }
    Collections.reverse(crumbs);
    path.show(folder.toString(), crumbs);
  }

  private void buildTable() {
    table.setId("local-table");
    Label nothing = Parts.label("", "quiet");
    table.setPlaceholder(nothing);
    nothing
        .textProperty()
        .bind(
            model
                .emptinessProperty()
                .map(why -> FolderView.words(why, WORDS.say("thisFolderIsEmpty"))));
    TableColumn<LocalRow, LocalRow> name =
        Tables.column(WORDS.say("name"), 420, row -> row, NameCell::new);
    name.setUserData(LocalColumn.NAME);
    TableColumn<LocalRow, Long> size =
        Tables.column(
            WORDS.say("size"),
            110,
            LocalView::sizeOf,
            () -> Tables.text(Texts::size, Pos.CENTER_RIGHT, "figures"));
    Tables.numbers(size);
    size.setUserData(LocalColumn.SIZE);
    TableColumn<LocalRow, Long> changed =
        Tables.column(WORDS.say("changed"), 150, row -> row.node().modified(), RelativeTimes::cell);
    TableColumn<LocalRow, Comparison> comparison =
        Tables.column(
            WORDS.say("againstTheServer"), 160, LocalRow::comparison, LocalView::comparisonCell);
    changed.setUserData(LocalColumn.CHANGED);
    comparison.setUserData(LocalColumn.COMPARISON);
    table.getColumns().addAll(List.of(name, size, changed, comparison));
    comparison
        .prefWidthProperty()
        .bind(javafx.beans.binding.Bindings.max(160, table.widthProperty().subtract(720)));
    table.setItems(model.rows());
    table.setSortPolicy(sorted -> orderByHeadings());
    Tables.open(table, this::open, row -> {});
    Tables.bindSelection(table, model.selection(), model::select);
  }

  /** The model keeps the rows in order; headings only tell it which. */
  private Boolean orderByHeadings() {
    TableColumn<LocalRow, ?> first =
        table.getSortOrder().isEmpty() ? null : table.getSortOrder().get(0);
    model.orderBy(
        first == null ? LocalColumn.NAME : (LocalColumn) first.getUserData(),
        first != null && first.getSortType() == TableColumn.SortType.DESCENDING);
    return true;
  }

  /** The same keys as above the waterline, while this table has the focus. */
  private void offer(DeskModel desk) {
    ContextMenu menu = new ContextMenu();
    menu.getItems()
        .addAll(
            FolderView.item(new Action(WORDS.say("sendUp"), "", desk.transfers()::sendUp)),
            FolderView.item(new Action(WORDS.say("rename"), "", this::rename)),
            FolderView.item(new Action(WORDS.say("newFolder"), "", this::makeFolder)),
            FolderView.item(new Action(WORDS.say("moveToTheTrash"), "", model::delete)));
    table.setContextMenu(menu);
    table.addEventFilter(
        KeyEvent.KEY_PRESSED,
        event -> {
          if (event.getCode() == KeyCode.DELETE) {
            model.delete();
            event.consume();
          } else if (event.getCode() == KeyCode.F2) {
            rename();
            event.consume();
          }
        });
  }

  private void rename() {
    if (model.selection().size() == 1) {
      LocalRow row = model.selection().get(0);
      askName(row.name(), typed -> model.rename(row, typed));
    }
  }

  private void makeFolder() {
    askName("", model::makeFolder);
  }

  /** A field in the bar, in the place of the narrowing, until Enter or Escape. */
  private void askName(String first, Consumer<String> then) {
    name.setText(first);
    Parts.show(name, true);
    name.requestFocus();
    name.selectAll();
    name.setOnAction(
        event -> {
          Parts.show(name, false);
          then.accept(name.getText());
          table.requestFocus();
        });
  }

  private void open(LocalRow row) {
    if (row.isFolder()) {
      model.go(row.path());
    }
  }

  private static @Nullable Long sizeOf(LocalRow row) {
    return row.node().kind() == FileKind.FILE ? (Long) row.node().size() : null;
  }

  private static final int LONG = 60;

  private static final class NameCell extends TableCell<LocalRow, LocalRow> {
    NameCell() {
      Tables.hint(this, row -> row == null || row.name().length() <= LONG ? "" : row.name());
    }

    @Override
    protected void updateItem(LocalRow row, boolean empty) {
      super.updateItem(row, empty);
      boolean shown = !empty && row != null;
      setText(shown ? row.name() : null);
      Tables.mark(this, "folder-name", shown && row.isFolder());
    }
  }

  private static TableCell<LocalRow, Comparison> comparisonCell() {
    return Tables.tag(
        LocalView::words,
        comparison -> comparison == Comparison.SAME ? List.of("quiet") : List.of("tag", "look"));
  }

  private static String words(Comparison comparison) {
    return switch (comparison) {
      case NEW -> WORDS.say("onlyHere");
      case SAME -> WORDS.say("same");
      case NEWER -> WORDS.say("newerHere");
      case OLDER -> WORDS.say("olderHere");
      case DIFFERS -> WORDS.say("differs");
      case IN_THE_WAY -> WORDS.say("fileAndFolder");
    };
  }

  private void goTyped(String typed) {
    model.goTyped(typed);
    table.requestFocus();
  }
}
