package zander.desk.view.reach;

import java.io.File;
import java.nio.file.Path;
import java.util.Locale;
import javafx.beans.property.StringProperty;
import javafx.collections.ListChangeListener;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import javafx.stage.FileChooser;
import org.jspecify.annotations.Nullable;
import zander.core.book.Mark;
import zander.desk.reach.BookModel;
import zander.desk.reach.EntryDraft;
import zander.desk.view.part.Parts;
import zander.desk.words.Words;

/** An entry of the book being edited, in place. */
final class EntryForm extends VBox {
  private static final Words WORDS = Words.of(EntryForm.class);

  private final EntryDraft draft;
  private final Path keys;
  private final VBox folders = new VBox();

  /**
   * @param keys the folder where keys are
   */
  EntryForm(BookModel book, EntryDraft draft, Path keys) {
    this.draft = draft;
    this.keys = keys;
    getStyleClass().addAll("page", "form");
    GridPane grid = new GridPane();
    grid.getStyleClass().add("form-grid");
    row(
        grid,
        WORDS.say("name"),
        field(draft.name, "draft-name", WORDS.say("yourNameForIt"), 24),
        mark());
    row(
        grid,
        WORDS.say("host"),
        field(draft.host, "draft-host", WORDS.say("nameOrAddress"), 24),
        Parts.row(
            "with-number",
            Parts.label(WORDS.say("port"), "quiet"),
            field(draft.port, "draft-port", "22", 5)));
    row(
        grid,
        WORDS.say("account"),
        field(draft.account, "draft-account", WORDS.say("accountToSignIn"), 24),
        Parts.row(
            "with-number",
            Parts.label(WORDS.say("groupHint"), "quiet"),
            field(draft.group, "draft-group", String.join(", ", book.groups()), 14)));
    row(
        grid,
        WORDS.say("jumpHosts"),
        field(draft.jump, "draft-jump", WORDS.say("inOrderNamesOf"), 24),
        null);
    row(
        grid,
        WORDS.say("keyFile"),
        withChooser(
            field(draft.keyFile, "draft-key", WORDS.say("thePrivateHalf"), 24), draft.keyFile),
        null);
    row(
        grid,
        WORDS.say("certificate"),
        field(draft.certificate, "draft-certificate", WORDS.say("emptyTheOneBeside"), 24),
        null);
    row(
        grid,
        WORDS.say("alsoTry"),
        Parts.row(
            "typed",
            box(WORDS.say("theAgentsOtherKeys"), "draft-agent", draft.agent),
            box(WORDS.say("passwordOrQuestions"), "draft-password", draft.password)),
        null);
    row(
        grid,
        WORDS.say("oldServer"),
        box(WORDS.say("allowAlgorithmsThatAre"), "draft-old", draft.oldAlgorithms),
        null);
    row(
        grid,
        WORDS.say("startFolder"),
        field(draft.landing, "draft-landing", WORDS.say("folderEmptyHome"), 24),
        Parts.row(
            "with-number",
            Parts.label(WORDS.say("servedBy"), "quiet"),
            field(draft.service, "draft-service", WORDS.say("accountWeb"), 10)));
    row(
        grid,
        WORDS.say("localFolder"),
        field(draft.local, "draft-local", WORDS.say("onThisComputerBelow"), 24),
        null);
    row(grid, WORDS.say("note"), field(draft.note, "draft-note", "", 24), null);
    folders.getStyleClass().add("form-folders");
    draft.folders().addListener((ListChangeListener<EntryDraft.Folder>) change -> showFolders());
    showFolders();
    HBox choices =
        Parts.row(
            "choices",
            Parts.button(WORDS.say("save"), "save-draft", book::saveDraft, "main"),
            Parts.button(WORDS.say("cancel"), "cancel-draft", book::cancelEdit));
    getChildren()
        .addAll(
            Parts.label(
                draft.original() == null
                    ? WORDS.say("newServer")
                    : WORDS.say("edit", draft.original()),
                "page-title"),
            grid,
            Parts.label(WORDS.say("markedFolders"), "field-title"),
            folders,
            Parts.row(
                "choices", Parts.button(WORDS.say("markAFolder"), "add-folder", draft::addFolder)),
            choices);
    sceneProperty()
        .addListener(
            (observed, old, now) -> {
              if (now != null) {
                javafx.application.Platform.runLater(() -> lookup("#draft-name").requestFocus());
              }
            });
  }

  private static void row(GridPane grid, String name, Node field, @Nullable Node beside) {
    int at = grid.getRowCount();
    Label label = Parts.label(name, "quiet");
    // In a narrow window the fields give way, not their names.
    label.setMinWidth(USE_PREF_SIZE);
    grid.add(label, 0, at);
    grid.add(field, 1, at, beside == null ? 2 : 1, 1);
    if (beside != null) {
      grid.add(beside, 2, at);
    }
  }

  private static TextField field(StringProperty value, String id, String prompt, int columns) {
    TextField field = new TextField();
    field.setId(id);
    field.setPromptText(prompt);
    field.setPrefColumnCount(columns);
    field.textProperty().bindBidirectional(value);
    return field;
  }

  /** A field for a file of this computer, with a way to choose it. */
  private HBox withChooser(TextField field, StringProperty value) {
    HBox.setHgrow(field, javafx.scene.layout.Priority.ALWAYS);
    Button choose =
        Parts.button(
            WORDS.say("choose"),
            "choose-key",
            () -> {
              FileChooser chooser = new FileChooser();
              chooser.setTitle(WORDS.say("thePrivateKey"));
              chooser.setInitialDirectory(keys.toFile().isDirectory() ? keys.toFile() : null);
              File chosen = chooser.showOpenDialog(getScene().getWindow());
              if (chosen != null) {
                value.set(chosen.getPath());
              }
            });
    choose.setMinWidth(USE_PREF_SIZE);
    return Parts.row("typed", field, choose);
  }

  private static CheckBox box(
      String words, String id, javafx.beans.property.BooleanProperty value) {
    CheckBox box = new CheckBox(words);
    box.setId(id);
    box.selectedProperty().bindBidirectional(value);
    return box;
  }

  /** What the server is for: three words of which one is in force. */
  private HBox mark() {
    HBox marks = Parts.row("marks");
    for (Mark mark : Mark.values()) {
      String word = mark == Mark.NONE ? WORDS.say("noMark") : mark.name().toLowerCase(Locale.ROOT);
      Button button = Parts.button(word, "mark-" + word, () -> draft.mark.set(mark), "box", "wide");
      Runnable show =
          () -> {
            button.getStyleClass().remove("on");
            if (draft.mark.get() == mark) {
              button.getStyleClass().add("on");
            }
          };
      draft.mark.addListener((observed, old, now) -> show.run());
      show.run();
      marks.getChildren().add(button);
    }
    return marks;
  }

  private void showFolders() {
    folders.getChildren().clear();
    int number = 1;
    for (EntryDraft.Folder folder : draft.folders()) {
      String id = "folder-" + number++ + "-";
      folders
          .getChildren()
          .add(
              Parts.row(
                  "typed",
                  field(folder.name, id + "name", WORDS.say("nameHint"), 9),
                  field(folder.path, id + "path", WORDS.say("pathThere"), 13),
                  field(folder.local, id + "local", WORDS.say("folderHere"), 11),
                  field(folder.address, id + "address", "https://", 13),
                  Parts.button(
                      WORDS.say("unmark"), id + "remove", () -> draft.folders().remove(folder))));
    }
  }
}
