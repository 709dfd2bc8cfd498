package zander.desk.view.file;

import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.VBox;
import zander.desk.file.own.BytesModel;
import zander.desk.view.part.Parts;
import zander.desk.view.part.QuestionStrip;
import zander.desk.view.part.SheetView;
import zander.desk.words.Words;

/** A file that is open in another program, and not here. */
public final class BytesView extends VBox implements SheetView {
  private static final Words WORDS = Words.of(BytesView.class);

  private final Button again;

  public BytesView(BytesModel model) {
    getStyleClass().add("sheet");
    Label path = Parts.label(model.path().text(), "mono");
    Label state = Parts.label("", "tag");
    state.setId("bytes-state");
    state.setMinWidth(USE_PREF_SIZE);
    state.textProperty().bind(model.stateProperty());
    model.unsavedProperty().addListener((observed, old, now) -> mark(state, now));
    mark(state, model.isUnsaved());
    again = Parts.button(WORDS.say("openAgain", model.program()), "bytes-open", model::start);
    again.setMinWidth(USE_PREF_SIZE);
    Label what = Parts.label(WORDS.say("eachSave", model.program()), "quiet");
    what.setWrapText(true);
    VBox about = new VBox(what);
    about.getStyleClass().add("bytes-about");
    getChildren()
        .addAll(
            Parts.row("sheet-bar", path, Parts.spring(), state, again),
            new QuestionStrip(model.questionProperty()),
            about);
  }

  private static void mark(Label state, boolean unsaved) {
    state.getStyleClass().removeAll("look", "good");
    state.getStyleClass().add(unsaved ? "look" : "good");
  }

  @Override
  public void takeFocus() {
    again.requestFocus();
  }
}
