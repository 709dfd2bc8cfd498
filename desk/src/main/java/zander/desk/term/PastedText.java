package zander.desk.term;

import java.util.List;
import zander.core.work.VisibleText;

/**
 * Text that is pasted into a shell, as it would arrive there. What is on the clipboard may come
 * from a page that shows something else than it copies.
 *
 * @param text with the line ends a terminal sends, and without controls
 * @param first its first lines as people are shown them, with what cannot be seen as marks
 * @param lines how many there are
 * @param hadControls whether characters were left out that steer a terminal or a program
 * @param hasHidden whether something in it cannot be seen where it was copied
 */
public record PastedText(
    String text, List<String> first, long lines, boolean hadControls, boolean hasHidden) {
  private static final int SHOWN = 3;
  private static final int LONGEST_SHOWN = 160;

  /** Goes through it once: the clipboard may hold megabytes, and the interface thread asks. */
  public static PastedText of(String clipboard) {
    String plain = clipboard.replace("\r\n", "\n").replace('\r', '\n');
    StringBuilder kept = new StringBuilder(plain.length());
    boolean hidden = false;
    for (int i = 0; i < plain.length(); ) {
      int c = plain.codePointAt(i);
      i += Character.charCount(c);
      if (c == '\n' || c == '\t') {
        kept.append(c == '\n' ? '\r' : '\t');
      } else if (!Character.isISOControl(c)) {
        // Another control is a key, which nobody pressed.
        kept.appendCodePoint(c);
        hidden |= (c < ' ' || c > '~') && VisibleText.isHidden(c);
      }
    }
    List<String> first = plain.lines().limit(SHOWN).map(PastedText::shown).toList();
    boolean hadControls = kept.length() < plain.length();
    return new PastedText(kept.toString(), first, plain.lines().count(), hadControls, hidden);
  }

  private static String shown(String line) {
    boolean cut = line.length() > LONGEST_SHOWN;
    String start = cut ? line.substring(0, LONGEST_SHOWN) + "..." : line;
    return VisibleText.of(start.replace('\t', ' '));
  }

  /** Whether a line of it is run as soon as it arrives, where the shell does not wait for more. */
  public boolean hasLineEnd() {
    return text.indexOf('\r') >= 0;
  }
}
