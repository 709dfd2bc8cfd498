package zander.desk.view.history;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.List;
import javafx.collections.ListChangeListener;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TableColumn;
import javafx.scene.control.TableRow;
import javafx.scene.control.TableView;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import zander.core.edit.LineDifference;
import zander.core.journal.JournalEntry;
import zander.desk.history.JournalModel;
import zander.desk.sheet.Texts;
import zander.desk.view.part.DifferenceLines;
import zander.desk.view.part.Parts;
import zander.desk.view.part.QuestionStrip;
import zander.desk.view.part.RelativeTimes;
import zander.desk.view.part.SheetView;
import zander.desk.view.part.Tables;
import zander.desk.words.Words;

/** The journal of a server: its entries by day, the one selected, and putting back. */
public final class JournalView extends VBox implements SheetView {
  private static final Words WORDS = Words.of(JournalView.class);

  private final JournalModel model;
  private final TableView<JournalEntry> table = new TableView<>();
  private final VBox difference = new VBox();
  private final ScrollPane scroll = new ScrollPane(difference);
  private final Button putBack;
  private final Label count = Parts.label("", "quiet");

  public JournalView(JournalModel model) {
    this.model = model;
    getStyleClass().add("sheet");
    TextField search = new TextField();
    search.setId("journal-search");
    search.setPromptText(WORDS.say("searchANameA"));
    search.textProperty().bindBidirectional(model.searchProperty());
    HBox.setHgrow(search, Priority.ALWAYS);
    putBack =
        Parts.button(
            WORDS.say("putBack"),
            "journal-put-back",
            () -> model.putBack(model.selectedProperty().get()),
            "main");
    Button since = Parts.button(WORDS.say("putBackAllSince"), "journal-since", model::putBackSince);
    Button rules = Parts.button(WORDS.say("whatIsKept"), "journal-rules", model::askRules);
    for (Button button : List.of(putBack, since, rules)) {
      button.setMinWidth(USE_PREF_SIZE);
    }
    HBox bar = Parts.row("sheet-bar", search, putBack, since, rules);
    buildTable();
    VBox.setVgrow(table, Priority.ALWAYS);
    difference.getStyleClass().add("difference");
    scroll.setFitToWidth(true);
    scroll.setMinHeight(150);
    scroll.setPrefHeight(150);
    scroll.getStyleClass().add("difference-scroll");
    HBox sealed =
        Parts.row(
            "sheet-bar",
            Parts.label(WORDS.say("whatItChangedIs"), "quiet"),
            Parts.button(WORDS.say("openTheVault"), "journal-open-vault", model::openVault));
    getChildren()
        .addAll(
            bar,
            new QuestionStrip(model.questionProperty()),
            table,
            sealed,
            scroll,
            Parts.row("sheet-foot", count));
    Parts.show(sealed, false);
    model.sealedProperty().addListener((observed, old, now) -> Parts.show(sealed, now));
    model.selectedProperty().addListener((observed, old, now) -> showSelected());
    model.differenceProperty().addListener((observed, old, now) -> showDifference(now));
    model.entries().addListener((ListChangeListener<JournalEntry>) change -> showCount());
    showDifference(List.of());
    showSelected();
    showCount();
  }

  private void buildTable() {
    table.setId("journal-table");
    table.setPlaceholder(Parts.label(WORDS.say("nothingHereYetEvery"), "quiet"));
    TableColumn<JournalEntry, Long> when =
        Tables.column(WORDS.say("when"), 128, entry -> entry.at() / 1000, RelativeTimes::cell);
    TableColumn<JournalEntry, String> path =
        Tables.column(
            WORDS.say("what"),
            280,
            model::where,
            () -> Tables.text(text -> text, Pos.CENTER_LEFT, "mono"));
    TableColumn<JournalEntry, String> what =
        Tables.column(
            WORDS.say("change"),
            270,
            model::what,
            () -> Tables.text(text -> text, Pos.CENTER_LEFT, "plain"));
    TableColumn<JournalEntry, JournalModel.State> state =
        Tables.column(
            "",
            110,
            model::state,
            () ->
                Tables.tag(
                    JournalModel.State::words,
                    shown -> shown.putBack() ? List.of("quiet") : List.of("tag", "look")));
    table.getColumns().addAll(List.of(when, path, what, state));
    for (TableColumn<JournalEntry, ?> column : table.getColumns()) {
      column.setSortable(false);
    }
    path.prefWidthProperty()
        .bind(
            javafx.beans.binding.Bindings.max(
                160,
                table
                    .widthProperty()
                    .subtract(when.widthProperty())
                    .subtract(what.widthProperty())
                    .subtract(state.widthProperty())
                    .subtract(32)));
    Tables.open(table, entry -> {}, this::divideDays);
    table.getSelectionModel().setSelectionMode(javafx.scene.control.SelectionMode.SINGLE);
    table.setItems(model.entries());
    table
        .getSelectionModel()
        .selectedItemProperty()
        .addListener((observed, old, now) -> model.select(now));
  }

  /** A stronger line where a day begins. */
  private void divideDays(TableRow<JournalEntry> row) {
    row.indexProperty().addListener((observed, old, now) -> divide(row));
    row.itemProperty().addListener((observed, old, now) -> divide(row));
  }

  private void divide(TableRow<JournalEntry> row) {
    row.getStyleClass().remove("first-of-day");
    int at = row.getIndex();
    if (row.getItem() != null && at > 0 && at < model.entries().size()) {
      if (!day(row.getItem()).equals(day(model.entries().get(at - 1)))) {
        row.getStyleClass().add("first-of-day");
      }
    }
  }

  private static LocalDate day(JournalEntry entry) {
    return Instant.ofEpochMilli(entry.at()).atZone(ZoneId.systemDefault()).toLocalDate();
  }

  private void showSelected() {
    putBack.setDisable(!model.maySelectedGoBack());
  }

  private void showDifference(List<LineDifference.Line> lines) {
    Parts.show(scroll, !lines.isEmpty());
    DifferenceLines.show(lines, difference);
    scroll.setVvalue(0);
  }

  private void showCount() {
    int all = model.allCount();
    int shown = model.entries().size();
    count.setText(
        WORDS.say(
            "eachChangeIsWritten",
            (all == 1 ? WORDS.say("1Entry") : WORDS.say("entries", Texts.count(all)))
                + (shown < all ? WORDS.say("theNewestListed", Texts.count(shown)) : "")));
    table.refresh();
  }

  @Override
  public void takeFocus() {
    table.requestFocus();
  }
}
