package zander.desk.file;

import java.util.List;
import zander.core.edit.LineEnd;
import zander.core.edit.LineEnds;
import zander.core.edit.TextFile;
import zander.core.edit.UnencodableTextException;
import zander.desk.sheet.Texts;

/** A text as it is in the editor, beside the one on the server. Interface thread only. */
final class EditedText {
  private TextFile form;
  private LineEnds ends;
  private String text;
  private String saved;

  EditedText(TextFile loaded) {
    take(loaded);
  }

  /** Another one came in its place. */
  void take(TextFile loaded) {
    form = loaded;
    ends = loaded.lineEnds();
    text = loaded.text();
    saved = text;
  }

  /** The text as it is; a part of it was replaced just now. */
  void replaced(int line, String removed, String inserted) {
    if (form.hasMixedLineEnds()) {
      ends.replaced(line, removed, inserted);
    }
  }

  void edited(String now) {
    text = now;
  }

  void saved(String what) {
    saved = what;
  }

  /** From now on it is written in UTF-8. */
  void useUtf8() {
    form = form.inUtf8();
  }

  String text() {
    return text;
  }

  /** The server's. */
  String saved() {
    return saved;
  }

  boolean isUnsaved() {
    return !text.equals(saved);
  }

  /** With its encoding and line ends. */
  TextFile form() {
    return form;
  }

  /** Its encoding, line ends and lines, in words. */
  String facts() {
    long lines = text.endsWith("\n") || text.isEmpty() ? 0 : 1;
    for (int at = text.indexOf('\n'); at >= 0; at = text.indexOf('\n', at + 1)) {
      lines++;
    }
    return form.charset().name()
        + (form.hasMark() ? " with mark" : "")
        + (form.isGuessed() ? ", guessed" : "")
        + "   "
        + (form.hasMixedLineEnds() ? "mixed line ends" : form.lineEnd().name())
        + "   "
        + Texts.count(lines, "line");
  }

  /** What is to be written, for any thread. */
  Snapshot snapshot() {
    return new Snapshot(form, text, form.hasMixedLineEnds() ? ends.now() : List.of());
  }

  record Snapshot(TextFile form, String text, List<LineEnd> ends) {
    byte[] encode() throws UnencodableTextException {
      long lines = text.chars().filter(c -> c == '\n').count();
      return ends.size() != lines || text.equals(form.text())
          ? form.encode(text)
          : form.encode(text, ends);
    }
  }
}
