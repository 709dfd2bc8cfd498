package zander.desk.reading;

import java.util.List;
import java.util.function.Predicate;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import zander.core.find.SearchText;
import zander.core.find.TextPlaces;
import zander.core.work.Cancellation;
import zander.desk.edit.Language;
import zander.desk.edit.Languages;

/**
 * Which lines of a log are shown.
 *
 * @param wanted what must be in them; {@code null} for anything
 * @param least how serious they must be
 */
public record LineFilter(@Nullable SearchText wanted, Level least) {
  /** How serious a line is, by the words that the language of logs colours so. */
  public enum Level {
    ANY,
    WARNING,
    PROBLEM
  }

  public static final LineFilter ALL = new LineFilter(null, Level.ANY);

  private static final Language LOG = Languages.named("log").orElseThrow();
  private static final List<Pattern> PROBLEMS = rules("problem");
  private static final List<Pattern> WARNINGS = rules("warning");

  private static List<Pattern> rules(String kind) {
    return LOG.rules().stream()
        .filter(rule -> rule.kind().equals(kind))
        .map(Language.Rule::pattern)
        .toList();
  }

  public boolean isAll() {
    return wanted == null && least == Level.ANY;
  }

  /**
   * Whether a line passes; it ends with {@link java.util.concurrent.CancellationException} when it
   * is stopped.
   *
   * @throws java.util.regex.PatternSyntaxException when the expression is none
   */
  public Predicate<String> test(Cancellation stop) {
    Pattern pattern = wanted == null ? null : wanted.pattern();
    return line ->
        (pattern == null || TextPlaces.isIn(line, pattern, stop))
            && switch (least) {
              case ANY -> true;
              case WARNING -> isAny(WARNINGS, line) || isAny(PROBLEMS, line);
              case PROBLEM -> isAny(PROBLEMS, line);
            };
  }

  private static boolean isAny(List<Pattern> rules, String line) {
    return rules.stream().anyMatch(rule -> rule.matcher(line).find());
  }
}
