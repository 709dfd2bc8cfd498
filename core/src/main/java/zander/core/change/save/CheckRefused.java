package zander.core.change.save;

import java.io.IOException;
import java.util.OptionalInt;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** The command that a person chose for a file does not take its new content. */
public final class CheckRefused extends IOException {
  /** As a shell tells that there is no such program (POSIX, XCU 2.8.2). */
  private static final int NOT_FOUND = 127;

  private static final Pattern LINE =
      Pattern.compile("(?i:\\bline:? +)(\\d{1,9})|: ?(\\d{1,9})(?=[:\\s\\])]|$)");

  private final String command;
  private final int exit;
  private final String said;
  private final String file;

  /**
   * @param file the name of the file that it was about
   */
  CheckRefused(String command, int exit, String said, String file) {
    super("the check refused it: " + command + " ended with " + exit);
    this.command = command;
    this.exit = exit;
    this.said = said;
    this.file = file;
  }

  /** The same, as it is about another file. */
  CheckRefused about(String name) {
    return new CheckRefused(command, exit, said, name);
  }

  public String command() {
    return command;
  }

  /** Whether the server has no such program. */
  public boolean isMissing() {
    return exit == NOT_FOUND;
  }

  /** What it wrote; may be empty. */
  public String said() {
    return said;
  }

  /**
   * The line of the file that it names first, counted from 1. Of a command that looks at more than
   * the file, only what it says with the file's name is about it.
   */
  public OptionalInt line() {
    String name = Pattern.quote(file) + "[\"')\\]]?";
    Pattern near =
        Pattern.compile(
            "(?<![\\w.-])"
                + name
                + "(?::| *,?(?: on)? line:? +)(\\d{1,9})"
                + "|\\bline (\\d{1,9}) of \\S*"
                + name
                + "(?![\\w.-]*\\w)");
    Matcher matcher = near.matcher(said);
    if (matcher.find()) {
      return number(matcher);
    }
    return StagedCheck.isOfFile(command) ? first(said) : OptionalInt.empty();
  }

  private static OptionalInt number(Matcher matcher) {
    String number = matcher.group(1) == null ? matcher.group(2) : matcher.group(1);
    return OptionalInt.of(Integer.parseInt(number));
  }

  private static OptionalInt first(String words) {
    Matcher matcher = LINE.matcher(words);
    return matcher.find() ? number(matcher) : OptionalInt.empty();
  }
}
