package zander.desk.view.file;

import javafx.beans.value.ChangeListener;
import javafx.scene.control.Button;
import zander.desk.file.FileModel;
import zander.desk.file.own.OwnPrograms;
import zander.desk.view.part.Parts;
import zander.desk.words.Words;

/**
 * Says in the bar of a file that it is open in another program; pressed, it asks whether to stop.
 */
final class OwnProgramTag extends Button {
  private static final Words WORDS = Words.of(OwnProgramTag.class);

  private final OwnPrograms programs;
  private final FileModel file;

  OwnProgramTag(OwnPrograms programs, FileModel file) {
    this.programs = programs;
    this.file = file;
    setId("own-program-tag");
    getStyleClass().add("tag");
    setFocusTraversable(false);
    setMinWidth(USE_PREF_SIZE);
    setOnAction(event -> programs.askToStop(file));
    ChangeListener<Number> changed = (observed, old, now) -> show();
    sceneProperty()
        .addListener(
            (observed, old, now) -> {
              // What lives longer must not hold a view that is gone.
              programs.countProperty().removeListener(changed);
              if (now != null) {
                programs.countProperty().addListener(changed);
                show();
              }
            });
    show();
  }

  private void show() {
    String name = programs.nameFor(file);
    setText(WORDS.say("in", name));
    Parts.hint(this, WORDS.say("hasACopyEach", name));
    Parts.show(this, !name.isEmpty());
  }
}
