package zander.desk.view.file;

import java.util.List;
import java.util.regex.PatternSyntaxException;
import javafx.beans.binding.Bindings;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ChoiceBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;
import org.kordamp.ikonli.feather.Feather;
import zander.core.find.SearchText;
import zander.core.work.Cancellation;
import zander.desk.reading.LineFilter;
import zander.desk.reading.ReadingModel;
import zander.desk.sheet.Texts;
import zander.desk.view.part.Parts;
import zander.desk.words.Words;

/** Finding in a file that is read, and choosing which of its lines are shown. */
final class ReadingBar extends VBox {
  private static final Words WORDS = Words.of(ReadingBar.class);

  /** Where the person is in the text, and what is to be shown there. */
  interface Place {
    /** Finds the next one from where the person is. */
    void find(boolean forwards);

    /** Shows the lines that pass. */
    void filter(LineFilter now);

    void marksChanged();

    void takeFocus();
  }

  private static final List<String> LEVELS =
      List.of(WORDS.say("allLevels"), WORDS.say("warningsAndProblems"), WORDS.say("problems"));

  private final Place place;
  private final TextField wanted = new TextField();
  private final TextField only = new TextField();
  private final CheckBox matchCase = new CheckBox(WORDS.say("matchCase"));
  private final CheckBox expression = new CheckBox(WORDS.say("expression"));
  private final ChoiceBox<String> least = new ChoiceBox<>();
  private final Label onlyProblem = Parts.label("", "quiet");
  private final HBox finding;
  private final HBox options;
  private final HBox filtering;

  ReadingBar(ReadingModel model, Place place) {
    this.place = place;
    getStyleClass().add("find-bar");
    wanted.setId("reading-find");
    wanted.setPromptText(WORDS.say("findInThisFile"));
    only.setId("reading-only");
    only.setPromptText(WORDS.say("showOnlyLinesWith"));
    HBox.setHgrow(wanted, Priority.ALWAYS);
    HBox.setHgrow(only, Priority.ALWAYS);
    Label outcome = Parts.label("", "quiet");
    outcome.setId("reading-outcome");
    outcome.setMinWidth(96);
    outcome.textProperty().bind(model.search().outcomeProperty());
    matchCase.setId("reading-case");
    expression.setId("reading-expression");
    matchCase.setMinWidth(USE_PREF_SIZE);
    expression.setMinWidth(USE_PREF_SIZE);
    matchCase.setOnAction(event -> optionsChanged());
    expression.setOnAction(event -> optionsChanged());
    Parts.hint(expression, WORDS.say("aRegularExpressionPosix"));
    finding =
        Parts.row(
            "find-row",
            wanted,
            outcome,
            small(
                WORDS.say("previous"), "reading-before", WORDS.say("towardsTheFrontShift"), false),
            small(WORDS.say("next"), "reading-next", WORDS.say("towardsTheEndF3"), true),
            closing(WORDS.say("closeFindingEsc"), this::closeFinding));
    least.setId("reading-level");
    least.getItems().addAll(LEVELS);
    least.setValue(LEVELS.get(0));
    least.setOnAction(event -> applyFilter());
    least.setMinWidth(USE_PREF_SIZE);
    least.setMaxWidth(USE_PREF_SIZE);
    Label reach = Parts.label("", "quiet", "figures");
    reach.setId("reading-reach");
    reach.setMinWidth(USE_PREF_SIZE);
    reach
        .textProperty()
        .bind(Bindings.createStringBinding(() -> reach(model), model.lookedBackToProperty()));
    Button further =
        Parts.hint(
            Parts.button(WORDS.say("lookFurtherBack"), "reading-further", model::moreBefore),
            WORDS.say("linesThatPassAre"));
    further.setMinWidth(USE_PREF_SIZE);
    further.setFocusTraversable(false);
    further.visibleProperty().bind(reach.textProperty().isNotEmpty());
    further.managedProperty().bind(further.visibleProperty());
    reach.managedProperty().bind(further.visibleProperty());
    options = Parts.row("find-options", matchCase, expression, Parts.spring(), reach, further);
    filtering =
        Parts.row(
            "find-row",
            only,
            onlyProblem,
            least,
            closing(WORDS.say("showAllLinesAgain"), this::closeFiltering));
    getChildren().addAll(finding, options, filtering);
    wanted.textProperty().addListener((observed, old, now) -> place.marksChanged());
    only.setOnAction(event -> applyFilter());
    finding.addEventFilter(KeyEvent.KEY_PRESSED, this::pressedInFinding);
    filtering.addEventFilter(
        KeyEvent.KEY_PRESSED,
        event -> {
          if (event.getCode() == KeyCode.ESCAPE) {
            closeFiltering();
            event.consume();
          }
        });
    Parts.show(finding, false);
    Parts.show(filtering, false);
    showAny();
  }

