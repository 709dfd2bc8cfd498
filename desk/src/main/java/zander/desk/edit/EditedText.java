package zander.desk.edit;

import java.util.List;
import zander.core.edit.HiddenCharacters;
import zander.core.edit.LineEnd;
import zander.core.edit.LineEnds;
import zander.core.edit.TextFile;
import zander.core.edit.UnencodableTextException;
import zander.desk.sheet.Texts;
import zander.desk.words.Words;

/** A text as it is in the editor, beside the one on the server. Interface thread only. */
public final class EditedText {
  private static final Words WORDS = Words.of(EditedText.class);

  private TextFile form;

  /** How it is written on the server. */
  private TextFile savedForm;

  private LineEnds ends;
  private String text;
  private String saved;

  public EditedText(TextFile loaded) {
    take(loaded);
  }

  /** Another one came in its place. */
  public void take(TextFile loaded) {
    form = loaded;
    savedForm = loaded;
    ends = loaded.lineEnds();
    text = loaded.text();
    saved = text;
  }

  /** The text as it is; a part of it was replaced just now. */
  public void replaced(int line, String removed, String inserted) {
    if (form.hasMixedLineEnds()) {
      ends.replaced(line, removed, inserted);
    }
  }

  /** The whole of it after a change. */
  public void edited(String now) {
    text = now;
  }

  /** The server has this one now. */
  public void saved(String what) {
    saved = what;
    savedForm = form;
  }

  /** From now on it is written in UTF-8. */
  public void useUtf8() {
    form = form.inUtf8();
  }

  /** From now on each line of it ends so. */
  public void useLineEnd(LineEnd end) {
    form = form.withLineEnd(end);
    ends = form.lineEnds();
  }

  /** As it is in the editor. */
  public String text() {
    return text;
  }

  /** The server's. */
  public String saved() {
    return saved;
  }

  public boolean isUnsaved() {
    return form != savedForm || !text.equals(saved);
  }

  /** With its encoding and line ends. */
  public TextFile form() {
    return form;
  }

  /** Its encoding, line ends and lines, in words. */
  public String facts() {
    long lines = text.endsWith("\n") || text.isEmpty() ? 0 : 1;
    for (int at = text.indexOf('\n'); at >= 0; at = text.indexOf('\n', at + 1)) {
      lines++;
    }
    return form.charset().name()
        + (form.hasMark() ? WORDS.say("withMark") : "")
        + (form.isGuessed() ? WORDS.say("guessed") : "")
        + "   "
        + (form.hasMixedLineEnds() ? WORDS.say("mixedLineEnds") : form.lineEnd().name())
        + "   "
        + Texts.count(lines, "line")
        + (lines == 0 || text.endsWith("\n") ? "" : WORDS.say("theLastWithoutAn"))
        + hidden();
  }

  private String hidden() {
    int count = HiddenCharacters.count(text);
    return count == 0 ? "" : "   " + Texts.count(count, "hiddenCharacter");
  }

  /** What is to be written, for any thread. */
  public Snapshot snapshot() {
    return new Snapshot(form, text, form.hasMixedLineEnds() ? ends.now() : List.of());
  }

  /** A text with its encoding and the end of each line. Immutable. */
  public record Snapshot(TextFile form, String text, List<LineEnd> ends) {
    /** The bytes of it, as {@link TextFile#encode(String)} makes them. */
    public byte[] encode() throws UnencodableTextException {
      long lines = text.chars().filter(c -> c == '\n').count();
      return ends.size() != lines || text.equals(form.text())
          ? form.encode(text)
          : form.encode(text, ends);
    }
  }
}
