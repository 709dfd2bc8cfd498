package zander.desk.view.file;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Supplier;
import java.util.function.UnaryOperator;
import javafx.scene.control.IndexRange;
import org.fxmisc.richtext.CodeArea;
import org.fxmisc.richtext.model.TwoDimensional.Bias;
import zander.core.edit.LineOperations;
import zander.desk.edit.Language;

/** What the keyboard does with whole lines of the text: those that the selection touches. */
final class LineCommands {
  private static final int LOOKED_AT = 2_000;

  private final CodeArea area;
  private final Supplier<Language> language;

  LineCommands(CodeArea area, Supplier<Language> language) {
    this.area = area;
    this.language = language;
  }

  /** Lines that the selection touches; one that it only ends before is not of them. */
  private record Lines(int first, int last) {}

  private Lines touched() {
    IndexRange selection = area.getSelection();
    int first = lineAt(selection.getStart());
    int last = lineAt(selection.getEnd());
    boolean endsBefore =
        last > first && area.offsetToPosition(selection.getEnd(), Bias.Forward).getMinor() == 0;
    return new Lines(first, endsBefore ? last - 1 : last);
  }

  private int lineAt(int offset) {
    return area.offsetToPosition(offset, Bias.Forward).getMajor();
  }

  private List<String> texts(int first, int last) {
    List<String> texts = new ArrayList<>();
    for (int i = first; i <= last; i++) {
      texts.add(area.getText(i));
    }
    return texts;
  }

  /** In one step that is undone by itself; these lines are selected afterwards. */
  private void replace(int first, int last, List<String> made, int selectFrom, int selectTo) {
    int start = area.getAbsolutePosition(first, 0);
    int end = area.getAbsolutePosition(last, area.getParagraphLength(last));
    area.getUndoManager().preventMerge();
    area.replaceText(start, end, String.join("\n", made));
    area.getUndoManager().preventMerge();
    area.selectRange(
        area.getAbsolutePosition(selectFrom, 0),
        area.getAbsolutePosition(selectTo, area.getParagraphLength(selectTo)));
    area.requestFollowCaret();
  }

  private void change(UnaryOperator<List<String>> how) {
    Lines lines = touched();
    List<String> before = texts(lines.first, lines.last);
    List<String> after = how.apply(before);
    if (after.equals(before) || !area.isEditable()) {
      return;
    }
    boolean selects = area.getSelection().getLength() > 0;
    int column = area.getCaretColumn() + after.get(0).length() - before.get(0).length();
    replace(lines.first, lines.last, after, lines.first, lines.first + after.size() - 1);
    if (!selects && after.size() == 1) {
      area.moveTo(lines.first, Math.max(0, Math.min(column, after.get(0).length())));
    }
  }

  void comment() {
    List<String> comment = language.get().comment();
    change(lines -> LineOperations.commented(lines, comment.get(0), comment.get(1)));
  }

  void indent() {
    String unit = unit();
    change(lines -> LineOperations.indented(lines, unit));
  }

  void outdent() {
    String unit = unit();
    change(lines -> LineOperations.outdented(lines, unit));
  }

  void sort() {
    change(LineOperations::sorted);
  }

  /** One line alone is joined with the next. */
  void join() {
    Lines lines = touched();
    int last = Math.max(lines.last, Math.min(lines.first + 1, area.getParagraphs().size() - 1));
    if (area.isEditable() && last > lines.first) {
      String made = LineOperations.joined(texts(lines.first, last));
      replace(lines.first, last, List.of(made), lines.first, lines.first);
    }
  }

  void duplicate() {
    Lines lines = touched();
    if (area.isEditable()) {
      List<String> twice = texts(lines.first, lines.last);
      int count = twice.size();
      twice.addAll(List.copyOf(twice));
      replace(lines.first, lines.last, twice, lines.first + count, lines.last + count);
    }
  }

  /** With the end of the last; of the last of the text, with the end of the one before. */
  void delete() {
    Lines lines = touched();
    if (!area.isEditable()) {
      return;
    }
    boolean isLast = lines.last == area.getParagraphs().size() - 1;
    int start = area.getAbsolutePosition(lines.first, 0);
    int end = area.getAbsolutePosition(lines.last, area.getParagraphLength(lines.last));
    area.getUndoManager().preventMerge();
    area.deleteText(isLast && start > 0 ? start - 1 : start, isLast ? end : end + 1);
    area.getUndoManager().preventMerge();
  }

  /**
   * @param by 1 or -1
   */
  void move(int by) {
    Lines lines = touched();
    int first = Math.min(lines.first, lines.first + by);
    int last = Math.max(lines.last, lines.last + by);
    if (!area.isEditable() || first < 0 || last >= area.getParagraphs().size()) {
      return;
    }
    List<String> moved = texts(first, last);
    java.util.Collections.rotate(moved, by);
    replace(first, last, moved, lines.first + by, lines.last + by);
  }

  /** A new line with as much white space before it as this one has. */
  void newLine() {
    if (!area.isEditable()) {
      return;
    }
    IndexRange selection = area.getSelection();
    var at = area.offsetToPosition(selection.getStart(), Bias.Forward);
    String before = area.getText(at.getMajor()).substring(0, at.getMinor());
    area.replaceSelection("\n" + LineOperations.indentOf(before));
    area.requestFollowCaret();
  }

  /** Indents lines that are selected, and otherwise puts in what the text indents by. */
  void tab() {
    Lines lines = touched();
    if (lines.last > lines.first) {
      indent();
    } else if (area.isEditable()) {
      area.replaceSelection(unit());
    }
  }

  /** What the text indents by. */
  String unit() {
    int last = Math.min(LOOKED_AT, area.getParagraphs().size()) - 1;
    return LineOperations.indentUnit(texts(0, last));
  }
}
