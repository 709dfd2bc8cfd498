package zander.desk.term;

import java.util.List;
import zander.core.work.VisibleText;

/**
 * Text that is pasted into a shell, as it would arrive there. What is on the clipboard may come
 * from a page that shows something else than it copies.
 *
 * @param text with the line ends a terminal sends, and without controls
 * @param lines as people are shown them, with what cannot be seen as marks
 * @param hadControls whether characters were left out that steer a terminal or a program
 */
public record PastedText(String text, List<String> lines, boolean hadControls) {
  public static PastedText of(String clipboard) {
    String plain = clipboard.replace("\r\n", "\n").replace('\r', '\n');
    StringBuilder kept = new StringBuilder();
    plain.chars().filter(PastedText::isKept).forEach(c -> kept.append((char) c));
    List<String> lines = plain.lines().map(PastedText::shown).toList();
    return new PastedText(
        kept.toString().replace('\n', '\r'), lines, kept.length() < plain.length());
  }

  /** Tabs and line ends are text; another control is a key, which nobody pressed. */
  private static boolean isKept(int c) {
    return c == '\n' || c == '\t' || !Character.isISOControl(c);
  }

  private static String shown(String line) {
    return VisibleText.of(line.replace('\t', ' '));
  }

  /** Whether a line of it is run as soon as it arrives, where the shell does not wait for more. */
  public boolean hasLineEnd() {
    return text.indexOf('\r') >= 0;
  }

  /** Whether something in it cannot be seen where it was copied. */
  public boolean hasHidden() {
    return text.codePoints().anyMatch(c -> c != '\r' && c != '\t' && VisibleText.isHidden(c));
  }
}
