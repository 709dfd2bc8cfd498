package zander.desk.view.part;

import java.util.function.DoubleConsumer;
import java.util.function.DoubleSupplier;
import javafx.geometry.Orientation;
import javafx.scene.Cursor;
import javafx.scene.Node;
import javafx.scene.input.MouseButton;
import javafx.scene.input.MouseEvent;

/** An edge that is dragged to make what is right of it, or below it, larger or smaller. */
public final class Edge {
  private final Orientation along;
  private final DoubleSupplier size;
  private final DoubleConsumer wanted;
  private double sizeBefore;
  private double from;

  private Edge(Orientation along, DoubleSupplier size, DoubleConsumer wanted) {
    this.along = along;
    this.size = size;
    this.wanted = wanted;
  }

  /**
   * Makes a node an edge; what is pressed within it by itself stays what it is.
   *
   * @param along {@code VERTICAL} for an edge that goes left and right
   * @param size of what is made larger, in pixels
   * @param wanted given its new size while the edge is dragged
   * @param fold run at a double click
   */
  public static void on(
      Node node, Orientation along, DoubleSupplier size, DoubleConsumer wanted, Runnable fold) {
    Edge edge = new Edge(along, size, wanted);
    node.setCursor(along == Orientation.VERTICAL ? Cursor.H_RESIZE : Cursor.V_RESIZE);
    node.addEventHandler(MouseEvent.MOUSE_PRESSED, edge::pressed);
    node.addEventHandler(MouseEvent.MOUSE_DRAGGED, edge::dragged);
    node.addEventHandler(
        MouseEvent.MOUSE_CLICKED,
        event -> {
          if (event.getButton() == MouseButton.PRIMARY && event.getClickCount() == 2) {
            fold.run();
          }
        });
  }

  private double at(MouseEvent event) {
    return along == Orientation.VERTICAL ? event.getScreenX() : event.getScreenY();
  }

  private void pressed(MouseEvent event) {
    sizeBefore = size.getAsDouble();
    from = at(event);
  }

  private void dragged(MouseEvent event) {
    if (event.getButton() == MouseButton.PRIMARY) {
      wanted.accept(sizeBefore + from - at(event));
    }
  }
}
