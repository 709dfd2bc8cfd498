package zander.desk.view.part;

import javafx.scene.Node;

/** What shows a sheet; a node of the window. Interface thread only. */
public interface SheetView {
  /** The node itself. */
  default Node node() {
    return (Node) this;
  }

  /** Gives the keyboard to what a person came for. */
  void takeFocus();

  /** The sheet is closed: nothing must hold this view any more. */
  default void dispose() {}
}
