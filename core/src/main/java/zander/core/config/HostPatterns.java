package zander.core.config;

import java.util.List;
import java.util.Locale;
import java.util.regex.Pattern;

/** The patterns of {@code Host} and {@code Match} lines (ssh_config manual page, PATTERNS). */
final class HostPatterns {
  private HostPatterns() {}

  /** Whether a name matches one of them and none of the negated ones, whatever their case. */
  static boolean match(List<String> patterns, String name) {
    return matchExactly(patterns.stream().map(HostPatterns::lower).toList(), lower(name));
  }

  /** The same with the case as it is. */
  static boolean matchExactly(List<String> patterns, String name) {
    boolean matched = false;
    for (String pattern : patterns) {
      boolean negated = pattern.startsWith("!");
      if (matches(negated ? pattern.substring(1) : pattern, name)) {
        if (negated) {
          return false;
        }
        matched = true;
      }
    }
    return matched;
  }

  /** Most have no wildcard, and there may be thousands, each asked for each host. */
  private static boolean matches(String pattern, String name) {
    return isPlain(pattern) ? pattern.equals(name) : glob(pattern).matcher(name).matches();
  }

  /** Whether it speaks of one host by its name. */
  static boolean isPlain(String pattern) {
    return pattern.indexOf('*') < 0 && pattern.indexOf('?') < 0 && pattern.indexOf('!') < 0;
  }

  private static String lower(String text) {
    return text.toLowerCase(Locale.ROOT);
  }

  private static Pattern glob(String pattern) {
    StringBuilder regex = new StringBuilder();
    for (char c : pattern.toCharArray()) {
      regex.append(c == '*' ? ".*" : c == '?' ? "." : Pattern.quote(String.valueOf(c)));
    }
    return Pattern.compile(regex.toString(), Pattern.DOTALL);
  }
}
