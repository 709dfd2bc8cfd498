package zander.desk.view.part;

import java.time.Duration;
import javafx.scene.Node;
import javafx.scene.Scene;
import javafx.scene.control.TextInputControl;
import javafx.scene.control.skin.TextInputControlSkin;
import javafx.scene.input.InputEvent;
import org.fxmisc.richtext.CodeArea;
import org.jspecify.annotations.Nullable;

/**
 * Lets the caret stand still while nobody does anything. A blinking one is an animation, and while
 * one runs the window is laid out and drawn sixty times a second, for a laptop's fan to hear.
 */
public final class RestingCaret {
  private static final Duration LOOK = Duration.ofSeconds(1);
  private static final long REST_AFTER = Duration.ofSeconds(4).toNanos();

  /** As text fields do. */
  private static final javafx.util.Duration BLINK = javafx.util.Duration.millis(500);

  private final Scene scene;
  private long lastEvent = System.nanoTime();
  private @Nullable Node resting;

  private RestingCaret(Scene scene) {
    this.scene = scene;
  }

  /** For as long as the program runs. */
  public static void in(Scene scene) {
    RestingCaret caret = new RestingCaret(scene);
    scene.addEventFilter(InputEvent.ANY, event -> caret.wake());
    scene.focusOwnerProperty().addListener((observed, old, now) -> caret.wake());
    Repeating.forever(LOOK, caret::look);
  }

  private void wake() {
    lastEvent = System.nanoTime();
    if (resting != null) {
      blink(resting, true);
      resting = null;
    }
  }

  private void look() {
    Node owner = scene.getFocusOwner();
    // Again and again: a field whose window gets the keyboard begins to blink by itself.
    if (owner != null && System.nanoTime() - lastEvent > REST_AFTER) {
      blink(owner, false);
      resting = owner;
    }
  }

  private static void blink(Node node, boolean blinking) {
    if (node instanceof CodeArea area) {
      area.getCaretSelectionBind()
          .getUnderlyingCaret()
          .setBlinkRate(blinking ? BLINK : javafx.util.Duration.ZERO);
    } else if (node instanceof TextInputControl field
        && field.getSkin() instanceof TextInputControlSkin<?> skin) {
      skin.setCaretAnimating(blinking && field.isFocused());
    }
  }
}
