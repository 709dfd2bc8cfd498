package zander.desk.view.part;

import java.util.function.DoubleConsumer;
import javafx.beans.property.BooleanProperty;
import javafx.geometry.Orientation;
import javafx.scene.Cursor;
import javafx.scene.Node;
import javafx.scene.input.MouseButton;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.Region;

/** An edge that is dragged to make what is right of it, or below it, larger or smaller. */
public final class Edge {
  private final Orientation along;
  private final Region side;
  private final DoubleConsumer wanted;
  private double sizeBefore;
  private double from;

  private Edge(Orientation along, Region side, DoubleConsumer wanted) {
    this.along = along;
    this.side = side;
    this.wanted = wanted;
  }

  /**
   * Makes a node an edge; what is pressed within it by itself stays what it is.
   *
   * @param along {@code VERTICAL} for an edge that goes left and right
   * @param side what is made larger; folded, it is not dragged
   * @param wanted given its new size in pixels while the edge is dragged
   * @param folded changed by a double click
   */
  public static void on(
      Node node, Orientation along, Region side, DoubleConsumer wanted, BooleanProperty folded) {
    Edge edge = new Edge(along, side, wanted);
    node.setCursor(along == Orientation.VERTICAL ? Cursor.H_RESIZE : Cursor.V_RESIZE);
    node.addEventHandler(MouseEvent.MOUSE_PRESSED, edge::pressed);
    node.addEventHandler(MouseEvent.MOUSE_DRAGGED, edge::dragged);
    node.addEventHandler(
        MouseEvent.MOUSE_CLICKED,
        event -> {
          if (event.getButton() == MouseButton.PRIMARY && event.getClickCount() == 2) {
            folded.set(!folded.get());
          }
        });
  }

  private double at(MouseEvent event) {
    return along == Orientation.VERTICAL ? event.getScreenX() : event.getScreenY();
  }

  private void pressed(MouseEvent event) {
    sizeBefore = along == Orientation.VERTICAL ? side.getWidth() : side.getHeight();
    from = at(event);
  }

  private void dragged(MouseEvent event) {
    if (event.getButton() == MouseButton.PRIMARY && side.isVisible()) {
      wanted.accept(sizeBefore + from - at(event));
    }
  }
}
