package zander.core.connect.channel;

import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.Locale;
import java.util.concurrent.ThreadLocalRandom;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import zander.core.connect.channel.ActFailure.Reason;
import zander.core.work.VisibleText;

/**
 * What was said before a program runs as another account, and the marks in it, which nobody else
 * can know. Not safe for several threads.
 */
final class StartText {
  /** A lecture, and what a server says to everybody. */
  private static final int MOST = 64 * 1024;

  /** A question is short, and whoever is asked reads it. */
  private static final int LONGEST_QUESTION = 300;

  /** What PAM and {@code doas} ask in the C locale; the same in small systems without PAM. */
  private static final Pattern PASSWORD =
      Pattern.compile("(?i)(?:doas \\([^)]*\\) )?password(?: for [^:\\s]+)?: ?");

  private final WayUp way;
  private final String upMark;
  private final String promptMark;
  private final String startMark;
  private byte[] said = {};
  private int answeredTo;

  StartText(WayUp way) {
    this.way = way;
    String mark = "zander-" + Long.toHexString(ThreadLocalRandom.current().nextLong());
    upMark = mark + "-up";
    promptMark = mark + "-asks";
    startMark = mark + "-runs";
  }

  String upMark() {
    return upMark;
  }

  String promptMark() {
    return promptMark;
  }

  String startMark() {
    return startMark;
  }

  boolean isTooLong() {
    return said.length > MOST;
  }

  /**
   * Adds what came.
   *
   * @return what of it is the program's own, where its beginning was heard; {@code null} before
   */
  byte @Nullable [] add(byte[] bytes, int offset, int length) {
    int before = said.length;
    said = Arrays.copyOf(said, before + length);
    System.arraycopy(bytes, offset, said, before, length);
    int begun = after(startMark, Math.max(0, before - startMark.length() - 1));
    if (begun < 0) {
      return null;
    }
    byte[] left = Arrays.copyOfRange(said, begun, said.length);
    said = new byte[0];
    return left;
  }

  /** How often {@code sudo} has asked with the mark that it was given. */
  int prompts() {
    int count = 0;
    for (int at = 0; (at = find(promptMark, at)) >= 0; at += promptMark.length()) {
      count++;
    }
    return count;
  }

  /** What was said by now has its answer. */
  void answered() {
    answeredTo = said.length;
  }

  /** The line that was begun since the last answer, and not ended; empty for none. */
  String openQuestion() {
    int from = after(upMark, 0);
    if (from < 0) {
      return "";
    }
    from = Math.max(from, answeredTo);
    for (int at = from; at < said.length; at++) {
      if (said[at] == '\n' || said[at] == '\r') {
        from = at + 1;
      }
    }
    String line = new String(said, from, said.length - from, StandardCharsets.UTF_8);
    // A mark that has come in part is not one yet.
    return line.isBlank() || promptMark.startsWith(line) || startMark.startsWith(line)
        ? ""
        : VisibleText.of(line.substring(0, Math.min(LONGEST_QUESTION, line.length())));
  }

  /** Whether a question is the one for the password, by a program that takes no text for it. */
  boolean isForPassword(String question) {
    return way != WayUp.SUDO && PASSWORD.matcher(question).matches();
  }

  /**
   * Where what comes after a mark begins; less than zero before. The mark ends a line: a refusal
   * repeats the command, and the mark within it.
   */
  private int after(String mark, int from) {
    for (int at = find(mark, from); at >= 0; at = find(mark, at + 1)) {
      int end = at + mark.length();
      // A terminal ends its lines with both.
      if (end < said.length && said[end] == '\r') {
        end++;
      }
      if (end < said.length && said[end] == '\n') {
        return end + 1;
      }
    }
    return -1;
  }

  private int find(String mark, int from) {
    byte[] bytes = mark.getBytes(StandardCharsets.US_ASCII);
    for (int at = from; at + bytes.length <= said.length; at++) {
      if (Arrays.equals(said, at, at + bytes.length, bytes, 0, bytes.length)) {
        return at;
      }
    }
    return -1;
  }

  /** Why it ended before it began. */
  Reason why() {
    String text = words().toLowerCase(Locale.ROOT);
    String program = way.program();
    if (text.contains("must have a tty")
        || text.contains("a terminal is required")
        || text.contains("a tty is required")
        || text.contains("must be run from a terminal")
        || (way == WayUp.DOAS && answeredTo == 0 && text.contains("authentication failed"))) {
      return Reason.WANTS_TERMINAL;
    }
    if (text.contains(program + ": not found")
        || text.contains(program + ": command not found")
        || text.contains(program + ": no such file")) {
      return Reason.NO_PROGRAM;
    }
    if (text.contains("not in the sudoers")
        || text.contains("not allowed")
        || text.contains("may not run")
        || text.contains("doas: operation not permitted")) {
      return Reason.NOT_ALLOWED;
    }
    boolean wrong = text.contains("incorrect password") || text.contains("authentication fail");
    return wrong && answeredTo > 0 ? Reason.WRONG_PASSWORD : Reason.FAILED;
  }

  /** What was said besides the prompts: the last line of it. */
  String words() {
    String text = new String(said, StandardCharsets.UTF_8);
    String[] lines = text.replace(promptMark, "\n").replace(upMark, "\n").strip().split("\n");
    return VisibleText.of(lines[lines.length - 1].strip());
  }
}
