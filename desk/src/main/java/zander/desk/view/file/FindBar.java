package zander.desk.view.file;

import javafx.application.Platform;
import javafx.beans.Observable;
import javafx.beans.property.BooleanProperty;
import javafx.beans.property.StringProperty;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.IndexRange;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import org.fxmisc.richtext.CodeArea;
import org.kordamp.ikonli.feather.Feather;
import zander.core.find.TextPlaces.Place;
import zander.desk.edit.FindInFile;
import zander.desk.edit.FindInFile.Found;
import zander.desk.sheet.Texts;
import zander.desk.view.part.Parts;
import zander.desk.words.Words;

/** Finding and replacing in the text below it. Hidden until it is asked for. */
final class FindBar extends VBox {
  private static final Words WORDS = Words.of(FindBar.class);

  private final CodeArea area;
  private final FindInFile find;
  private final TextField wanted = field("file-find", WORDS.say("findInThisFile"));
  private final TextField with = field("file-replacement", WORDS.say("replaceBy"));
  private final Label count = Parts.label("", "quiet");
  private final CheckBox within = new CheckBox(WORDS.say("inSelection"));
  private final Button rest =
      Parts.button(WORDS.say("replaceTheRest"), "file-replace-rest", this::replaceRest);
  private final HBox replacing;

  FindBar(CodeArea area, FindInFile find) {
    this.area = area;
    this.find = find;
    getStyleClass().add("find-bar");
    bind(wanted, find.wantedProperty());
    bind(with, find.withProperty());
    count.setId("file-find-count");
    count.setMinWidth(96);
    HBox options =
        Parts.row(
            "find-options",
            box(WORDS.say("matchCase"), "file-find-case", find.matchCaseProperty()),
            box(WORDS.say("wholeWord"), "file-find-word", find.wholeWordProperty()),
            Parts.hint(
                box(WORDS.say("expression"), "file-find-expression", find.expressionProperty()),
                WORDS.say("aRegularExpressionPosix")),
            within);
    within.setId("file-find-within");
    within.setOnAction(event -> confine());
    HBox first =
        Parts.row(
            "find-row",
            wanted,
            count,
            small(
                WORDS.say("previous"),
                "file-find-before",
                WORDS.say("thePreviousMatchShift"),
                this::before),
            small(WORDS.say("next"), "file-find-next", WORDS.say("theNextMatchF3"), this::next),
            Parts.iconButton(Feather.X, WORDS.say("closeFindingEsc"), this::close, "tab-close"));
    replacing =
        Parts.row(
            "find-row",
            with,
            small(
                WORDS.say("replace"),
                "file-replace",
                WORDS.say("replacesThisMatchAnd"),
                this::replace),
            small(WORDS.say("skip"), "file-skip", WORDS.say("leavesThisMatchAnd"), this::next),
            rest);
    rest.setMinWidth(USE_PREF_SIZE);
    getChildren().addAll(first, replacing, options);
    addEventFilter(KeyEvent.KEY_PRESSED, this::pressed);
    // Also when it is as little as before.
    find.foundProperty().addListener((Observable observed) -> tell());
    area.selectionProperty().addListener((observed, old, now) -> tell());
    // What is typed is gone to at once, from where the person was.
    wanted.textProperty().addListener((observed, old, now) -> find.whenFound(this::nearest));
    Parts.show(this, false);
  }

  private static TextField field(String id, String prompt) {
    TextField field = new TextField();
    field.setId(id);
    field.setPromptText(prompt);
    HBox.setHgrow(field, Priority.ALWAYS);
    return field;
  }

  private static void bind(TextField field, StringProperty property) {
    field.textProperty().bindBidirectional(property);
  }

  private static CheckBox box(String words, String id, BooleanProperty property) {
    CheckBox box = new CheckBox(words);
    box.setId(id);
    box.setMinWidth(USE_PREF_SIZE);
    box.selectedProperty().bindBidirectional(property);
    return box;
  }

  private static Button small(String words, String id, String hint, Runnable action) {
    Button button = Parts.hint(Parts.button(words, id, action), hint);
    button.setMinWidth(USE_PREF_SIZE);
    button.setFocusTraversable(false);
    return button;
  }

