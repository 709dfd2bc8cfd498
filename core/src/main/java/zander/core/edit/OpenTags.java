package zander.core.edit;

import java.util.ArrayDeque;
import java.util.Deque;
import java.util.Locale;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Elements of HTML and XML that are open at a place of a text. */
public final class OpenTags {
  /** Elements that are never closed (HTML Living Standard, 13.1.2, "Void elements"). */
  private static final Set<String> VOID =
      Set.of(
          "area", "base", "br", "col", "embed", "hr", "img", "input", "link", "meta", "source",
          "track", "wbr");

  /** A comment, or a tag; what is between quotes may have a bracket in it. */
  private static final Pattern TAG =
      Pattern.compile(
          "<!--.*?(?:-->|\\z)|<(/?)([A-Za-z_][\\w:.-]*)((?:\"[^\"]*\"|'[^']*'|[^<>\"'])*+)>",
          Pattern.DOTALL);

  private OpenTags() {}

  /**
   * The innermost element that is open at the end of a text.
   *
   * @param isHtml whether some elements need no closing, and names are the same in any case
   * @return its name as it is written; {@code null} for none
   */
  public static String innermost(CharSequence text, boolean isHtml) {
    Deque<String> open = new ArrayDeque<>();
    Matcher tag = TAG.matcher(text);
    while (tag.find()) {
      String name = tag.group(2);
      if (name == null || tag.group(3).endsWith("/")) {
        continue;
      }
      if (tag.group(1).isEmpty()) {
        if (!isHtml || !VOID.contains(name.toLowerCase(Locale.ROOT))) {
          open.push(name);
        }
      } else if (open.stream().anyMatch(one -> isSame(one, name, isHtml))) {
        while (!isSame(open.pop(), name, isHtml)) {
          // What was not closed within it is closed with it.
        }
      }
    }
    return open.peek();
  }

  private static boolean isSame(String one, String other, boolean isHtml) {
    return isHtml ? one.equalsIgnoreCase(other) : one.equals(other);
  }
}
