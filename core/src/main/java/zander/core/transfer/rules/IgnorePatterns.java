package zander.core.transfer.rules;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Pattern;
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
    String shown = line.strip();
    String rest = line.endsWith("\\ ") ? line.stripLeading() : shown;
    if (rest.isEmpty() || rest.startsWith("#")) {
      return;
    }
    boolean back = rest.startsWith("!");
    rest = back ? rest.substring(1) : rest;
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

  private static String regex(String glob) {
    StringBuilder regex = new StringBuilder();
    for (int i = 0; i < glob.length(); i++) {
      char c = glob.charAt(i);
      if (glob.startsWith("**/", i) && (i == 0 || glob.charAt(i - 1) == '/')) {
        regex.append("(?:.*/)?");
        i += 2;
      } else if (glob.startsWith("/**", i) && i + 3 == glob.length()) {
        regex.append("/.*");
        i += 2;
      } else if (c == '*') {
        regex.append("[^/]*");
      } else if (c == '?') {
        regex.append("[^/]");
      } else if (c == '[' && glob.indexOf(']', i + 2) > 0) {
        int end = glob.indexOf(']', i + 2);
        String inside = glob.substring(i + 1, end);
        boolean not = inside.startsWith("!") || inside.startsWith("^");
        regex.append(not ? "[^" : "[").append(escapedClass(inside.substring(not ? 1 : 0)));
        regex.append("]");
        i = end;
      } else {
        if (c == '\\' && i + 1 < glob.length()) {
          c = glob.charAt(++i);
        }
        regex.append(Pattern.quote(String.valueOf(c)));
      }
    }
    return regex.toString();
  }

  private static String escapedClass(String inside) {
    return inside.replace("\\", "\\\\").replace("[", "\\[").replace("&&", "&\\&");
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
