package zander.desk.view.part;

import java.time.Clock;
import java.time.Duration;
import java.util.function.Supplier;
import javafx.beans.property.LongProperty;
import javafx.beans.property.SimpleLongProperty;
import javafx.beans.value.ChangeListener;
import javafx.beans.value.WeakChangeListener;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.TableCell;
import javafx.scene.control.Tooltip;
import zander.desk.sheet.Texts;

/**
 * Times that are told by how long ago they are. They go on while they are shown, and tell the exact
 * time to a mouse that rests on them. Interface thread only.
 */
public final class RelativeTimes {
  private static final Duration EVERY = Duration.ofSeconds(15);
  private static final LongProperty BEAT = new SimpleLongProperty();
  private static Clock clock = Clock.systemDefaultZone();

  static {
    Repeating.forever(EVERY, RelativeTimes::goOn);
  }

  private RelativeTimes() {}

  /** What time it is from now on, for tests. */
  public static void setClock(Clock other) {
    clock = other;
    goOn();
  }

  private static void goOn() {
    BEAT.set(BEAT.get() + 1);
  }

  /**
   * @param seconds since 1970-01-01 UTC
   */
  public static String text(long seconds) {
    return Texts.when(seconds, clock);
  }

  /**
   * @param seconds since 1970-01-01 UTC
   * @param after what follows the time
   */
  public static Label label(long seconds, String after, String... styleClasses) {
    Label label = Parts.label("", styleClasses);
    Supplier<String> words = () -> text(seconds) + after;
    label.setText(words.get());
    label.setTooltip(new Tooltip(Texts.exactly(seconds)));
    onBeat(label, () -> label.setText(words.get()));
    return label;
  }

  /** A cell of seconds since 1970-01-01 UTC. */
  public static <R> TableCell<R, Long> cell() {
    TableCell<R, Long> cell = Tables.text(RelativeTimes::text, Pos.CENTER_LEFT, "plain");
    Tables.hint(cell, seconds -> seconds == null ? "" : Texts.exactly(seconds));
    onBeat(
        cell,
        () -> {
          if (!cell.isEmpty() && cell.getItem() != null) {
            cell.setText(text(cell.getItem()));
          }
        });
    return cell;
  }

  /** For as long as the node lives, which holds the listener; nothing here holds the node. */
  private static void onBeat(Node node, Runnable change) {
    ChangeListener<Number> listener = (observed, old, now) -> change.run();
    node.getProperties().put(RelativeTimes.class, listener);
    BEAT.addListener(new WeakChangeListener<>(listener));
  }
}
