package zander.core.config;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import zander.core.phrase.ConfigPhrase;
import zander.core.phrase.InvalidInput;

/**
 * One line of a configuration: a keyword and its arguments (ssh_config manual page): separated by
 * blanks or one equals sign, arguments in quotes where they hold blanks, {@code #} begins a comment
 * where a word could begin.
 *
 * @param keyword in small letters
 */
record ConfigLine(String keyword, List<String> arguments) implements ConfigBlock.Item {

  private static final Set<String> COMMANDS =
      Set.of("proxycommand", "localcommand", "remotecommand", "knownhostscommand");

  /**
   * Empty for blank lines and comments.
   *
   * @throws IllegalArgumentException with what is wrong in it
   */
  static Optional<ConfigLine> parse(String text) {
    String line = text.strip();
    if (line.isEmpty() || line.startsWith("#")) {
      return Optional.empty();
    }
    int end = 0;
    while (end < line.length()
        && !Character.isWhitespace(line.charAt(end))
        && line.charAt(end) != '=') {
      end++;
    }
    String keyword = line.substring(0, end).toLowerCase(Locale.ROOT);
    String rest = line.substring(end).stripLeading();
    if (rest.startsWith("=")) {
      rest = rest.substring(1).stripLeading();
    }
    if (keyword.isEmpty() || rest.isEmpty()) {
      throw new InvalidInput(ConfigPhrase.NO_VALUE.of(line));
    }
    // A command is for a shell, which reads its quotes itself.
    List<String> arguments = COMMANDS.contains(keyword) ? List.of(rest) : words(rest);
    return Optional.of(new ConfigLine(keyword, arguments));
  }

  private static List<String> words(String rest) {
    List<String> words = new ArrayList<>();
    StringBuilder word = new StringBuilder();
    char quote = 0;
    boolean begun = false;
    for (int i = 0; i < rest.length(); i++) {
      char c = rest.charAt(i);
      char next = i + 1 < rest.length() ? rest.charAt(i + 1) : 0;
      if (c == '\\' && ("\"'\\".indexOf(next) >= 0 || (quote == 0 && next == ' ')) && next != 0) {
        word.append(next);
        i++;
        begun = true;
      } else if (quote != 0 ? c == quote : c == '"' || c == '\'') {
        quote = quote == 0 ? c : 0;
        begun = true;
      } else if (quote == 0 && Character.isWhitespace(c)) {
        if (begun) {
          words.add(word.toString());
        }
        word.setLength(0);
        begun = false;
      } else if (quote == 0 && c == '#' && !begun) {
        break;
      } else {
        word.append(c);
        begun = true;
      }
    }
    if (quote != 0) {
      throw new InvalidInput(ConfigPhrase.QUOTE_OPEN.of(rest));
    }
    if (begun) {
      words.add(word.toString());
    }
    if (words.isEmpty() || words.get(0).isEmpty()) {
      throw new InvalidInput(ConfigPhrase.NO_VALUE.of(rest));
    }
    return words;
  }

  /** The first value that a keyword has, which is the one that counts. */
  static Optional<String> first(List<ConfigLine> lines, String keyword) {
    return lines.stream()
        .filter(line -> line.keyword.equals(keyword))
        .findFirst()
        .map(ConfigLine::first);
  }

  static String first(List<ConfigLine> lines, String keyword, String otherwise) {
    return first(lines, keyword).orElse(otherwise);
  }

  String first() {
    return arguments.get(0);
  }
}
