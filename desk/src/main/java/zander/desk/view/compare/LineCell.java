package zander.desk.view.compare;

import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.control.TableCell;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import zander.core.edit.SideBySide;
import zander.desk.view.part.Parts;

/** A line of one of two texts; what differs in it stands out. */
final class LineCell extends TableCell<SideBySide.Row, SideBySide.Row> {
  /** Longer ones are cut: nobody reads them in a row, and they take long to lay out. */
  private static final int LONGEST = 2_000;

  /** Where a line differs only beyond so many characters, what is before is left out. */
  private static final int FAR = 40;

  /** So many of them stay before what differs. */
  private static final int BEFORE = 15;

  private final boolean isLeft;
  private final Label before = Parts.label("");
  private final Label differs = Parts.label("", "line-differs");
  private final Label after = Parts.label("");
  private final Tooltip whole = new Tooltip();
  private final HBox line = new HBox(before, differs, after);

  LineCell(boolean isLeft) {
    this.isLeft = isLeft;
    getStyleClass().add("compared-line");
    for (Label part : new Label[] {before, differs, after}) {
      part.setMinWidth(USE_PREF_SIZE);
    }
    line.setMinWidth(0);
    line.setAlignment(Pos.CENTER_LEFT);
    setMinWidth(0);
  }

  @Override
  protected void updateItem(SideBySide.Row row, boolean empty) {
    super.updateItem(row, empty);
    getStyleClass().removeAll("line-removed", "line-added", "line-none");
    setTooltip(null);
    if (empty || row == null) {
      setGraphic(null);
      return;
    }
    String text = isLeft ? row.left() : row.right();
    boolean isThere = (isLeft ? row.leftNumber() : row.rightNumber()) > 0;
    int to = isLeft ? row.leftTo() : row.rightTo();
    boolean both = row.leftNumber() > 0 && row.rightNumber() > 0;
    boolean marks = !row.isSame() && both;
    int start = marks && row.from() > FAR ? text.offsetByCodePoints(row.from(), -BEFORE) : 0;
    String lead = start > 0 ? "... " : "";
    before.setText(lead + shown(marks ? text.substring(start, row.from()) : text));
    differs.setText(shown(marks ? text.substring(row.from(), to) : ""));
    after.setText(shown(marks ? text.substring(to) : ""));
    if (!isThere) {
      getStyleClass().add("line-none");
    } else if (!row.isSame()) {
      getStyleClass().add(isLeft ? "line-removed" : "line-added");
    }
    if (text.length() > FAR) {
      whole.setText(shown(text));
      setTooltip(whole);
    }
    setGraphic(line);
  }

  private static String shown(String text) {
    String cut = text.length() > LONGEST ? text.substring(0, LONGEST) + "..." : text;
    return cut.replace("\t", "    ");
  }
}
