package zander.core.edit;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * A text with fields in it, written as a name in two braces: <code>{{title}}</code>. An empty one,
 * <code>{{}}</code>, is where the cursor comes to rest. Anything else in braces is text.
 */
public final class FieldText {
  private static final Pattern FIELD =
      Pattern.compile("\\{\\{([\\p{L}\\p{N}][\\p{L}\\p{N} _-]{0,40})?}}");

  private FieldText() {}

  /** The names of its fields, each once, in their order. */
  public static Set<String> fields(String text) {
    Set<String> names = new LinkedHashSet<>();
    Matcher found = FIELD.matcher(text);
    while (found.find()) {
      if (found.group(1) != null) {
        names.add(found.group(1));
      }
    }
    return names;
  }

  /** The text with values in their places; one that has none, and the empty one, go. */
  public static String fill(String text, Map<String, String> values) {
    return FIELD
        .matcher(text)
        .replaceAll(
            found ->
                Matcher.quoteReplacement(
                    found.group(1) == null ? "" : values.getOrDefault(found.group(1), "")));
  }

  /**
   * A field in a text that has its name in its place.
   *
   * @param start where the name begins
   * @param name empty for where the cursor comes to rest
   */
  public record Stop(int start, String name) {}

  /** A text with the names in the places of its fields, and where those are. */
  public record Placed(String text, List<Stop> stops) {}

  /**
   * The text to be gone through, stop by stop.
   *
   * @param indent put before each line but the first
   */
  public static Placed place(String text, String indent) {
    String lines = text.replace("\n", "\n" + indent);
    StringBuilder made = new StringBuilder();
    List<Stop> stops = new ArrayList<>();
    Stop rest = null;
    Matcher found = FIELD.matcher(lines);
    int at = 0;
    while (found.find()) {
      made.append(lines, at, found.start());
      String name = found.group(1) == null ? "" : found.group(1);
      Stop stop = new Stop(made.length(), name);
      if (name.isEmpty()) {
        rest = stop;
      } else {
        stops.add(stop);
      }
      made.append(name);
      at = found.end();
    }
    made.append(lines.substring(at));
    stops.add(rest == null ? new Stop(made.length(), "") : rest);
    return new Placed(made.toString(), stops);
  }
}
