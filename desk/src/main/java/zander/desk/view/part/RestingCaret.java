package zander.desk.view.part;

import java.time.Duration;
import javafx.event.Event;
import javafx.scene.Node;
import javafx.scene.Scene;
import javafx.scene.control.TextInputControl;
import javafx.scene.control.skin.TextInputControlSkin;
import javafx.scene.input.InputEvent;
import org.fxmisc.richtext.Caret.CaretVisibility;
import org.fxmisc.richtext.CodeArea;

/**
 * Lets the caret stand still while nobody does anything. A blinking one is an animation, and while
 * one runs the window is laid out and drawn sixty times a second, for a laptop's fan to hear.
 */
public final class RestingCaret {
  private static final Duration LOOK = Duration.ofSeconds(2);
  private static final long REST_AFTER = Duration.ofSeconds(6).toNanos();

  private final Scene scene;
  private long lastEvent = System.nanoTime();
  private Node resting;

  private RestingCaret(Scene scene) {
    this.scene = scene;
  }

  /** For as long as the program runs. */
  public static void in(Scene scene) {
    RestingCaret caret = new RestingCaret(scene);
    scene.addEventFilter(InputEvent.ANY, caret::happened);
    scene.focusOwnerProperty().addListener((observed, old, now) -> caret.happened(null));
    Repeating.forever(LOOK, caret::look);
  }

  private void happened(Event event) {
    lastEvent = System.nanoTime();
    if (resting != null) {
      blink(resting, true);
      resting = null;
    }
  }

  private void look() {
    Node owner = scene.getFocusOwner();
    if (resting == null && owner != null && System.nanoTime() - lastEvent > REST_AFTER) {
      blink(owner, false);
      resting = owner;
    }
  }

  private static void blink(Node node, boolean blinking) {
    if (node instanceof CodeArea area) {
      // One that always shows would show without the keyboard, too.
      boolean still = !blinking && area.isFocused();
      area.setShowCaret(still ? CaretVisibility.ON : CaretVisibility.AUTO);
    } else if (node instanceof TextInputControl field
        && field.getSkin() instanceof TextInputControlSkin<?> skin) {
      skin.setCaretAnimating(blinking && field.isFocused());
    }
  }
}
