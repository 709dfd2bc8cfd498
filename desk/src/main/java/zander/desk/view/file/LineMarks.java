package zander.desk.view.file;

import java.util.BitSet;
import java.util.function.IntFunction;
import javafx.scene.Node;
import org.fxmisc.richtext.CodeArea;
import org.fxmisc.richtext.LineNumberFactory;
import zander.desk.edit.ChangedLines;
import zander.desk.edit.ChangedLines.Marks;

/** The numbers beside the lines, and which lines are not as on the server. */
final class LineMarks {
  private final CodeArea area;
  private final ChangedLines changes;

  LineMarks(CodeArea area, ChangedLines changes) {
    this.area = area;
    this.changes = changes;
    IntFunction<Node> numbers =
        LineNumberFactory.get(area, digits -> "%" + Math.max(3, digits) + "d");
    area.setParagraphGraphicFactory(line -> marked(numbers.apply(line), line));
    changes.marksProperty().addListener((observed, old, now) -> show(old, now));
  }

  private Node marked(Node number, int line) {
    Marks marks = changes.marksProperty().get();
    if (marks.lines().get(line)) {
      number.getStyleClass().add("changed");
    } else if (marks.gone().get(line)) {
      number.getStyleClass().add("gone");
    }
    return number;
  }

  /** Only lines that are seen and changed are made anew. */
  private void show(Marks old, Marks now) {
    BitSet differ = (BitSet) old.lines().clone();
    differ.xor(now.lines());
    BitSet gone = (BitSet) old.gone().clone();
    gone.xor(now.gone());
    differ.or(gone);
    if (area.getVisibleParagraphs().isEmpty()) {
      return;
    }
    int first = area.firstVisibleParToAllParIndex();
    int last = Math.min(area.lastVisibleParToAllParIndex(), area.getParagraphs().size() - 1);
    for (int i = differ.nextSetBit(first); i >= 0 && i <= last; i = differ.nextSetBit(i + 1)) {
      area.recreateParagraphGraphic(i);
    }
  }
}
