package zander.desk.view.find;

import java.util.List;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.control.TableCell;
import javafx.scene.control.TableColumn;
import javafx.scene.control.TableView;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import javafx.scene.text.Text;
import zander.desk.find.FindModel;
import zander.desk.find.FindModel.Found;
import zander.desk.view.part.Parts;
import zander.desk.view.part.QuestionStrip;
import zander.desk.view.part.SheetView;
import zander.desk.view.part.Tables;
import zander.desk.words.Words;

/** Finding below a folder: what is looked for, what was found, and what is to come in its place. */
public final class FindView extends VBox implements SheetView {
  private static final Words WORDS = Words.of(FindView.class);

  private final FindModel model;
  private final TextField text = field("find-text", WORDS.say("textInTheFiles"));
  private final TableView<Found> table = new TableView<>();

  public FindView(FindModel model) {
    this.model = model;
    getStyleClass().add("sheet");
    text.textProperty().bindBidirectional(model.textProperty());
    TextField names = field("find-names", WORDS.say("namesConfOwnerRoot"));
    names.textProperty().bindBidirectional(model.namesProperty());
    CheckBox matchCase = box(WORDS.say("matchCase"), "find-case");
    matchCase.selectedProperty().bindBidirectional(model.matchCaseProperty());
    CheckBox expression = box(WORDS.say("expression"), "find-expression");
    Parts.hint(expression, WORDS.say("aRegularExpressionPosix"));
    expression.selectedProperty().bindBidirectional(model.expressionProperty());
    Button find = Parts.button(WORDS.say("find"), "find-now", this::findOrStop, "main");
    find.setMinWidth(USE_PREF_SIZE);
    model
        .busyProperty()
        .addListener(
            (observed, old, now) -> find.setText(now ? WORDS.say("stop") : WORDS.say("find")));
    text.setOnAction(event -> model.find());
    names.setOnAction(event -> model.find());
    HBox bar = Parts.row("sheet-bar", text, names, matchCase, expression, find);
    HBox.setHgrow(text, Priority.ALWAYS);
    HBox.setHgrow(names, Priority.ALWAYS);
    Label outcome = Parts.label("", "quiet");
    outcome.setId("find-outcome");
    outcome.textProperty().bind(model.outcomeProperty());
    buildTable();
    VBox.setVgrow(table, Priority.ALWAYS);
    getChildren()
        .addAll(
            bar,
            replaceBar(),
            new QuestionStrip(model.questionProperty()),
            table,
            Parts.row("sheet-foot", outcome));
  }

  private static TextField field(String id, String prompt) {
    TextField field = new TextField();
    field.setId(id);
    field.setPromptText(prompt);
    return field;
  }

  private static CheckBox box(String words, String id) {
    CheckBox box = new CheckBox(words);
    box.setId(id);
    box.setMinWidth(USE_PREF_SIZE);
    return box;
  }

  private HBox replaceBar() {
    TextField with = field("find-replacement", WORDS.say("replaceBy"));
    with.textProperty().bindBidirectional(model.replacementProperty());
    Button show = Parts.button(WORDS.say("showEachChange"), "find-propose", model::propose);
    show.setMinWidth(USE_PREF_SIZE);
    show.disableProperty().bind(model.busyProperty().or(model.textProperty().isEmpty()));
    Button all = Parts.button(WORDS.say("all"), "choose-all", () -> model.chooseAll(true));
    Button none = Parts.button(WORDS.say("none"), "choose-none", () -> model.chooseAll(false));
    Button replace =
        Parts.button(WORDS.say("replaceSelected"), "find-replace", model::replace, "strong");
    replace.setMinWidth(USE_PREF_SIZE);
    for (Button button : List.of(all, none, replace)) {
      model.proposingProperty().addListener((observed, old, now) -> Parts.show(button, now));
      Parts.show(button, false);
    }
    HBox.setHgrow(with, Priority.ALWAYS);
    HBox bar = Parts.row("sheet-bar", with, show, all, none, replace);
    bar.getStyleClass().add("second-bar");
    return bar;
  }

  private void findOrStop() {
    if (model.busyProperty().get()) {
      model.stop();
    } else {
      model.find();
    }
  }

  private void buildTable() {
    table.setId("find-table");
    table.setPlaceholder(Parts.label(WORDS.say("findsBelowAText", model.folder()), "quiet"));
    TableColumn<Found, Found> where =
        Tables.column(WORDS.say("where"), 250, row -> row, () -> new WhereCell(model));
    TableColumn<Found, Integer> line =
        Tables.column(
            WORDS.say("line"),
            84,
            row -> row.line() == 0 ? null : row.line(),
            () -> Tables.text(String::valueOf, Pos.CENTER_RIGHT, "figures"));
    Tables.numbers(line);
    TableColumn<Found, Found> what =
        Tables.column(WORDS.say("what"), 400, row -> row, WhatCell::new);
    table.getColumns().addAll(List.of(where, line, what));
    what.prefWidthProperty()
        .bind(
            table
                .widthProperty()
                .subtract(where.widthProperty())
                .subtract(line.widthProperty())
                .subtract(32));
    Tables.fill(table, model.found());
    Tables.open(table, model::open, row -> {});
  }

  /** The path, and a box while changes are proposed. */
  private static final class WhereCell extends TableCell<Found, Found> {
    private final FindModel model;

    WhereCell(FindModel model) {
      this.model = model;
    }

    @Override
    protected void updateItem(Found row, boolean empty) {
      super.updateItem(row, empty);
      setGraphic(null);
      setText(null);
      if (empty || row == null) {
        return;
      }
      FindModel.Place place = row.place();
      if (place == null) {
        setText(model.shown(row.path()));
        return;
      }
      CheckBox box = new CheckBox(model.shown(row.path()));
      box.setMnemonicParsing(false);
      box.setSelected(place.chosen().get());
      box.selectedProperty().addListener((observed, old, now) -> place.chosen().set(now));
      place.chosen().addListener((observed, old, now) -> box.setSelected(now));
      setGraphic(box);
    }
  }

  /** The line with what was found in it, or the line as it is and as it would be. */
  private static final class WhatCell extends TableCell<Found, Found> {
    @Override
    protected void updateItem(Found row, boolean empty) {
      super.updateItem(row, empty);
      setText(null);
      setGraphic(null);
      if (empty || row == null) {
        return;
      }
      if (row.place() != null) {
        Label before = Parts.label(row.text().strip(), "mono", "was");
        Label after = Parts.label(row.place().after().strip(), "mono", "will-be");
        setGraphic(Parts.row("was-will-be", before, Parts.label("→", "quiet"), after));
      } else if (row.to() > row.from()) {
        int start = row.text().length() - row.text().stripLeading().length();
        int from = Math.max(row.from(), start);
        Text hit = text(row.text().substring(from, row.to()), "hit");
        // In a row that does not wrap: what does not fit is cut at the table's edge.
        HBox flow =
            new HBox(
                text(row.text().substring(start, from), "mono"),
                hit,
                text(row.text().substring(row.to()), "mono"));
        flow.setMinWidth(0);
        flow.setAlignment(Pos.CENTER_LEFT);
        setGraphic(flow);
      } else {
        setText(row.text());
      }
    }

    private static Text text(String words, String style) {
      Text text = new Text(words.replace('\t', ' '));
      text.getStyleClass().addAll("found-text", style);
      return text;
    }
  }

  @Override
  public void takeFocus() {
    text.requestFocus();
  }
}
