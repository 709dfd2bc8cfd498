package zander.desk.view;

import javafx.animation.AnimationTimer;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ProgressBar;
import javafx.scene.layout.HBox;
import zander.core.crossing.WhenExists;
import zander.desk.model.AppModel;
import zander.desk.model.CrossingModel;
import zander.desk.model.DeskModel;

/** The band between the server above and this computer below: the verbs, the rule, the crossing. */
final class WaterlineView extends HBox {
  private static final long LOOK_EVERY = 100_000_000;

  private final DeskModel desk;
  private final Label line = Parts.label("", "water-line");
  private final Label left = Parts.label("", "water-left");
  private final ProgressBar bar = new ProgressBar();
  private final Button stop;
  private final AnimationTimer timer;

  WaterlineView(AppModel app, DeskModel desk) {
    this.desk = desk;
    getStyleClass().add("waterline");
    Button up = Parts.button("Send up", "send-up", desk.crossings()::sendUp, "verb");
    Parts.hint(up, "What is selected below goes into the folder above (Ctrl+Up)");
    Button down = Parts.button("Bring down", "bring-down", desk.crossings()::bringDown, "verb");
    Parts.hint(down, "What is selected above comes into the folder below (Ctrl+Down)");
    Button rule = Parts.button("", "rule", this::nextRule, "rule");
    Parts.hint(rule, "Press for the next rule");
    desk.crossings()
        .whenExistsProperty()
        .addListener((observed, old, now) -> rule.setText(words(now)));
    rule.setText(words(desk.crossings().whenExistsProperty().get()));
    stop = Parts.button("Stop", "stop-crossing", desk.crossings()::stop, "rule");
    bar.setPrefWidth(190);
    Button fold =
        Parts.button(
            "",
            "fold",
            () -> app.localFoldedProperty().set(!app.localFoldedProperty().get()),
            "rule");
    fold.textProperty()
        .bind(
            javafx.beans.binding.Bindings.when(app.localFoldedProperty())
                .then("Show this computer")
                .otherwise("Fold"));
    Parts.hint(fold, "This computer's folder, shown or folded away (Ctrl+M)");
    for (Button button : new Button[] {up, down, rule, stop, fold}) {
      button.setMinWidth(USE_PREF_SIZE);
    }
    line.setId("crossing-line");
    left.setMinWidth(USE_PREF_SIZE);
    getChildren().addAll(up, down, rule, Parts.spring(), line, bar, left, stop, fold);
    timer =
        new AnimationTimer() {
          private long last;

          @Override
          public void handle(long now) {
            if (now - last > LOOK_EVERY) {
              last = now;
              look();
            }
          }
        };
    sceneProperty()
        .addListener(
            (observed, old, now) -> {
              if (now == null) {
                timer.stop();
              } else {
                timer.start();
              }
            });
    look();
  }

  private static String words(WhenExists rule) {
    return switch (rule) {
      case ASK -> "If it exists: ask";
      case REPLACE -> "If it exists: replace";
      case SKIP -> "If it exists: skip";
      case NEWER -> "If it exists: only newer";
      case DIFFERENT -> "If it exists: only different";
      case DIFFERENT_CONTENT -> "If it exists: only other content";
      case KEEP_BOTH -> "If it exists: keep both";
    };
  }

  private void nextRule() {
    WhenExists[] rules = WhenExists.values();
    desk.crossings()
        .whenExistsProperty()
        .set(rules[(desk.crossings().whenExistsProperty().get().ordinal() + 1) % rules.length]);
  }

  private void look() {
    CrossingModel crossing = desk.crossings().current();
    boolean runs = crossing != null && !crossing.isOver();
    Parts.show(bar, runs);
    Parts.show(stop, runs);
    Parts.show(left, runs);
    if (crossing == null) {
      line.setText("");
      return;
    }
    crossing.look();
    boolean asking = crossing.questionProperty().get() != null;
    line.setText(crossing.line() + (asking ? "  ·  waits for your answer" : ""));
    left.setText(crossing.left());
    bar.setProgress(crossing.part());
  }
}
