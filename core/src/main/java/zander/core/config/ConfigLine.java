package zander.core.config;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/**
 * One line of a configuration: a keyword and its arguments (ssh_config manual page): separated by
 * blanks or one equals sign, arguments in double quotes where they hold blanks, {@code #} begins a
 * comment.
 *
 * @param keyword in small letters
 */
record ConfigLine(String keyword, List<String> arguments) {

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
      throw new IllegalArgumentException("a keyword without a value: " + line);
    }
    return Optional.of(new ConfigLine(keyword, words(rest)));
  }

  private static List<String> words(String rest) {
    List<String> words = new ArrayList<>();
    StringBuilder word = new StringBuilder();
    boolean quoted = false;
    boolean begun = false;
    for (int i = 0; i < rest.length(); i++) {
      char c = rest.charAt(i);
      if (c == '\\' && i + 1 < rest.length() && "\"\\ ".indexOf(rest.charAt(i + 1)) >= 0) {
        word.append(rest.charAt(++i));
        begun = true;
      } else if (c == '"') {
        quoted = !quoted;
        begun = true;
      } else if (!quoted && Character.isWhitespace(c)) {
        if (begun) {
          words.add(word.toString());
        }
        word.setLength(0);
        begun = false;
      } else if (!quoted && c == '#' && !begun) {
        break;
      } else {
        word.append(c);
        begun = true;
      }
    }
    if (quoted) {
      throw new IllegalArgumentException("a quote that does not end: " + rest);
    }
    if (begun) {
      words.add(word.toString());
    }
    if (words.isEmpty()) {
      throw new IllegalArgumentException("a keyword without a value");
    }
    return words;
  }

  String first() {
    return arguments.get(0);
  }
}
