package zander.core.files;

import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * A pattern for paths below a folder, in the notation of {@code gitignore}(5): a slash at the end
 * means folders only, one elsewhere ties the pattern to the top; {@code **} stands for any number
 * of folders. A pattern that can fit nothing, such as one whose brackets are not closed, fits
 * nothing. Safe for several threads.
 */
public final class PathPattern {
  private static final String NEVER = "(?!)";

  private final String shown;
  private final Pattern pattern;
  private final boolean foldersOnly;
  private final boolean tied;

  private PathPattern(String shown, Pattern pattern, boolean foldersOnly, boolean tied) {
    this.shown = shown;
    this.pattern = pattern;
    this.foldersOnly = foldersOnly;
    this.tied = tied;
  }

  /**
   * @param text as a person writes it, in UTF-8 when compared with names
   * @return {@code null} for one that names nothing: empty, or a slash alone
   */
  public static @Nullable PathPattern of(String text) {
    boolean folders = text.endsWith("/");
    String rest = folders ? text.substring(0, text.length() - 1) : text;
    boolean tied = rest.indexOf('/') >= 0;
    rest = rest.startsWith("/") ? rest.substring(1) : rest;
    if (rest.isEmpty()) {
      return null;
    }
    String regex = (tied ? "" : "(?:.*/)?") + regex(WireName.fromText(rest));
    return new PathPattern(text, Pattern.compile(regex, Pattern.DOTALL), folders, tied);
  }

  /** Without the blanks at the end; a backslash keeps the one behind it. */
  public static String withoutBlanksBehind(String line) {
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
   * @param path in wire form, relative to the top; what is above it is not looked at
   */
  public boolean fits(String path, boolean folder) {
    return (folder || !foldersOnly) && pattern.matcher(path).matches();
  }

  /** Whether it fits at one place only, and not at any depth. */
  public boolean isTied() {
    return tied;
  }

  /** Whether there can be a path that it fits. */
  public boolean canFit() {
    return !pattern.pattern().endsWith(NEVER);
  }

  /** As the person wrote it. */
  public String shown() {
    return shown;
  }
}
