package zander.core.edit;

import java.lang.Character.UnicodeScript;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import zander.core.work.VisibleText;

/**
 * Characters of a text that look like a plain space, or like nothing, and that a program takes for
 * something else: no-break spaces, marks of width zero and of direction, controls. Those that a
 * script or a picture needs to be written are none of them.
 */
public final class HiddenCharacters {
  private static final int JOINER = 0x200d;
  private static final int NON_JOINER = 0x200c;
  private static final int PICTURE = 0xfe0f;

  /** In all others, joiners may be letters' own. */
  private static final Set<UnicodeScript> WITHOUT_JOINERS =
      Set.of(
          UnicodeScript.LATIN, UnicodeScript.GREEK, UnicodeScript.CYRILLIC, UnicodeScript.COMMON);

  private HiddenCharacters() {}

  /**
   * One of them.
   *
   * @param start where it begins in the text
   */
  public record Hidden(int start, int character) {
    public int end() {
      return start + Character.charCount(character);
    }

    /** What Unicode calls it. */
    public String name() {
      String name = Character.getName(character);
      return name == null ? VisibleText.mark(character) : name.toLowerCase(Locale.ROOT);
    }

    /** Whether it takes no room, so that no colour behind it would be seen. */
    public boolean hasNoWidth() {
      return Character.getType(character) != Character.SPACE_SEPARATOR;
    }
  }

  /** All of a text, in order. */
  public static List<Hidden> in(String text) {
    List<Hidden> found = new ArrayList<>();
    for (Hidden one = next(text, 0); one != null; one = next(text, one.end())) {
      found.add(one);
    }
    return found;
  }

  /** How many there are. */
  public static int count(String text) {
    int count = 0;
    for (Hidden one = next(text, 0); one != null; one = next(text, one.end())) {
      count++;
    }
    return count;
  }

  /** The first at or behind a place; {@code null} for none. */
  public static @Nullable Hidden next(String text, int from) {
    int before = from > 0 ? text.codePointBefore(from) : 0;
    for (int at = from; at < text.length(); ) {
      char plain = text.charAt(at);
      // Most of a text, and most quickly: a long one is looked through while somebody types.
      if ((plain >= ' ' && plain < 0x7f) || plain == '\n' || plain == '\t') {
        before = plain;
        at++;
        continue;
      }
      int c = text.codePointAt(at);
      if (isHidden(c, before)) {
        return new Hidden(at, c);
      }
      before = c;
      at += Character.charCount(c);
    }
    return null;
  }

  private static boolean isHidden(int c, int before) {
    return VisibleText.isHidden(c) && !belongsTo(c, before);
  }

  private static boolean belongsTo(int c, int before) {
    int type = Character.getType(before);
    boolean picture =
        type == Character.OTHER_SYMBOL || type == Character.MODIFIER_SYMBOL || before == PICTURE;
    return switch (c) {
      case PICTURE -> picture || Character.isDigit(before) || before == '#' || before == '*';
      case JOINER -> picture || isOfJoiningScript(before);
      case NON_JOINER -> isOfJoiningScript(before);
      default -> false;
    };
  }

  private static boolean isOfJoiningScript(int c) {
    return (Character.isLetter(c) || Character.getType(c) == Character.NON_SPACING_MARK)
        && !WITHOUT_JOINERS.contains(UnicodeScript.of(c));
  }
}