  private void optionsChanged() {
    place.marksChanged();
    if (!only.getText().isEmpty()) {
      applyFilter();
    }
  }

  private Button small(String words, String id, String hint, boolean forwards) {
    Button button = Parts.hint(Parts.button(words, id, () -> place.find(forwards)), hint);
    button.setMinWidth(USE_PREF_SIZE);
    button.setFocusTraversable(false);
    return button;
  }

  private static Button closing(String words, Runnable close) {
    return Parts.iconButton(Feather.X, words, close, "tab-close");
  }

  private void showAny() {
    Parts.show(options, finding.isVisible() || filtering.isVisible());
    Parts.show(this, options.isVisible());
  }

  /** How far was looked back for lines that pass; empty when that was all of the file. */
  private static String reach(ReadingModel model) {
    long from = model.lookedBackToProperty().get();
    return model.filter().isAll() || from <= 0
        ? ""
        : WORDS.say("inTheLast", Texts.size(model.follower().sizeProperty().get() - from));
  }

  private void pressedInFinding(KeyEvent event) {
    if (event.getCode() == KeyCode.ESCAPE) {
      closeFinding();
    } else if (event.getCode() == KeyCode.ENTER && event.getTarget() == wanted) {
      // The newest lines are below: Enter goes back in time, as the eye does in a log.
      place.find(event.isShiftDown());
    } else {
      return;
    }
    event.consume();
  }

  void openFinding(String selected) {
    Parts.show(finding, true);
    showAny();
    if (!selected.isEmpty() && !selected.contains("\n")) {
      wanted.setText(selected);
    }
    wanted.requestFocus();
    wanted.selectAll();
    place.marksChanged();
  }

  boolean isFinding() {
    return finding.isVisible();
  }

  void openFiltering() {
    Parts.show(filtering, true);
    showAny();
    only.requestFocus();
    only.selectAll();
  }

  private void closeFinding() {
    Parts.show(finding, false);
    showAny();
    place.marksChanged();
    place.takeFocus();
  }

  private void closeFiltering() {
    only.clear();
    least.setValue(LEVELS.get(0));
    applyFilter();
    Parts.show(filtering, false);
    showAny();
    place.takeFocus();
  }

  private void applyFilter() {
    LineFilter.Level level = LineFilter.Level.values()[LEVELS.indexOf(least.getValue())];
    SearchText text =
        only.getText().isEmpty()
            ? null
            : new SearchText(only.getText(), expression.isSelected(), matchCase.isSelected());
    LineFilter made = new LineFilter(text, level);
    try {
      made.test(new Cancellation());
    } catch (PatternSyntaxException e) {
      onlyProblem.setText(WORDS.say("notAnExpression"));
      return;
    }
    onlyProblem.setText("");
    place.filter(made);
  }

  /** What is looked for; {@code null} while nothing is. */
  @Nullable SearchText wanted() {
    return finding.isVisible() && !wanted.getText().isEmpty()
        ? new SearchText(wanted.getText(), expression.isSelected(), matchCase.isSelected())
        : null;
  }
}
