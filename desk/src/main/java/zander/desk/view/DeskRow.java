package zander.desk.view;

import javafx.scene.layout.Pane;
import javafx.scene.layout.Region;
import org.jspecify.annotations.Nullable;

/**
 * What stands side by side on a desk: the left side, the sheets, the panel. Where the sheets have
 * too little space beside both, the left side makes room (Ctrl+G has its folders too); where that
 * is not enough, the panel becomes narrower. It asks for no width itself, so that a window that is
 * made narrower is not laid out wider than it is.
 */
final class DeskRow extends Pane {
  /** What the sheets keep beside the left side and the panel, in pixels. */
  private static final double LEAST_SHEETS = 520;

  private final Region side;
  private final Region sheets;
  private @Nullable Region panel;

  DeskRow(Region side, Region sheets) {
    this.side = side;
    this.sheets = sheets;
    getChildren().addAll(side, sheets);
  }

  void setPanel(Region beside) {
    panel = beside;
    getChildren().add(beside);
  }

  @Override
  protected double computeMinWidth(double height) {
    return 0;
  }

  @Override
  protected void layoutChildren() {
    double width = getWidth();
    double wanted = panel == null ? 0 : snapSizeX(panel.prefWidth(-1));
    double left = snapSizeX(side.prefWidth(-1));
    boolean hasRoom = left + LEAST_SHEETS + wanted <= width;
    side.setVisible(hasRoom);
    double from = hasRoom ? left : 0;
    double least = panel == null ? 0 : snapSizeX(panel.minWidth(-1));
    double right = Math.max(least, Math.min(wanted, width - from - LEAST_SHEETS));
    side.resizeRelocate(0, 0, left, getHeight());
    sheets.resizeRelocate(from, 0, Math.max(0, width - from - right), getHeight());
    if (panel != null) {
      panel.resizeRelocate(width - right, 0, right, getHeight());
    }
  }
}
