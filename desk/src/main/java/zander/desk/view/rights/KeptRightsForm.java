package zander.desk.view.rights;

import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.util.function.Consumer;
import java.util.function.Supplier;
import javafx.beans.binding.Bindings;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.TextArea;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import zander.core.kept.ReadyRights;
import zander.desk.rights.kept.KeptRequest;
import zander.desk.rights.kept.KeptWords;
import zander.desk.view.part.Parts;
import zander.desk.words.Words;

/** The rights that a folder keeps, to be written: a line for each pattern. */
final class KeptRightsForm extends VBox implements RequestForm {
  private static final Words WORDS = Words.of(KeptRightsForm.class);

  private final TextArea lines = new TextArea();

  /**
   * @param here the folder of this computer that files are written to and read from
   */
  KeptRightsForm(KeptRequest request, Supplier<Path> here) {
    getStyleClass().add("tree-request");
    lines.setId("kept-lines");
    lines.getStyleClass().add("mono");
    lines.setPrefRowCount(12);
    lines.textProperty().bindBidirectional(request.textProperty());
    VBox.setVgrow(lines, Priority.ALWAYS);
    Label means = Parts.label("", "kept-means");
    means.setId("kept-means");
    means.setWrapText(true);
    means.setMinHeight(USE_PREF_SIZE);
    means
        .textProperty()
        .bind(
            Bindings.createStringBinding(
                () -> means(request, lineOf(lines.getText(), lines.getCaretPosition())),
                lines.caretPositionProperty(),
                lines.textProperty()));
    Label how = Parts.label(WORDS.say("aLineEachPattern"), "quiet");
    how.setWrapText(true);
    how.setMinHeight(USE_PREF_SIZE);
    getChildren()
        .addAll(how, lines, means, buttons(request), files(request, here), status(request));
  }

  private static int lineOf(String text, int caret) {
    return 1
        + (int)
            text.substring(0, Math.min(caret, text.length()))
                .chars()
                .filter(c -> c == '\n')
                .count();
  }

  /** Of a line without a meaning, where the differences to others are told. */
  private static String means(KeptRequest request, int line) {
    String said = request.explain(line);
    return said.isEmpty() ? WORDS.say("modesAreOctalSuch") : said;
  }

  private HBox buttons(KeptRequest request) {
    MenuButton begin = new MenuButton(WORDS.say("beginWith"));
    begin.setId("kept-begin");
    for (ReadyRights ready : ReadyRights.values()) {
      MenuItem item = new MenuItem(KeptWords.of(ready));
      item.setOnAction(event -> request.begin(ready));
      begin.getItems().add(item);
    }
    Button learn = Parts.button(WORDS.say("learnFromWhatIs"), "kept-learn", () -> learn(request));
    learn.disableProperty().bind(request.learningProperty());
    Button keep = Parts.button(WORDS.say("keepTheseForThe"), "kept-keep", request::keep);
    keep.textProperty()
        .bind(
            Bindings.when(request.keptProperty().and(request.textProperty().isNotEmpty()))
                .then(WORDS.say("keptForTheFolder"))
                .otherwise(WORDS.say("keepTheseForThe")));
    keep.disableProperty()
        .bind(
            Bindings.createBooleanBinding(
                () -> !request.mayKeep(), request.keptProperty(), request.textProperty()));
    for (Button button : new Button[] {learn, keep}) {
      button.setMinWidth(USE_PREF_SIZE);
    }
    begin.setMinWidth(USE_PREF_SIZE);
    return Parts.row("kept-row", begin, learn, Parts.spring(), keep);
  }

  private void learn(KeptRequest request) {
    request.learn();
    // The button rests meanwhile, and the keyboard would go wherever is next.
    lines.requestFocus();
  }

  private static HBox files(KeptRequest request, Supplier<Path> here) {
    TextField name = new TextField(request.fileName());
    name.setId("kept-file");
    Button write =
        Parts.button(WORDS.say("write"), "kept-write", () -> to(name, here, request::writeTo));
    Button read =
        Parts.button(WORDS.say("read"), "kept-read", () -> to(name, here, request::readFrom));
    Parts.hint(write, WORDS.say("writeTheseLinesTo"));
    Parts.hint(read, WORDS.say("readTheLinesFrom"));
    for (Button button : new Button[] {write, read}) {
      button.setMinWidth(USE_PREF_SIZE);
    }
    HBox.setHgrow(name, Priority.ALWAYS);
    name.setMaxWidth(420);
    return Parts.row("kept-row", Parts.label(WORDS.say("fileOnThisComputer")), name, write, read);
  }

  private static void to(TextField name, Supplier<Path> here, Consumer<Path> then) {
    try {
      if (!name.getText().isBlank()) {
        then.accept(here.get().resolve(name.getText().strip()));
      }
    } catch (InvalidPathException e) {
      name.requestFocus();
    }
  }

  private static Label status(KeptRequest request) {
    Label status = Parts.label("", "quiet");
    status.setId("kept-status");
    status.setWrapText(true);
    status.textProperty().bind(request.statusProperty());
    status.managedProperty().bind(status.textProperty().isNotEmpty());
    return status;
  }

  @Override
  public void takeFocus() {
    lines.requestFocus();
  }
}
