package zander.core.config;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * What becomes of each keyword of the ssh_config manual page: {@code keywords.txt} has them all.
 */
final class Keywords {
  /** What becomes of it. */
  enum Kind {
    HONOURED,
    TOLD,
    NOTHING
  }

  private record Keyword(String name, Kind kind) {}

  /** As good as not there: nothing is to be told of them. */
  private static final Set<String> OFF =
      Set.of("no", "none", "false", "default", "any", "ssh_auth_sock");

  private static final Map<String, Keyword> ALL = read();

  private Keywords() {}

  private static Map<String, Keyword> read() {
    Map<String, Keyword> all = new HashMap<>();
    try (BufferedReader lines =
        new BufferedReader(
            new InputStreamReader(
                Keywords.class.getResourceAsStream("keywords.txt"), StandardCharsets.UTF_8))) {
      lines
          .lines()
          .filter(line -> !line.startsWith("#"))
          .map(line -> line.split(" "))
          .forEach(
              words -> {
                Kind kind = Kind.valueOf(words[0].toUpperCase(Locale.ROOT));
                all.put(words[1].toLowerCase(Locale.ROOT), new Keyword(words[1], kind));
              });
      return all;
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  /** {@code null} for one that the manual page does not have. */
  static @Nullable Kind of(String keyword) {
    Keyword known = ALL.get(keyword.toLowerCase(Locale.ROOT));
    return known == null ? null : known.kind;
  }

  /** Systems send these for everybody, and no file looks otherwise for it. */
  private static boolean isOfTheLocale(ConfigLine line) {
    return line.keyword().equals("sendenv")
        && line.arguments().stream()
            .allMatch(
                name -> name.equals("LANG") || name.startsWith("LC_") || name.equals("COLORTERM"));
  }

  /** Those that would change something and are not honoured, as the manual page writes them. */
  static List<String> unmet(List<ConfigLine> lines) {
    return lines.stream()
        .filter(line -> of(line.keyword()) == Kind.TOLD)
        .filter(line -> !OFF.contains(line.first().toLowerCase(Locale.ROOT)))
        .filter(line -> !isOfTheLocale(line))
        .map(line -> ALL.get(line.keyword()))
        .filter(Objects::nonNull)
        .map(keyword -> keyword.name)
        .distinct()
        .sorted()
        .toList();
  }
}
