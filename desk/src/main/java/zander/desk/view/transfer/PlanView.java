package zander.desk.view.transfer;

import java.time.Clock;
import java.util.List;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.control.TableColumn;
import javafx.scene.control.TableView;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;
import zander.core.files.FileKind;
import zander.core.files.WireName;
import zander.core.transfer.compare.TransferPlan;
import zander.core.transfer.compare.TransferPlan.Row;
import zander.core.transfer.endpoint.TreeEntry;
import zander.desk.sheet.Texts;
import zander.desk.transfer.PlanModel;
import zander.desk.view.part.Parts;
import zander.desk.view.part.QuestionStrip;
import zander.desk.view.part.SheetView;
import zander.desk.view.part.Tables;
import zander.desk.words.Phrases;
import zander.desk.words.Words;

/** What a transfer would do, entry by entry, with the sums, before it is begun. */
public final class PlanView extends VBox implements SheetView {
  private static final Words WORDS = Words.of(PlanView.class);

  private final PlanModel model;
  private final TableView<Row> table = new TableView<>();
  private final Label sums = Parts.label("", "plan-sums");
  private final Label room = Parts.label("", "quiet");
  private final Button begin;

  public PlanView(PlanModel model) {
    this.model = model;
    getStyleClass().add("sheet");
    Label way = Parts.label(model.way(), "mono", "plan-way");
    HBox.setHgrow(way, Priority.ALWAYS);
    way.setMaxWidth(Double.MAX_VALUE);
    CheckBox mirror = new CheckBox(WORDS.say("mirrorDeleteWhatExists"));
    mirror.setId("plan-mirror");
    mirror.setOnAction(event -> model.mirror(mirror.isSelected()));
    Button again = Parts.button(WORDS.say("refresh"), "plan-again", model::look);
    begin = Parts.button(WORDS.say("startTransfer"), "plan-begin", model::begin, "main");
    for (Button button : List.of(again, begin)) {
      button.setMinWidth(USE_PREF_SIZE);
    }
    mirror.setMinWidth(USE_PREF_SIZE);
    sums.setWrapText(true);
    sums.setId("plan-sums");
    room.setId("plan-room");
    VBox head = new VBox(sums, room);
    head.getStyleClass().add("plan-head");
    buildTable();
    VBox.setVgrow(table, Priority.ALWAYS);
    getChildren()
        .addAll(
            Parts.row("sheet-bar", way, mirror, again, begin),
            new QuestionStrip(model.questionProperty()),
            head,
            table);
    model.planProperty().addListener((observed, old, now) -> show(now));
    model.scanningProperty().addListener((observed, old, now) -> show(model.planProperty().get()));
    show(model.planProperty().get());
  }

  private void buildTable() {
    table.setId("plan-table");
    table.setPlaceholder(Parts.label(WORDS.say("nothingWouldChangeThere"), "quiet"));
    Clock clock = Clock.systemDefaultZone();
    TableColumn<Row, Row> what =
        Tables.column(
            WORDS.say("action"),
            142,
            row -> row,
            () -> Tables.tag(model::deed, row -> style(row.deed())));
    TableColumn<Row, String> path =
        Tables.column(
            WORDS.say("path"),
            236,
            row -> WireName.toText(row.path()),
            () -> Tables.text(text -> text, Pos.CENTER_LEFT, "mono"));
    TableColumn<Row, String> coming =
        Tables.column(
            WORDS.say("coming"),
            138,
            row -> side(row.node(), clock),
            () -> Tables.text(text -> text, Pos.CENTER_RIGHT, "figures"));
    TableColumn<Row, String> there =
        Tables.column(
            WORDS.say("thereNow"),
            138,
            row -> side(row.there(), clock),
            () -> Tables.text(text -> text, Pos.CENTER_RIGHT, "figures"));
    TableColumn<Row, String> why =
        Tables.column(
            WORDS.say("why"),
            118,
            row -> row.why() == null ? "" : Phrases.say(row.why()),
            () -> Tables.text(text -> text, Pos.CENTER_LEFT, "plain"));
    coming.getStyleClass().add("right");
    there.getStyleClass().add("right");
    table.getColumns().addAll(List.of(what, path, coming, there, why));
    Tables.open(table, row -> {}, row -> {});
  }

  private static String side(@Nullable TreeEntry node, Clock clock) {
    return node == null
        ? ""
        : node.kind() == FileKind.FOLDER
            ? WORDS.say("folder")
            : node.kind() == FileKind.LINK
                ? WORDS.say("link")
                : Texts.size(node.size()) + ", " + Texts.when(node.modified(), clock);
  }

  private static List<String> style(TransferPlan.Deed deed) {
    return switch (deed) {
      case ARRIVES, BESIDE -> List.of("tag", "good");
      case REPLACES, IS_ASKED -> List.of("tag", "look");
      case CANNOT, DELETED -> List.of("tag", "danger");
      default -> List.of("quiet");
    };
  }

  private void show(TransferPlan.Result plan) {
    sums.setText(model.sums());
    room.setText(model.room());
    begin.setDisable(!model.mayBegin());
    if (plan != null) {
      table.getItems().setAll(plan.rows());
    }
  }

  @Override
  public void takeFocus() {
    table.requestFocus();
  }
}
