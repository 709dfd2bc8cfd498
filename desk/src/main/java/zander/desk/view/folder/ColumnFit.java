package zander.desk.view.folder;

import java.util.Collection;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import javafx.scene.text.Font;
import javafx.scene.text.Text;
import zander.desk.folder.Column;

/** How wide the columns of a folder are, and which are left out where there is no room for all. */
final class ColumnFit {
  /** What is left out first in a narrow window. Name, mode and notes always stay. */
  static final List<Column> FOLDS =
      List.of(Column.GROUP, Column.OWNER, Column.CHANGED, Column.SIZE);

  /** The space beside the text of a cell, in pixels. */
  private static final double PADDING = 20;

  private static final Font FONT = Font.font("Hanken Grotesk", 13);

  private ColumnFit() {}

  /**
   * The width at which none of the texts is cut.
   *
   * @param least in pixels, for the heading
   * @param most in pixels; a longer text is cut all the same
   */
  static double width(Collection<String> texts, double least, double most) {
    double width = least;
    for (String text : texts) {
      Text shown = new Text(text);
      shown.setFont(FONT);
      width = Math.max(width, Math.ceil(shown.getLayoutBounds().getWidth()) + PADDING);
    }
    return Math.min(width, most);
  }

  /**
   * @param widths of the columns that are wanted, the name's with the least it needs
   * @param room for all of them, in pixels
   */
  static Set<Column> leftOut(Map<Column, Double> widths, double room) {
    Set<Column> out = EnumSet.noneOf(Column.class);
    double needed = widths.values().stream().mapToDouble(Double::doubleValue).sum();
    for (Column column : FOLDS) {
      if (needed > room && widths.containsKey(column)) {
        out.add(column);
        needed -= widths.get(column);
      }
    }
    return out;
  }
}
