package zander.desk.view.transfer;

import static java.util.Objects.requireNonNull;

import java.time.Clock;
import java.util.List;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TableColumn;
import javafx.scene.control.TableView;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;
import zander.core.files.FileKind;
import zander.core.files.WireName;
import zander.core.transfer.compare.TreeComparison.Difference;
import zander.core.transfer.compare.TreeComparison.Report;
import zander.core.transfer.compare.TreeComparison.Row;
import zander.core.transfer.endpoint.TreeEntry;
import zander.desk.sheet.Texts;
import zander.desk.transfer.CheckModel;
import zander.desk.view.part.Parts;
import zander.desk.view.part.QuestionStrip;
import zander.desk.view.part.SheetView;
import zander.desk.view.part.Tables;
import zander.desk.words.Words;

/** The report of a comparison: the outcome first, then what differs and how. */
public final class CheckView extends VBox implements SheetView {
  private static final Words WORDS = Words.of(CheckView.class);

  private final CheckModel model;
  private final TableView<Row> table = new TableView<>();
  private final Label nothing = Parts.label("", "quiet");
  private final Label outcome = Parts.label("", "plan-sums");

  public CheckView(CheckModel model) {
    this.model = model;
    getStyleClass().add("sheet");
    Label way = Parts.label(model.way(), "mono", "plan-way");
    HBox.setHgrow(way, Priority.ALWAYS);
    way.setMaxWidth(Double.MAX_VALUE);
    Button again = Parts.button(WORDS.say("compareAgain"), "check-again", model::look);
    again.setMinWidth(USE_PREF_SIZE);
    outcome.setId("check-outcome");
    outcome.setWrapText(true);
    VBox head = new VBox(outcome);
    head.getStyleClass().add("plan-head");
    buildTable();
    VBox.setVgrow(table, Priority.ALWAYS);
    getChildren()
        .addAll(
            Parts.row("sheet-bar", way, again),
            new QuestionStrip(model.questionProperty()),
            head,
            table);
    model.reportProperty().addListener((observed, old, now) -> show(now));
    model.runningProperty().addListener((observed, old, now) -> show(model.reportProperty().get()));
    show(model.reportProperty().get());
  }

  private void buildTable() {
    table.setId("check-table");
    table.setPlaceholder(nothing);
    Clock clock = Clock.systemDefaultZone();
    TableColumn<Row, Row> how =
        Tables.column(
            WORDS.say("difference"),
            140,
            row -> row,
            () -> Tables.tag(model::words, row -> style(row.difference())));
    TableColumn<Row, String> path =
        Tables.column(
            WORDS.say("path"),
            314,
            row -> WireName.toText(row.path()),
            () -> Tables.text(text -> text, Pos.CENTER_LEFT, "mono"));
    TableColumn<Row, String> one = side(model.firstSide(), row -> describe(row.node(), row, clock));
    TableColumn<Row, String> other =
        side(model.secondSide(), row -> describe(row.there(), row, clock));
    table.getColumns().addAll(List.of(how, path, one, other));
    Tables.open(table, row -> {}, row -> {});
  }

  private static TableColumn<Row, String> side(
      String title, java.util.function.Function<Row, String> words) {
    TableColumn<Row, String> column =
        Tables.column(
            title, 160, words, () -> Tables.text(text -> text, Pos.CENTER_RIGHT, "figures"));
    column.getStyleClass().add("right");
    return column;
  }

  private static String describe(@Nullable TreeEntry node, Row row, Clock clock) {
    if (node == null) {
      return "";
    }
    return switch (row.difference()) {
      case OTHER_MODE -> node.mode().octal();
      case OTHER_TARGET -> WireName.toText(requireNonNull(node.target(), "a link has one"));
      default ->
          node.kind() == FileKind.FILE
              ? Texts.size(node.size()) + ", " + Texts.when(node.modified(), clock)
              : node.kind() == FileKind.FOLDER ? WORDS.say("folder") : WORDS.say("link");
    };
  }

  private static List<String> style(Difference difference) {
    return switch (difference) {
      case OTHER_CONTENT, OTHER_KIND, UNREAD -> List.of("tag", "danger");
      case OTHER_MODE, OTHER_TIME -> List.of("quiet");
      default -> List.of("tag", "look");
    };
  }

  private void show(Report report) {
    outcome.setText(model.outcome());
    boolean whole = report != null && report.complete() && !model.runningProperty().get();
    nothing.setText(whole ? WORDS.say("nothingDiffers") : WORDS.say("nothingIsKnownTo"));
    if (report != null) {
      table.getItems().setAll(report.rows());
    }
  }

  @Override
  public void takeFocus() {
    table.requestFocus();
  }
}
