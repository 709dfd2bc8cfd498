package zander.standin.shell.process;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/**
 * Options and operands by the utility syntax guidelines (POSIX XBD 12.2), options before operands
 * or among them. An option that a command does not name is refused.
 */
public final class Options {
  private final Map<Character, List<String>> options = new HashMap<>();
  private final List<String> operands = new ArrayList<>();

  private Options() {}

  /**
   * @param flags letters of options without a value
   * @param valued letters of options with one
   */
  public static Options parse(List<String> arguments, String flags, String valued) {
    Options parsed = new Options();
    boolean ended = false;
    for (int i = 0; i < arguments.size(); i++) {
      String argument = arguments.get(i);
      if (ended || !argument.startsWith("-") || argument.equals("-")) {
        parsed.operands.add(argument);
      } else if (argument.equals("--")) {
        ended = true;
      } else if (argument.startsWith("--")) {
        throw new UsageError("option " + argument + " is not supported on this stand-in");
      } else {
        i = parsed.cluster(argument, arguments, i, flags, valued);
      }
    }
    return parsed;
  }

  private int cluster(String text, List<String> all, int index, String flags, String valued) {
    for (int at = 1; at < text.length(); at++) {
      char letter = text.charAt(at);
      if (valued.indexOf(letter) >= 0) {
        if (at + 1 < text.length()) {
          add(letter, text.substring(at + 1));
          return index;
        }
        if (index + 1 == all.size()) {
          throw new UsageError("option -" + letter + " needs a value");
        }
        add(letter, all.get(index + 1));
        return index + 1;
      }
      if (flags.indexOf(letter) < 0) {
        throw new UsageError("option -" + letter + " is not supported on this stand-in");
      }
      add(letter, "");
    }
    return index;
  }

  private void add(char letter, String value) {
    options.computeIfAbsent(letter, first -> new ArrayList<>()).add(value);
  }

  public boolean has(char letter) {
    return options.containsKey(letter);
  }

  /** The option's value, or {@code null} when it was not given. */
  public String value(char letter) {
    List<String> given = options.get(letter);
    return given == null ? null : given.get(given.size() - 1);
  }

  /** All values of an option that may be given several times. */
  public List<String> values(char letter) {
    return List.copyOf(options.getOrDefault(letter, List.of()));
  }

  public List<String> operands() {
    return operands;
  }

  /** The operands; at least so many must be there. */
  public List<String> operands(int least) {
    if (operands.size() < least) {
      throw new UsageError("missing operand");
    }
    return operands;
  }
}
