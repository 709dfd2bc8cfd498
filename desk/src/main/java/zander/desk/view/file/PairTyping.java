package zander.desk.view.file;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.function.Supplier;
import javafx.scene.control.IndexRange;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import org.fxmisc.richtext.CodeArea;
import org.fxmisc.richtext.model.PlainTextChange;
import org.jspecify.annotations.Nullable;
import zander.core.edit.Brackets;
import zander.core.edit.OpenTags;
import zander.desk.edit.Language;

/**
 * Brackets, quotes and tags as they are typed: closed with their opening, typed over where they
 * were put in so, and marked with their partners.
 */
final class PairTyping {
  private static final String QUOTES = "\"'`";

  /** Before these, and at the end of a line, what is opened is closed as well. */
  private static final String BEFORE = " \t\n)]};,>";

  /** So much around the cursor is looked through with each of its moves, in characters. */
  private static final int AROUND = 20_000;

  /** The same where the person asks for the other bracket. */
  private static final int FAR = 2_000_000;

  /** The same for the elements that are open. */
  private static final int ELEMENTS = 200_000;

  private static final Set<String> WITH_TAGS = Set.of("HTML", "XML", "PHP");

  private final CodeArea area;
  private final Supplier<Language> language;

  /** Where the closing ones are that were put in and may be typed over. */
  private final List<Integer> putIn = new ArrayList<>();

  private boolean typing;

  PairTyping(CodeArea area, Supplier<Language> language) {
    this.area = area;
    this.language = language;
    area.addEventFilter(KeyEvent.KEY_TYPED, this::typed);
    area.addEventFilter(KeyEvent.KEY_PRESSED, this::pressed);
    area.plainTextChanges().subscribe(this::changed);
    area.currentParagraphProperty().addListener((observed, old, now) -> leftLine());
  }

  /** Elsewhere, what was put in is like any other. */
  private void leftLine() {
    if (!typing) {
      putIn.clear();
    }
  }

  private void changed(PlainTextChange change) {
    if (putIn.isEmpty()) {
      return;
    }
    int end = change.getPosition() + change.getRemoved().length();
    int by = change.getInserted().length() - change.getRemoved().length();
    putIn.removeIf(at -> at >= change.getPosition() && at < end);
    putIn.replaceAll(at -> at >= end ? at + by : at);
  }

  private void typed(KeyEvent event) {
    String text = event.getCharacter();
    boolean isPlain = !event.isControlDown() && !event.isAltDown() && !event.isMetaDown();
    if (!isPlain || text.length() != 1 || !area.isEditable()) {
      return;
    }
    typing = true;
    boolean done = put(text.charAt(0));
    typing = false;
    if (done) {
      area.requestFollowCaret();
      event.consume();
    }
  }

  /** Whether it was put in here, and the text component need not. */
  private boolean put(char c) {
    IndexRange selection = area.getSelection();
    boolean isQuote = QUOTES.indexOf(c) >= 0;
    if (selection.getLength() > 0) {
      return (isQuote || Brackets.isOpening(c)) && putAround(c, selection);
    }
    int caret = area.getCaretPosition();
    if (putIn.contains(caret) && caret < area.getLength() && next(caret) == c) {
      putIn.remove(Integer.valueOf(caret));
      area.moveTo(caret + 1);
      return true;
    }
    if (c == '/' && caret > 0 && next(caret - 1) == '<') {
      return closeTag(caret);
    }
    boolean isRoom = caret == area.getLength() || BEFORE.indexOf(next(caret)) >= 0;
    if (!isRoom || (isQuote && !mayOpen(c, caret)) || !(isQuote || Brackets.isOpening(c))) {
      return false;
    }
    char closing = isQuote ? c : Brackets.closing(c);
    area.replaceText(caret, caret, "" + c + closing);
    area.moveTo(caret + 1);
    putIn.add(caret + 1);
    return true;
  }

  private char next(int at) {
    return area.getText(at, at + 1).charAt(0);
  }

  /** Not in the middle of a word, where it is an apostrophe, nor behind another quote. */
  private boolean mayOpen(char quote, int caret) {
    if (caret == 0) {
      return true;
    }
    char before = next(caret - 1);
    return !Character.isLetterOrDigit(before) && before != quote && before != '\\';
  }

  private boolean putAround(char c, IndexRange selection) {
    char closing = QUOTES.indexOf(c) >= 0 ? c : Brackets.closing(c);
    String inside = area.getSelectedText();
    area.replaceSelection(c + inside + closing);
    area.selectRange(selection.getStart() + 1, selection.getEnd() + 1);
    return true;
  }

  private boolean closeTag(int caret) {
    String name = language.get().name();
    if (!WITH_TAGS.contains(name)) {
      return false;
    }
    String before = area.getText(Math.max(0, caret - 1 - ELEMENTS), caret - 1);
    String open = OpenTags.innermost(before, !name.equals("XML"));
    if (open == null) {
      return false;
    }
    area.insertText(caret, "/" + open + ">");
    return true;
  }

  /** Between two that were put in together, both go. */
  private void pressed(KeyEvent event) {
    int caret = area.getCaretPosition();
    if (event.getCode() == KeyCode.BACK_SPACE
        && !event.isShortcutDown()
        && area.isEditable()
        && area.getSelection().getLength() == 0
        && caret > 0
        && putIn.contains(caret)
        && opensWhatIsBehind(caret)) {
      area.deleteText(caret - 1, caret + 1);
      event.consume();
    }
  }

  private boolean opensWhatIsBehind(int caret) {
    char before = next(caret - 1);
    char behind = next(caret);
    return Brackets.isOpening(before)
        ? Brackets.closing(before) == behind
        : before == behind && QUOTES.indexOf(before) >= 0;
  }

  /** The bracket beside the cursor and its partner, in the text; {@code null} for none in sight. */
  Brackets.@Nullable Pair marked() {
    return pair(AROUND);
  }

  /** Moves the cursor to the partner of the bracket beside it. */
  void goToPartner() {
    Brackets.Pair pair = pair(FAR);
    if (pair != null && pair.partner() >= 0) {
      // On the same side of it as it was of the other.
      boolean behind = pair.at() < area.getCaretPosition();
      area.moveTo(pair.partner() + (behind ? 1 : 0));
      area.requestFollowCaret();
    }
  }

  private Brackets.@Nullable Pair pair(int around) {
    int caret = area.getCaretPosition();
    int near = Math.max(0, caret - 1);
    String beside = area.getText(near, Math.min(area.getLength(), caret + 1));
    if (Brackets.at(beside, caret - near) == null) {
      return null;
    }
    int from = Math.max(0, caret - around);
    String text = area.getText(from, Math.min(area.getLength(), caret + around));
    Brackets.Pair pair = Brackets.at(text, caret - from);
    if (pair == null) {
      return null;
    }
    return new Brackets.Pair(pair.at() + from, pair.partner() < 0 ? -1 : pair.partner() + from);
  }
}
