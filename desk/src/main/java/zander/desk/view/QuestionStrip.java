package zander.desk.view;

import javafx.beans.value.ObservableValue;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import zander.desk.model.Question;

/** A question or a notice inside the sheet it concerns. Hidden while there is none. */
final class QuestionStrip extends VBox {
  QuestionStrip(ObservableValue<Question> question) {
    getStyleClass().add("strip");
    question.addListener((observed, old, now) -> show(now));
    show(question.getValue());
  }

  private void show(Question question) {
    getChildren().clear();
    Parts.show(this, question != null);
    getStyleClass().remove("danger");
    if (question == null) {
      return;
    }
    if (question.danger()) {
      getStyleClass().add("danger");
    }
    Label headline = Parts.label(question.said().headline(), "strip-headline");
    headline.setWrapText(true);
    Label detail = Parts.label(question.said().detail(), "strip-detail");
    detail.setWrapText(true);
    getChildren().addAll(headline, detail);
    if (!question.facts().isEmpty()) {
      getChildren().add(facts(question));
    }
    getChildren().add(choices(question));
  }

  private static GridPane facts(Question question) {
    GridPane grid = new GridPane();
    grid.getStyleClass().add("facts");
    int row = 0;
    for (Question.Fact fact : question.facts()) {
      String style = row == 0 ? "fact-head" : "fact";
      if (fact.name().equals("Mode")) {
        style = "mono";
      }
      boolean differs = row > 0 && !fact.coming().equals(fact.there());
      Label coming = Parts.label(fact.coming(), style);
      Label there = Parts.label(fact.there(), style);
      if (differs) {
        coming.getStyleClass().add("differs");
        there.getStyleClass().add("differs");
      }
      grid.addRow(row++, Parts.label(fact.name(), "fact-name"), coming, there);
    }
    return grid;
  }

  private HBox choices(Question question) {
    HBox choices = new HBox();
    choices.getStyleClass().add("choices");
    CheckBox rest = new CheckBox(question.forRest() == null ? "" : question.forRest());
    rest.setId("for-rest");
    boolean first = true;
    for (Question.Choice choice : question.choices()) {
      Button button =
          Parts.button(
              choice.words(),
              "choice-"
                  + choice.words().toLowerCase(java.util.Locale.ROOT).replaceAll("[^a-z]+", "-"),
              () -> choice.chosen().accept(rest.isSelected()));
      if (first && question.choices().size() > 1) {
        button.getStyleClass().add("strong");
      }
      first = false;
      choices.getChildren().add(button);
    }
    if (question.forRest() != null) {
      choices.getChildren().add(rest);
    }
    return choices;
  }
}
