package zander.desk.view.file;

import java.util.List;
import java.util.function.IntSupplier;
import javafx.animation.PauseTransition;
import javafx.geometry.Orientation;
import javafx.scene.control.ScrollBar;
import javafx.util.Duration;
import zander.desk.reading.ReadingModel;
import zander.desk.reading.Row;
import zander.desk.view.part.Soon;

/** Where in the whole file one reads, to be seen and changed: its length stands for all bytes. */
final class PlaceBar extends ScrollBar {
  private static final Duration REST = Duration.millis(150);

  /** Bytes of the rows in sight, about. */
  private static final long IN_SIGHT = 4000;

  private static final double LEAST_SHARE = 0.05;

  private final ReadingModel model;
  private final IntSupplier first;
  private final PauseTransition resting = new PauseTransition(REST);
  private final Soon placing = new Soon(this::place);
  private boolean updating;

  /**
   * @param first gives the first row in sight
   */
  PlaceBar(ReadingModel model, IntSupplier first) {
    this.model = model;
    this.first = first;
    setId("reading-bar");
    setOrientation(Orientation.VERTICAL);
    setMin(0);
    resting.setOnFinished(event -> go());
    valueProperty()
        .addListener(
            (observed, old, now) -> {
              if (!updating) {
                // Dragged: read once it rests, not at each pixel.
                resting.playFromStart();
              }
            });
  }

  private void go() {
    if (getValue() >= getMax()) {
      model.goToEnd();
    } else {
      model.goToByte((long) getValue());
    }
  }

  /**
   * Shows where the first row in sight is. Not at once: it is told of while rows are laid out, and
   * asking for the first of them would lay them out again meanwhile, which leaves none.
   */
  void update() {
    placing.wish();
  }

  private void place() {
    List<Row> rows = model.window().rows();
    long size = model.follower().sizeProperty().get();
    int at = first.getAsInt();
    if (isPressed() || size <= 0 || at >= rows.size()) {
      return;
    }
    updating = true;
    // About what is in sight: rows are of different lengths, but it need not be exact.
    double part = (double) Math.max(1, Math.min(size, IN_SIGHT));
    setMax(Math.max(1.0, size - part));
    // So much can be taken hold of with the mouse.
    setVisibleAmount(Math.max(part, size * LEAST_SHARE) * getMax() / size);
    setUnitIncrement(part / 20);
    setBlockIncrement(part);
    setValue(
        model.follower().inSightProperty().get()
            ? getMax()
            : Math.min(getMax(), (double) model.follower().placeOf(rows.get(at))));
    updating = false;
  }
}
