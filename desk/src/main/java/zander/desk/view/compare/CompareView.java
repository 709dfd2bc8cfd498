package zander.desk.view.compare;

import java.util.List;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.ChoiceBox;
import javafx.scene.control.Label;
import javafx.scene.control.TableColumn;
import javafx.scene.control.TableView;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import zander.core.edit.SideBySide;
import zander.desk.compare.CompareModel;
import zander.desk.compare.CompareModel.Compared;
import zander.desk.compare.CompareModel.Side;
import zander.desk.view.part.Parts;
import zander.desk.view.part.QuestionStrip;
import zander.desk.view.part.SheetView;
import zander.desk.view.part.Tables;
import zander.desk.words.Words;
import zander.desk.work.Subscriptions;

/** Two versions of a file, line beside line, with what can be taken from the left one. */
public final class CompareView extends VBox implements SheetView {
  private static final Words WORDS = Words.of(CompareView.class);

  private static final double NUMBER = 52;

  /** Rows that stay in sight above a change that is gone to. */
  private static final int ABOVE = 3;

  private final CompareModel model;
  private final TableView<SideBySide.Row> table = new TableView<>();
  private final Label outcome = Parts.label("", "quiet");
  private final Button takeBack;
  private final Button putIn;
  private final Subscriptions subscriptions = new Subscriptions();

  /** The change that is gone to, counted from 0. */
  private int change;

  public CompareView(CompareModel model) {
    this.model = model;
    getStyleClass().add("sheet");
    outcome.setId("compare-outcome");
    takeBack = Parts.button(WORDS.say("takeBack"), "compare-take-back", this::takeBack);
    putIn = Parts.button(WORDS.say("putLeftInEditor"), "compare-put-in", model::putLeftIn);
    Button next = Parts.button(WORDS.say("next"), "compare-next", () -> go(1));
    Parts.hint(next, WORDS.say("goesToTheNext"));
    Parts.hint(takeBack, WORDS.say("putsTheLeftLines"));
    Parts.hint(putIn, WORDS.say("putsTheWholeLeft"));
    for (Button button : List.of(takeBack, putIn, next)) {
      button.setMinWidth(USE_PREF_SIZE);
    }
    HBox gap = new HBox();
    HBox.setHgrow(gap, Priority.ALWAYS);
    buildTable();
    VBox.setVgrow(table, Priority.ALWAYS);
    getChildren()
        .addAll(
            Parts.row("sheet-bar", outcome, gap, next, takeBack, putIn),
            new QuestionStrip(model.questionProperty()),
            Parts.row("sheet-bar", side("compare-left", true), side("compare-right", false)),
            table);
    subscriptions.on(model.comparedProperty(), this::show);
    subscriptions.on(model.leftProperty(), side -> tell());
    subscriptions.on(model.rightProperty(), side -> tell());
    show(model.comparedProperty().get());
  }

  private ChoiceBox<Side> side(String id, boolean isLeft) {
    ChoiceBox<Side> box = new ChoiceBox<>(model.sides());
    box.setId(id);
    box.setAccessibleText(isLeft ? WORDS.say("leftVersion") : WORDS.say("rightVersion"));
    box.valueProperty().bindBidirectional(isLeft ? model.leftProperty() : model.rightProperty());
    box.setMaxWidth(Double.MAX_VALUE);
    box.setMinWidth(80);
    box.setPrefWidth(400);
    HBox.setHgrow(box, Priority.ALWAYS);
    return box;
  }

  private void buildTable() {
    table.setId("compare-table");
    table.getStyleClass().add("compared");
    table.setPlaceholder(Parts.label(WORDS.say("nothingToCompareYet"), "quiet"));
    TableColumn<SideBySide.Row, String> leftNumber = number(true);
    TableColumn<SideBySide.Row, String> rightNumber = number(false);
    TableColumn<SideBySide.Row, SideBySide.Row> left =
        Tables.column(WORDS.say("left"), 380, row -> row, () -> new LineCell(true));
    TableColumn<SideBySide.Row, SideBySide.Row> right =
        Tables.column(WORDS.say("right"), 380, row -> row, () -> new LineCell(false));
    table.getColumns().addAll(List.of(leftNumber, left, rightNumber, right));
    // Both texts have the same room, whatever the width.
    table
        .widthProperty()
        .addListener(
            (observed, old, now) -> {
              double half = Math.max(160, (now.doubleValue() - 2 * NUMBER - 30) / 2);
              left.setPrefWidth(half);
              right.setPrefWidth(half);
            });
    table
        .getSelectionModel()
        .selectedItemProperty()
        .addListener(
            (observed, old, row) -> {
              if (row != null && !row.isSame()) {
                change = row.change();
                tell();
              }
            });
    Tables.open(table, row -> {}, row -> {});
  }

  private static TableColumn<SideBySide.Row, String> number(boolean isLeft) {
    TableColumn<SideBySide.Row, String> column =
        Tables.column(
            "",
            NUMBER,
            row -> {
              int number = isLeft ? row.leftNumber() : row.rightNumber();
              return number > 0 ? Integer.toString(number) : "";
            },
            () -> Tables.text(text -> text, Pos.CENTER_RIGHT, "figures"));
    column.setSortable(false);
    column.setResizable(false);
    return column;
  }

  private void show(Compared found) {
    table.getItems().setAll(found.rows());
    change = Math.min(change, Math.max(0, found.changes() - 1));
    tell();
    if (found.changes() > 0) {
      go(0);
    }
  }

  private void tell() {
    int changes = model.comparedProperty().get().changes();
    outcome.setText(
        model.comparedProperty().get().rows().isEmpty()
            ? ""
            : changes == 0
                ? WORDS.say("noLineDiffers")
                : WORDS.say("changeOf", change + 1, changes));
    takeBack.setDisable(changes == 0 || !model.canTakeBack());
    putIn.setDisable(!model.canPutLeftIn());
  }

  /** Goes to the change after this one, the one before it, or to this one again. */
  void go(int by) {
    int changes = model.comparedProperty().get().changes();
    if (changes > 0) {
      change = Math.floorMod(change + by, changes);
      List<SideBySide.Row> rows = table.getItems();
      for (int i = 0; i < rows.size(); i++) {
        if (rows.get(i).change() == change) {
          table.getSelectionModel().clearAndSelect(i);
          table.scrollTo(Math.max(0, i - ABOVE));
          break;
        }
      }
      tell();
    }
  }

  void takeBack() {
    model.takeBack(change);
  }

  @Override
  public void takeFocus() {
    table.requestFocus();
  }

  @Override
  public void dispose() {
    subscriptions.end();
  }
}
