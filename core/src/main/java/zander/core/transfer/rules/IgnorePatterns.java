package zander.core.transfer.rules;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import zander.core.files.PathPattern;

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

  private record Line(String shown, PathPattern pattern, boolean back) {}

  /**
   * @param text patterns as a person writes them, in UTF-8 when compared with names
   */
  public IgnorePatterns(String text) {
    this.text = text;
    text.lines().forEach(this::add);
  }

  private void add(String line) {
    String shown = PathPattern.withoutBlanksBehind(line);
    if (shown.isEmpty() || shown.startsWith("#")) {
      return;
    }
    boolean back = shown.startsWith("!");
    PathPattern pattern = PathPattern.of(back ? shown.substring(1) : shown);
    if (pattern != null) {
      lines.add(new Line(shown, pattern, back));
    }
  }

  /**
   * The line that leaves a path out.
   *
   * @param path in wire form, relative to the top of what is transferred
   * @return as the person wrote it; {@code null} when it is transferred
   */
  public @Nullable String by(String path, boolean folder) {
    Line last = null;
    for (Line line : lines) {
      if (line.pattern.fits(path, folder)) {
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
  public boolean equals(@Nullable Object other) {
    return other instanceof IgnorePatterns same && same.text.equals(text);
  }

  @Override
  public int hashCode() {
    return java.util.Arrays.hashCode(text.getBytes(StandardCharsets.UTF_8));
  }
}
