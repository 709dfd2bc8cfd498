package zander.desk.view.rights;

import java.util.HashMap;
import java.util.Locale;
import java.util.Map;
import javafx.geometry.HPos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.layout.ColumnConstraints;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import zander.core.rights.Mode;
import zander.core.rights.Mode.May;
import zander.core.rights.Mode.Who;
import zander.desk.rights.ModeEditing;
import zander.desk.rights.ModeEditing.Bit;
import zander.desk.view.part.Parts;
import zander.desk.words.Words;

/** A mode as boxes, sums, octal and symbolic notation and a sentence, in step with each other. */
final class ModeBoxes extends VBox {
  private static final Words WORDS = Words.of(ModeBoxes.class);

  private final ModeEditing model;
  private final String prefix;
  private final Map<Integer, Button> boxes = new HashMap<>();
  private final Map<Who, Label> sums = new HashMap<>();
  private final TextField octal = new TextField();
  private final TextField symbolic = new TextField();
  private final Label sentence = Parts.label("", "quiet", "mode-sentence");
  private boolean showing;

  /**
   * @param prefix of the ids of its parts, where there is more than one of it
   * @param enter what Enter in a field does
   */
  ModeBoxes(ModeEditing model, String prefix, Runnable enter) {
    this.model = model;
    this.prefix = prefix;
    getStyleClass().add("mode-boxes");
    sentence.setWrapText(true);
    sentence.setId(prefix + "mode-sentence");
    getChildren().addAll(boxGrid(), special(), notations(enter), sentence);
    model.changesProperty().addListener((observed, old, now) -> show());
    show();
  }

  private GridPane boxGrid() {
    GridPane grid = new GridPane();
    grid.getStyleClass().add("boxes");
    ColumnConstraints last = new ColumnConstraints();
    last.setHgrow(Priority.ALWAYS);
    last.setHalignment(HPos.RIGHT);
    grid.getColumnConstraints()
        .addAll(
            new ColumnConstraints(50),
            new ColumnConstraints(41),
            new ColumnConstraints(41),
            new ColumnConstraints(41),
            last);
    grid.addRow(
        0,
        Parts.label(""),
        Parts.label(WORDS.say("read4"), "box-head"),
        Parts.label(WORDS.say("write2"), "box-head"),
        Parts.label(WORDS.say("run1"), "box-head"));
    int row = 1;
    for (Who who : Who.values()) {
      grid.add(Parts.label(title(who)), 0, row);
      int column = 1;
      for (May may : May.values()) {
        int bit = new Mode(0).with(who, may, true).bits();
        String hint = title(who) + ": " + may.name().toLowerCase(Locale.ROOT);
        String letter = String.valueOf(may.letter());
        grid.add(box(bit, letter, who.letter() + may.letter(), hint), column++, row);
      }
      Label sum = Parts.label("", "sum");
      sum.setId(prefix + "sum-" + who.letter());
      sums.put(who, sum);
      grid.add(sum, column, row++);
    }
    return grid;
  }

  private static String title(Who who) {
    return switch (who) {
      case OWNER -> WORDS.say("owner");
      case GROUP -> WORDS.say("group");
      case OTHERS -> WORDS.say("others");
    };
  }

  private Button box(int bit, String letter, String id, String hint) {
    Button box = Parts.button(letter, prefix + "box-" + id, () -> model.press(bit), "box");
    Parts.hint(box, hint);
    box.setAccessibleText(hint);
    boxes.put(bit, box);
    return box;
  }

  private HBox special() {
    HBox row =
        Parts.row(
            "special",
            box(Mode.SET_UID, "set-uid 4", "set-uid", WORDS.say("aProgramRunsAs")),
            box(Mode.SET_GID, "set-gid 2", "set-gid", WORDS.say("aProgramRunsAsThe")),
            box(Mode.STICKY, "sticky 1", "sticky", WORDS.say("inAFolderOnly")));
    row.getChildren().forEach(box -> box.getStyleClass().add("wide"));
    return row;
  }

  private HBox notations(Runnable enter) {
    octal.setId(prefix + "octal");
    symbolic.setId(prefix + "symbolic");
    octal.getStyleClass().add("mono");
    symbolic.getStyleClass().add("mono");
    octal.setPrefColumnCount(5);
    octal
        .textProperty()
        .addListener(
            (observed, old, now) -> {
              if (!showing && !now.isBlank()) {
                model.typeOctal(now);
              }
            });
    symbolic
        .textProperty()
        .addListener(
            (observed, old, now) -> {
              if (!showing && !now.isBlank()) {
                model.typeSymbolic(now);
              }
            });
    // What is half typed is left alone; when the field is left it shows the whole again.
    octal.focusedProperty().addListener((observed, old, now) -> show());
    symbolic.focusedProperty().addListener((observed, old, now) -> show());
    octal.setOnAction(event -> enter.run());
    symbolic.setOnAction(event -> enter.run());
    VBox first = field(WORDS.say("octal"), octal);
    HBox.setHgrow(first, Priority.NEVER);
    first.setPrefWidth(84);
    first.setMinWidth(84);
    HBox both = new HBox(first, field(WORDS.say("symbolic"), symbolic));
    both.getStyleClass().add("side-by-side");
    return both;
  }

  static VBox field(String title, javafx.scene.Node control) {
    VBox box = new VBox(Parts.label(title, "field-title"), control);
    box.getStyleClass().add("field");
    HBox.setHgrow(box, Priority.ALWAYS);
    return box;
  }

  void show() {
    showing = true;
    boxes.forEach(this::showBox);
    sums.forEach(
        (who, label) -> {
          String sum = model.sum(who);
          label.setText(sum.isEmpty() ? WORDS.say("mixed") : sum);
        });
    fill(octal, model.octal());
    fill(symbolic, model.symbolic());
    sentence.setText(model.sentence());
    Parts.show(sentence, !sentence.getText().isEmpty());
    showing = false;
  }

  private void fill(TextField field, String text) {
    field.setPromptText(model.emptyWord());
    if (!field.isFocused()) {
      field.setText(text);
    }
  }

  private void showBox(int bit, Button box) {
    Bit state = model.bit(bit);
    box.getStyleClass().removeAll("on", "mixed");
    if (state == Bit.ON) {
      box.getStyleClass().add("on");
    } else if (state == Bit.MIXED) {
      box.getStyleClass().add("mixed");
    }
  }
}
