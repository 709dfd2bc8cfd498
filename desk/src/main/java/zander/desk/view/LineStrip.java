package zander.desk.view;

import javafx.beans.binding.Bindings;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import zander.desk.line.LineKeeper;
import zander.desk.view.part.Parts;
import zander.desk.words.Words;

/** Above the sheets while the line is away, or while the server is silent: how it stands. */
final class LineStrip extends HBox {
  private static final Words WORDS = Words.of(LineStrip.class);

  private final LineKeeper line;
  private final Button again;
  private final Button stop;

  LineStrip(LineKeeper line) {
    this.line = line;
    getStyleClass().add("away");
    setId("line-strip");
    Label words = Parts.label("", "strip-headline");
    words.setWrapText(true);
    words.setMinHeight(USE_PREF_SIZE);
    HBox.setHgrow(words, Priority.ALWAYS);
    words
        .textProperty()
        .bind(
            Bindings.when(line.awayProperty())
                .then(line.wordsProperty())
                .otherwise(line.silenceProperty()));
    again = Parts.button(WORDS.say("connectNow"), "connect-again", this::connect, "strong");
    stop = Parts.button(WORDS.say("stopTrying"), "stop-trying", line::stopTrying);
    again.setMinWidth(USE_PREF_SIZE);
    stop.setMinWidth(USE_PREF_SIZE);
    getChildren().addAll(words, again, stop);
    line.tryingProperty().addListener((observed, old, now) -> show());
    line.awayProperty().addListener((observed, old, now) -> show());
    line.silenceProperty().addListener((observed, old, now) -> show());
    show();
  }

  private void connect() {
    if (line.awayProperty().get()) {
      line.tryNow();
    } else {
      line.dropNow();
    }
  }

  private void show() {
    boolean away = line.awayProperty().get();
    again.setText(away ? WORDS.say("connectNow") : WORDS.say("connectAnew"));
    Parts.show(stop, away && line.tryingProperty().get());
    Parts.show(this, away || !line.silenceProperty().get().isEmpty());
  }
}
