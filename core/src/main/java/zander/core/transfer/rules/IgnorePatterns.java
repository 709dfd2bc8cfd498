package zander.core.transfer.rules;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Pattern;
import zander.core.files.NamePattern;
import zander.core.files.PosixClasses;
import zander.core.files.WireName;

/**
 * Patterns of what is not transferred, in the notation of {@code gitignore}(5): one a line, {@code
 * #} for remarks, {@code !} brings back, a slash at the end means folders only, one elsewhere ties
 * the pattern to the top. The last pattern that fits decides. What is below a folder that is left
 * out is not looked at.
 */
public final class IgnorePatterns {
  public static final IgnorePatterns NOTHING = new IgnorePatterns("");

  /** System litter and build results that hardly anybody means to send. */
  public static final String USUAL =
      """
      # left by desktops and editors
      .DS_Store
      Thumbs.db
      desktop.ini
      .directory
      .Trash-*/
      *~
      .*.sw[op]
      .#*
      # kept by version control
      .git/
      .svn/
      .hg/
      # made by builds
      node_modules/
      __pycache__/
      *.pyc
      .cache/
      target/
      """;

  private static final String NEVER = "(?!)";

  private final String text;
  private final List<Line> lines = new ArrayList<>();

  private record Line(String shown, Pattern pattern, boolean back, boolean foldersOnly) {}

  /**
   * @param text patterns as a person writes them, in UTF-8 when compared with names
   */
  public IgnorePatterns(String text) {
    this.text = text;
    text.lines().forEach(this::add);
  }

  private void add(String line) {
    String shown = withoutBlanksBehind(line);
    if (shown.isEmpty() || shown.startsWith("#")) {
      return;
    }
    boolean back = shown.startsWith("!");
    String rest = back ? shown.substring(1) : shown;
    boolean folders = rest.endsWith("/");
    rest = folders ? rest.substring(0, rest.length() - 1) : rest;
    boolean tied = rest.indexOf('/') >= 0;
    rest = rest.startsWith("/") ? rest.substring(1) : rest;
    if (rest.isEmpty()) {
      return;
    }
    String regex = (tied ? "" : "(?:.*/)?") + regex(WireName.fromText(rest));
    lines.add(new Line(shown, Pattern.compile(regex, Pattern.DOTALL), back, folders));
  }

  /** A backslash keeps the blank behind it. */
  private static String withoutBlanksBehind(String line) {
    int end = 0;
    for (int i = 0; i < line.length(); i++) {
      if (line.charAt(i) == '\\') {
        i++;
        end = Math.min(i + 1, line.length());
      } else if (line.charAt(i) != ' ') {
        end = i + 1;
      }
    }
    return line.substring(0, end);
  }

  /** What can fit nothing, such as brackets that are not closed, fits nothing. */
  private static String regex(String glob) {
    StringBuilder regex = new StringBuilder();
    for (int i = 0; i < glob.length(); ) {
      char c = glob.charAt(i);
      if (c == '*') {
        i = stars(glob, i, regex);
      } else if (c == '?') {
        regex.append("[^/]");
        i++;
      } else if (c == '[') {
        NamePattern.Brackets brackets = NamePattern.brackets(glob, i, PosixClasses::ascii);
        if (brackets == null) {
          return NEVER;
        }
        regex.append("(?!/)").append(brackets.expression());
        i = brackets.end();
      } else if (c == '\\' && i + 1 == glob.length()) {
        return NEVER;
      } else {
        i += c == '\\' ? 1 : 0;
        regex.append(Pattern.quote(String.valueOf(glob.charAt(i++))));
      }
    }
    return regex.toString();
  }

  /** Several that have a part of the path for themselves stand for any number of folders. */
  private static int stars(String glob, int from, StringBuilder regex) {
    int end = from;
    while (end < glob.length() && glob.charAt(end) == '*') {
      end++;
    }
    boolean alone =
        end > from + 1
            && (from == 0 || glob.charAt(from - 1) == '/')
            && (end == glob.length() || glob.startsWith("/", end) || glob.startsWith("\\/", end));
    if (alone && glob.startsWith("/", end)) {
      regex.append("(?:.*/)?");
      return end + 1;
    }
    regex.append(alone ? ".*" : "[^/]*");
    return end;
  }

  /**
   * The line that leaves a path out.
   *
   * @param path in wire form, relative to the top of what is transferred
   * @return as the person wrote it; {@code null} when it is transferred
   */
  public String by(String path, boolean folder) {
    Line last = null;
    for (Line line : lines) {
      if ((folder || !line.foldersOnly) && line.pattern.matcher(path).matches()) {
        last = line;
      }
    }
    return last == null || last.back ? null : last.shown;
  }

  public String text() {
    return text;
  }

  /** How many patterns there are. */
  public int count() {
    return lines.size();
  }

  @Override
  public boolean equals(Object other) {
    return other instanceof IgnorePatterns same && same.text.equals(text);
  }

  @Override
  public int hashCode() {
    return java.util.Arrays.hashCode(text.getBytes(StandardCharsets.UTF_8));
  }
}
