package zander.core.connect.channel;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.Arrays;
import java.util.Locale;
import java.util.concurrent.ThreadLocalRandom;
import zander.core.connect.channel.ActFailure.Reason;
import zander.core.work.SecretBytes;
import zander.core.work.VisibleText;

/**
 * What is said on the error stream before a program runs as another account. {@code sudo} is told
 * to ask with a mark that nobody else can know, and the program to write another as it begins: a
 * password goes only where the first was seen, once for each, and nothing else is written to the
 * program before the second. A password that nobody asked for would become its input.
 */
public final class StartTalk {
  /** A lecture, and what a server says to everybody. */
  private static final int MOST = 64 * 1024;

  /**
   * As long as a server may think about one password; a wrong one takes seconds (pam_faildelay).
   */
  private static final Duration PATIENCE = Duration.ofSeconds(60);

  private final Elevation elevation;
  private final byte[] promptMark;
  private final byte[] startMark;
  private byte[] said = {};
  private int prompts;
  private int answered;
  private boolean started;
  private boolean ended;

  /** Closes what the program runs in. */
  private Runnable closing = () -> {};

  StartTalk(Elevation elevation) {
    this.elevation = elevation;
    String mark = "zander-" + Long.toHexString(ThreadLocalRandom.current().nextLong());
    promptMark = (mark + "-asks").getBytes(StandardCharsets.US_ASCII);
    startMark = (mark + "-runs").getBytes(StandardCharsets.US_ASCII);
  }

  /** The text that {@code sudo} is to ask with. */
  public String promptMark() {
    return new String(promptMark, StandardCharsets.US_ASCII);
  }

  /** The line that the program is to write as it begins, where this hears it. */
  public String startMark() {
    return new String(startMark, StandardCharsets.US_ASCII);
  }

  public String account() {
    return elevation.account();
  }

  /** Whether the program runs. */
  public synchronized boolean isStarted() {
    return started;
  }

  /**
   * Where the error stream goes; what a terminal shows, where there is one.
   *
   * @param rest takes what comes once the program runs
   */
  public OutputStream errors(OutputStream rest) {
    return new OutputStream() {
      @Override
      public void write(int b) throws IOException {
        write(new byte[] {(byte) b}, 0, 1);
      }

      @Override
      public void write(byte[] bytes, int offset, int length) throws IOException {
        byte[] left = take(bytes, offset, length);
        if (left != null) {
          rest.write(left, 0, left.length);
        }
      }
    };
  }

  /** Gives what is the program's. */
  private synchronized byte[] take(byte[] bytes, int offset, int length) {
    if (started) {
      return Arrays.copyOfRange(bytes, offset, offset + length);
    }
    int before = said.length;
    said = Arrays.copyOf(said, before + length);
    System.arraycopy(bytes, offset, said, before, length);
    int begun = afterStart(Math.max(0, before - startMark.length - 1));
    if (begun >= 0) {
      started = true;
      byte[] left = Arrays.copyOfRange(said, begun, said.length);
      said = new byte[0];
      notifyAll();
      return left;
    }
    for (int from = Math.max(0, before - promptMark.length + 1); ; ) {
      int asked = find(promptMark, from);
      if (asked < 0) {
        break;
      }
      prompts++;
      from = asked + promptMark.length;
      notifyAll();
    }
    if (said.length > MOST) {
      end();
    }
    return null;
  }

  /**
   * Where the program's own output begins; less than zero before. The mark ends a line: a refusal
   * repeats the command, and the mark within it.
   */
  private int afterStart(int from) {
    for (int at = find(startMark, from); at >= 0; at = find(startMark, at + 1)) {
      int end = at + startMark.length;
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

  private int find(byte[] mark, int from) {
    for (int at = from; at + mark.length <= said.length; at++) {
      if (Arrays.equals(said, at, at + mark.length, mark, 0, mark.length)) {
        return at;
      }
    }
    return -1;
  }

  /**
   * Before its command is sent.
   *
   * @param channelClosing closes what the program runs in, when the right ends
   * @throws ActFailure when the right has ended
   */
  public void begin(Runnable channelClosing) throws ActFailure {
    synchronized (this) {
      closing = channelClosing;
    }
    elevation.begins(this);
  }

  /** Nothing more is said. */
  public void end() {
    synchronized (this) {
      ended = true;
      notifyAll();
    }
    leave();
  }

  /** The channel is closed, and need not be when the right ends. */
  public void leave() {
    elevation.ended(this);
  }

  /** The right has ended. */
  void close() {
    Runnable close;
    synchronized (this) {
      close = closing;
    }
    close.run();
    end();
  }

  /** Takes a password with its line end. */
  public interface Answer {
    void give(byte[] line) throws IOException;
  }

  /**
   * Waits until the program runs, and answers each prompt once; the person may be asked meanwhile.
   *
   * @throws ActFailure when it does not get that far
   */
  public void await(Answer answer) throws IOException {
    byte[] refused = null;
    try {
      while (isAsked()) {
        byte[] password = elevation.passwordAfter(refused);
        if (password == null) {
          throw new ActFailure(refused == null ? Reason.GIVEN_UP : Reason.WRONG_PASSWORD, words());
        }
        SecretBytes.wipe(refused);
        refused = password;
        byte[] line = Arrays.copyOf(password, password.length + 1);
        line[password.length] = '\n';
        try {
          answer.give(line);
        } finally {
          SecretBytes.wipe(line);
        }
      }
    } finally {
      SecretBytes.wipe(refused);
    }
  }

  /** Waits for the next prompt; false once the program runs. */
  private synchronized boolean isAsked() throws IOException {
    long end = System.nanoTime() + PATIENCE.toNanos();
    try {
      while (!started && !ended && prompts == answered) {
        long left = (end - System.nanoTime()) / 1_000_000;
        if (left <= 0) {
          throw new ActFailure(Reason.FAILED, "no answer in a minute");
        }
        wait(left);
      }
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new IOException("interrupted", e);
    }
    if (started) {
      return false;
    }
    if (ended) {
      throw new ActFailure(why(), words());
    }
    answered++;
    return true;
  }

  private Reason why() {
    String text = words().toLowerCase(Locale.ROOT);
    if (text.contains("must have a tty") || text.contains("a terminal is required")) {
      return Reason.WANTS_TERMINAL;
    }
    if (text.contains("sudo: not found") || text.contains("sudo: command not found")) {
      return Reason.NO_PROGRAM;
    }
    if (text.contains("not in the sudoers")
        || text.contains("not allowed")
        || text.contains("may not run")) {
      return Reason.NOT_ALLOWED;
    }
    return answered > 0 && text.contains("incorrect password")
        ? Reason.WRONG_PASSWORD
        : Reason.FAILED;
  }

  /** What was said besides the prompts: the last line of it. */
  private synchronized String words() {
    ByteArrayOutputStream text = new ByteArrayOutputStream();
    text.writeBytes(said);
    String[] lines =
        text.toString(StandardCharsets.UTF_8).replace(promptMark(), "\n").strip().split("\n");
    return VisibleText.of(lines[lines.length - 1].strip());
  }
}
