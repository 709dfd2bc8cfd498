package zander.desk.view.history;

import javafx.collections.ListChangeListener;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import zander.desk.history.EntryWords;
import zander.desk.history.RecoveryModel;
import zander.desk.history.RecoveryModel.Row;
import zander.desk.view.part.Parts;
import zander.desk.view.part.QuestionStrip;
import zander.desk.view.part.RelativeTimes;
import zander.desk.view.part.SheetView;
import zander.desk.words.Words;

/** What was under way when the program ended, and what to do about each. */
public final class RecoveryView extends VBox implements SheetView {
  private static final Words WORDS = Words.of(RecoveryView.class);

  private final RecoveryModel model;
  private final VBox list = new VBox();

  public RecoveryView(RecoveryModel model) {
    this.model = model;
    getStyleClass().add("sheet");
    list.getStyleClass().add("unfinished");
    ScrollPane scroll = new ScrollPane(list);
    scroll.setFitToWidth(true);
    scroll.getStyleClass().add("book-panel");
    VBox.setVgrow(scroll, Priority.ALWAYS);
    getChildren().addAll(new QuestionStrip(model.questionProperty()), scroll);
    model.rows().addListener((ListChangeListener<Row>) change -> show());
    show();
  }

  private void show() {
    list.getChildren().clear();
    int count = model.rows().size();
    list.getChildren()
        .addAll(
            Parts.label(
                WORDS.say(
                    "underWayWhenZander",
                    count == 1 ? WORDS.say("1ChangeWas") : WORDS.say("changesWere", count)),
                "page-title"),
            Parts.label(WORDS.say("theServerWasLooked"), "quiet"));
    int number = 0;
    for (Row row : model.rows()) {
      list.getChildren().add(card(row, number++));
    }
  }

  private VBox card(Row row, int number) {
    var entry = row.finding().entry();
    Label path = Parts.label(entry.path().text(), "mono", "strong-word");
    path.setWrapText(true);
    Label what = RelativeTimes.label(entry.at() / 1000, "  " + model.what(row));
    what.setWrapText(true);
    Label found = Parts.label(EntryWords.finding(row.finding()), "quiet");
    found.setWrapText(true);
    VBox card = new VBox(path, what, found);
    card.getStyleClass().add("unfinished-row");
    HBox choices = Parts.row("choices");
    if (row.isOpen()) {
      if (row.finding().mayFinish()) {
        choices
            .getChildren()
            .add(
                Parts.button(
                    WORDS.say("finishIt"), "finish-" + number, () -> model.finish(row), "strong"));
      }
      if (row.finding().mayUndo()) {
        choices
            .getChildren()
            .add(
                Parts.button(
                    WORDS.say("removeThePartialCopy"), "undo-" + number, () -> model.undo(row)));
      }
      choices
          .getChildren()
          .add(Parts.button(WORDS.say("leaveAsIs"), "leave-" + number, () -> model.leave(row)));
    } else {
      choices.getChildren().add(Parts.label(row.ended(), "tag", "good"));
    }
    card.getChildren().add(choices);
    return card;
  }

  @Override
  public void takeFocus() {
    requestFocus();
  }
}
