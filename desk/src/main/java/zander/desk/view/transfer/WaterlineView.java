package zander.desk.view.transfer;

import java.time.Duration;
import javafx.collections.ListChangeListener;
import javafx.geometry.Side;
import javafx.scene.Cursor;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ProgressBar;
import javafx.scene.layout.HBox;
import zander.desk.model.AppModel;
import zander.desk.model.DeskModel;
import zander.desk.transfer.TransferModel;
import zander.desk.view.part.Parts;
import zander.desk.view.part.Repeating;
import zander.desk.words.Words;

/** The band between the server above and this computer below: the verbs, the rule, the transfer. */
public final class WaterlineView extends HBox {
  private static final Words WORDS = Words.of(WaterlineView.class);

  private final DeskModel desk;
  private final Label line = Parts.label("", "water-line");
  private final Label left = Parts.label("", "water-left");
  private final ProgressBar bar = new ProgressBar();
  private final Button stop;
  private final Button pause;
  private final Button list;
  private final Button answer;

  public WaterlineView(AppModel app, DeskModel desk) {
    this.desk = desk;
    getStyleClass().add("waterline");
    Button up = Parts.button(WORDS.say("sendUp"), "send-up", desk.transfers()::sendUp, "verb");
    Parts.hint(up, WORDS.say("whatIsSelectedBelow"));
    Button down =
        Parts.button(WORDS.say("bringDown"), "bring-down", desk.transfers()::bringDown, "verb");
    Parts.hint(down, WORDS.say("whatIsSelectedAbove"));
    RulesMenu rules = new RulesMenu(desk);
    Button rule = Parts.button("", "rule", () -> {}, "rule");
    rule.setOnAction(event -> rules.menu().show(rule, Side.TOP, 0, 0));
    rule.setMaxWidth(330);
    Parts.hint(rule, WORDS.say("theRulesForWhat"));
    rule.textProperty()
        .bind(
            javafx.beans.binding.Bindings.createStringBinding(
                () ->
                    RulesMenu.words(
                        desk.transfers().rules().rulesProperty().get(),
                        desk.transfers().rules().commandProperty().get()),
                desk.transfers().rules().rulesProperty(),
                desk.transfers().rules().commandProperty()));
    stop = Parts.button(WORDS.say("stop"), "stop-transfer", desk.transfers()::stop, "rule");
    pause = Parts.button(WORDS.say("pause"), "pause-transfer", desk.transfers()::pause, "rule");
    answer = Parts.button("", "answer-transfer", desk.transfers()::answer, "rule", "asks");
    Parts.hint(answer, WORDS.say("aTransferWaitsFor"));
    list = Parts.button(WORDS.say("list"), "list-transfers", desk.transfers()::openList, "rule");
    Parts.hint(list, WORDS.say("allTransfersOfThis"));
    bar.setPrefWidth(120);
    Button fold =
        Parts.button(
            "",
            "fold",
            () -> app.folds().localProperty().set(!app.folds().localProperty().get()),
            "rule");
    fold.textProperty()
        .bind(
            javafx.beans.binding.Bindings.when(app.folds().localProperty())
                .then(WORDS.say("showThisComputer"))
                .otherwise(WORDS.say("fold")));
    Parts.hint(fold, WORDS.say("thisComputersFolderShown"));
    for (Button button : new Button[] {up, down, answer, stop, pause, list, fold}) {
      button.setMinWidth(USE_PREF_SIZE);
    }
    // The bar itself is an edge, and shows that; its buttons are buttons.
    for (Button button : new Button[] {up, down, rule, answer, stop, pause, list, fold}) {
      button.setCursor(Cursor.DEFAULT);
    }
    line.setId("transfer-line");
    left.setMinWidth(USE_PREF_SIZE);
    rule.setMinWidth(150);
    getChildren()
        .addAll(up, down, rule, Parts.spring(), line, answer, bar, left, pause, stop, list, fold);
    Repeating.whileShown(
        this, Duration.ofMillis(100), desk.transfers().queue().moves(), this::look);
    desk.transfers().queue().all().addListener((ListChangeListener<TransferModel>) one -> look());
    look();
  }

  private void look() {
    TransferModel transfer = desk.transfers().current();
    boolean runs = transfer != null && !transfer.isOver();
    Parts.show(bar, runs);
    Parts.show(stop, runs);
    Parts.show(pause, runs);
    Parts.show(list, transfer != null);
    Parts.show(left, runs);
    long asking = desk.transfers().asking();
    Parts.show(answer, asking > 0);
    answer.setText(asking == 1 ? WORDS.say("answerOne") : WORDS.say("answerQuestions", asking));
    if (transfer == null) {
      line.setText("");
      return;
    }
    desk.transfers().queue().all().forEach(TransferModel::look);
    long waiting = desk.transfers().queue().waiting();
    line.setText(transfer.words().line() + (waiting > 0 ? WORDS.say("waiting", waiting) : ""));
    left.setText(transfer.words().left());
    pause.setText(transfer.isPaused() ? WORDS.say("resume") : WORDS.say("pause"));
    bar.setProgress(transfer.words().part());
  }
}