  /** Shows it with what is selected, if that is within a line. */
  void open(boolean replaces) {
    String selected = area.getSelectedText();
    boolean several = selected.contains("\n");
    Parts.show(this, true);
    Parts.show(replacing, replaces);
    find.open();
    if (several) {
      within.setSelected(true);
      confine();
    } else if (!selected.isEmpty()) {
      wanted.setText(selected);
    }
    wanted.requestFocus();
    wanted.selectAll();
  }

  boolean isOpen() {
    return isVisible();
  }

  private void close() {
    Parts.show(this, false);
    within.setSelected(false);
    find.close();
    area.requestFocus();
  }

  private void confine() {
    IndexRange selection = area.getSelection();
    if (within.isSelected() && selection.getLength() > 0) {
      find.within(selection.getStart(), selection.getEnd());
    } else {
      within.setSelected(false);
      find.within(0, Integer.MAX_VALUE);
    }
  }

  private void pressed(KeyEvent event) {
    if (event.getCode() == KeyCode.ESCAPE) {
      close();
    } else if (event.getCode() == KeyCode.ENTER && event.getTarget() == wanted) {
      (event.isShiftDown() ? (Runnable) this::before : (Runnable) this::next).run();
    } else if (event.getCode() == KeyCode.ENTER && event.getTarget() == with) {
      replace();
    } else {
      return;
    }
    event.consume();
  }

  /** The next one behind the selection, or the first again. */
  void next() {
    find.whenFound(
        () -> {
          Found found = find.foundProperty().get();
          IndexRange selection = area.getSelection();
          boolean onOne = found.at(selection.getStart(), selection.getEnd()) >= 0;
          select(found, found.from(onOne ? selection.getEnd() : selection.getStart()));
        });
  }

  private void nearest() {
    Found found = find.foundProperty().get();
    if (isOpen() && wanted.isFocused()) {
      select(found, found.from(area.getSelection().getStart()));
    }
  }

  void before() {
    find.whenFound(
        () -> {
          Found found = find.foundProperty().get();
          select(found, found.from(area.getSelection().getStart()) - 1);
        });
  }

  private void select(Found found, int index) {
    if (found.places().isEmpty()) {
      return;
    }
    Place place = found.places().get(Math.floorMod(index, found.places().size()));
    area.selectRange(place.start(), place.end());
    Platform.runLater(area::requestFollowCaret);
  }

  private void replace() {
    find.whenFound(
        () -> {
          Found found = find.foundProperty().get();
          IndexRange selection = area.getSelection();
          int index = found.at(selection.getStart(), selection.getEnd());
          if (index >= 0) {
            Place place = found.places().get(index);
            area.replaceText(place.start(), place.end(), place.with());
            area.moveTo(place.start() + place.with().length());
          }
          next();
        });
  }

  /** From the one that is selected to the end of the text, or of the selection, in one step. */
  private void replaceRest() {
    find.whenFound(
        () -> {
          Found found = find.foundProperty().get();
          int first = found.from(area.getSelection().getStart());
          if (first >= found.places().size()) {
            return;
          }
          int start = found.places().get(first).start();
          Place last = found.places().get(found.places().size() - 1);
          StringBuilder made = new StringBuilder();
          int at = start;
          String text = area.getText(start, last.end());
          for (Place place : found.places().subList(first, found.places().size())) {
            made.append(text, at - start, place.start() - start).append(place.with());
            at = place.end();
          }
          area.getUndoManager().preventMerge();
          area.replaceText(start, last.end(), made.toString());
          area.getUndoManager().preventMerge();
          area.moveTo(start);
        });
  }

  /** How many there are, and which of them is selected. */
  private void tell() {
    Found found = find.foundProperty().get();
    if (!isOpen()) {
      return;
    }
    within.setSelected(find.isWithin());
    int all = found.places().size();
    IndexRange selection = area.getSelection();
    int index = found.at(selection.getStart(), selection.getEnd());
    String more = found.isCut() ? WORDS.say("orMore") : "";
    String words =
        index < 0
            ? Texts.count(all, "match") + more
            : WORDS.say("of", Texts.count(index + 1L), Texts.count(all), more);
    if (!found.problem().isEmpty() || wanted.getText().isEmpty()) {
      words = found.problem();
    } else if (all == 0) {
      words = WORDS.say("noMatches");
    }
    count.setText(words);
    int left = all - found.from(selection.getStart());
    rest.setText(
        left > 0 ? WORDS.say("replaceTheRestOf", Texts.count(left)) : WORDS.say("replaceTheRest"));
    rest.setDisable(left == 0);
  }
}
