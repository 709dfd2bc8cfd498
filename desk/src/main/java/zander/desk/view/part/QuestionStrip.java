package zander.desk.view.part;

import java.util.ArrayList;
import java.util.List;
import javafx.application.Platform;
import javafx.beans.binding.Bindings;
import javafx.beans.value.ObservableValue;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.control.RadioButton;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleGroup;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import zander.desk.sheet.Question;

/** A question or a notice inside the sheet it concerns. Hidden while there is none. */
public final class QuestionStrip extends VBox {
  private static final String CHOICES = "choices";

  private final Runnable answered;

  public QuestionStrip(ObservableValue<Question> question) {
    this(question, () -> {});
  }

  /**
   * @param answered takes the keyboard when the last question was answered
   */
  public QuestionStrip(ObservableValue<Question> question, Runnable answered) {
    this.answered = answered;
    getStyleClass().add("strip");
    question.addListener((observed, old, now) -> show(now));
    show(question.getValue());
  }

  private void show(Question question) {
    boolean hadKeyboard = hasKeyboard();
    showParts(question);
    if (hadKeyboard && question == null) {
      answered.run();
    } else if (hadKeyboard && question.inputs().isEmpty()) {
      // One answer led to the next question.
      Platform.runLater(() -> focusChoice(question));
    }
  }

  private boolean hasKeyboard() {
    Node focus = getScene() == null ? null : getScene().getFocusOwner();
    while (focus != null && focus != this) {
      focus = focus.getParent();
    }
    return focus == this;
  }

  private void focusChoice(Question question) {
    Node first = lookup("." + CHOICES);
    if (first instanceof HBox choices && !question.choices().isEmpty() && !hasKeyboard()) {
      // A second Enter is to do no harm.
      int which = question.danger() ? question.choices().size() - 1 : 0;
      choices.getChildren().get(which).requestFocus();
    }
  }

  private void showParts(Question question) {
    getChildren().clear();
    Parts.show(this, question != null);
    getStyleClass().remove("danger");
    if (question == null) {
      return;
    }
    if (question.danger()) {
      getStyleClass().add("danger");
    }
    Label headline = whole(Parts.label(question.said().headline(), "strip-headline"));
    Label detail = whole(Parts.label(question.said().detail(), "strip-detail"));
    getChildren().addAll(headline, detail);
    Parts.show(detail, !question.said().detail().isEmpty());
    if (question.live() != null) {
      Label live = Parts.label("", "strip-live");
      live.setId("strip-live");
      whole(live);
      live.textProperty().bind(question.live());
      getChildren().add(live);
    }
    if (!question.facts().isEmpty()) {
      getChildren().add(facts(question));
    }
    if (!question.difference().isEmpty()) {
      getChildren().add(DifferenceLines.scrolled(question.difference()));
    }
    HBox choices = choices(question);
    if (!question.inputs().isEmpty()) {
      getChildren().add(inputs(question));
    }
    getChildren().add(choices);
  }

  /** The table gives way, not the words. */
  private static Label whole(Label label) {
    label.setWrapText(true);
    label.setMinHeight(USE_PREF_SIZE);
    return label;
  }

  /** Fields to fill in; Enter gives the first answer, Escape the last. */
  private GridPane inputs(Question question) {
    GridPane grid = new GridPane();
    grid.getStyleClass().add("strip-inputs");
    int row = 0;
    TextField first = null;
    for (Question.Input input : question.inputs()) {
      TextField field = new TextField();
      field.setId(input.id());
      field.setPromptText(input.hint());
      field.setPrefColumnCount(34);
      field.textProperty().bindBidirectional(input.text());
      field.setOnAction(
          event -> {
            if (question.ready() == null || question.ready().getValue()) {
              question.choices().get(0).chosen().accept(false);
            }
          });
      field.setOnKeyPressed(
          event -> {
            if (event.getCode() == KeyCode.ESCAPE) {
              question.choices().get(question.choices().size() - 1).chosen().accept(false);
              event.consume();
            }
          });
      grid.addRow(row++, Parts.label(input.label(), "fact-name"), field);
      first = first == null ? field : first;
    }
    TextField focused = first;
    Platform.runLater(
        () -> {
          if (focused != null) {
            focused.requestFocus();
            focused.end();
          }
        });
    return grid;
  }

  private static GridPane facts(Question question) {
    GridPane grid = new GridPane();
    grid.getStyleClass().add("facts");
    int row = 0;
    for (Question.Fact fact : question.facts()) {
      String style = row == 0 ? "fact-head" : "fact";
      if (fact.kind() == Question.Fact.Kind.COMPARED_LETTERS) {
        style = "mono";
      }
      boolean compared = fact.kind() != Question.Fact.Kind.PLAIN;
      boolean differs = compared && !fact.coming().equals(fact.there());
      Label coming = Parts.label(fact.coming(), style);
      coming.setWrapText(true);
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
    choices.getStyleClass().add(CHOICES);
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
      boolean last = choice == question.choices().get(question.choices().size() - 1);
      if (first && !last) {
        button.getStyleClass().add("strong");
      }
      ObservableValue<Boolean> ready = question.ready();
      if (ready != null && !last) {
        button
            .disableProperty()
            .bind(Bindings.createBooleanBinding(() -> !ready.getValue(), ready));
      }
      first = false;
      choices.getChildren().add(button);
    }
    if (question.forRest() != null) {
      choices.getChildren().add(rest);
    }
    if (question.scope() != null) {
      choices.getChildren().addAll(scope(question.scope()));
    }
    return choices;
  }

  private static List<RadioButton> scope(Question.Scope scope) {
    List<RadioButton> buttons = new ArrayList<>();
    ToggleGroup group = new ToggleGroup();
    String[] ids = {"for-this", "for-kind", "for-rest"};
    for (int i = 0; i < scope.words().size(); i++) {
      int number = i;
      RadioButton button = new RadioButton(scope.words().get(i));
      button.setId(ids[i]);
      button.setToggleGroup(group);
      button.setSelected(i == scope.chosen().get());
      button.setOnAction(event -> scope.chosen().set(number));
      buttons.add(button);
    }
    return buttons;
  }
}
