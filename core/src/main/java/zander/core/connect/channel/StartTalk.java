package zander.core.connect.channel;

import java.io.IOException;
import java.io.OutputStream;
import java.time.Duration;
import java.util.Arrays;
import org.jspecify.annotations.Nullable;
import zander.core.connect.channel.ActFailure.Reason;
import zander.core.phrase.AccountPhrase;
import zander.core.phrase.Phrase;
import zander.core.work.SecretBytes;

/**
 * What is said on the error stream before a program runs as another account. {@code sudo} is told
 * to ask with a mark that nobody else can know, and the program to write another as it begins: a
 * password goes only where the first was seen, once for each, and nothing else is written to the
 * program before the second. A password that nobody asked for would become its input.
 *
 * <p>Other programs, and what a server asks besides a password, have no mark of ours: there, a line
 * that was begun and not ended is a question, once a third mark has told that the program on the
 * way up writes from now on.
 */
public final class StartTalk {
  /**
   * As long as a server may think about one password; a wrong one takes seconds (pam_faildelay).
   */
  private static final Duration PATIENCE = Duration.ofSeconds(60);

  /** After a line that was not ended: somebody waits for an answer. */
  private static final long QUIET = Duration.ofMillis(400).toNanos();

  private final Elevation elevation;
  private final StartText text;
  private int answered;
  private long lastSaid;
  private boolean started;
  private boolean ended;

  /** Closes what the program runs in. */
  private Runnable closing = () -> {};

  StartTalk(Elevation elevation) {
    this.elevation = elevation;
    this.text = new StartText(elevation.way());
  }

  public WayUp way() {
    return elevation.way();
  }

  /** Whether the program on the way up is to run in a terminal. */
  public boolean isInTerminal() {
    return elevation.isInTerminal();
  }

  /** The line to be written before the program on the way up is run. */
  public String upMark() {
    return text.upMark();
  }

  /** The text that {@code sudo} is to ask with. */
  public String promptMark() {
    return text.promptMark();
  }

  /** The line that the program is to write as it begins, where this hears it. */
  public String startMark() {
    return text.startMark();
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
  private synchronized byte @Nullable [] take(byte[] bytes, int offset, int length) {
    if (started) {
      return Arrays.copyOfRange(bytes, offset, offset + length);
    }
    lastSaid = System.nanoTime();
    byte[] left = text.add(bytes, offset, length);
    started = left != null;
    notifyAll();
    if (text.isTooLong()) {
      end();
    }
    return left;
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

  /** What the program on the way up wants; {@code null} for the password. */
  private record Asked(@Nullable String question) {}

  /**
   * Waits until the program runs, and answers each prompt once; the person may be asked meanwhile.
   *
   * @throws ActFailure when it does not get that far
   */
  public void await(Answer answer) throws IOException {
    byte[] refused = null;
    try {
      for (Asked asked; (asked = asked(refused)) != null; ) {
        if (asked.question != null) {
          byte[] answered = elevation.answer(asked.question);
          try {
            give(answered, refused, answer);
          } finally {
            SecretBytes.wipe(answered);
          }
          continue;
        }
        byte[] before = refused;
        refused = elevation.passwordAfter(before);
        try {
          give(refused, before, answer);
        } finally {
          SecretBytes.wipe(before);
        }
      }
    } finally {
      SecretBytes.wipe(refused);
    }
  }

  private void give(byte @Nullable [] secret, byte @Nullable [] refused, Answer answer)
      throws IOException {
    if (secret == null) {
      throw new ActFailure(
          refused == null ? Reason.GIVEN_UP : Reason.WRONG_PASSWORD, Phrase.quoted(words()));
    }
    byte[] line = Arrays.copyOf(secret, secret.length + 1);
    line[secret.length] = '\n';
    try {
      if (isWaiting()) {
        answer.give(line);
      }
    } finally {
      SecretBytes.wipe(line);
    }
  }

  /** Whoever was asked may think for longer than the server waits. */
  private synchronized boolean isWaiting() {
    return !started && !ended;
  }

  /**
   * Waits for the next prompt; {@code null} once the program runs.
   *
   * @param sent the last password that was given; {@code null} for none
   */
  private synchronized @Nullable Asked asked(byte @Nullable [] sent) throws IOException {
    long end = System.nanoTime() + PATIENCE.toNanos();
    try {
      while (!started && !ended && text.prompts() == answered) {
        long now = System.nanoTime();
        String question = text.openQuestion();
        boolean known = text.isForPassword(question);
        if (known && sent != null) {
          // These programs ask once: whatever asks now is what they have run.
          throw new ActFailure(Reason.FAILED, AccountPhrase.PASSWORD_ASKED_TWICE.of());
        }
        long quiet = known ? QUIET : now - lastSaid;
        if (!question.isEmpty() && quiet >= QUIET) {
          text.answered();
          return new Asked(known ? null : question);
        }
        if (now >= end) {
          throw new ActFailure(Reason.FAILED, AccountPhrase.NO_ANSWER_IN_A_MINUTE.of());
        }
        long until = question.isEmpty() ? end : Math.min(end, lastSaid + QUIET);
        wait(Math.max(1, (until - now + 999_999) / 1_000_000));
      }
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new IOException("interrupted", e);
    }
    if (started) {
      return null;
    }
    if (ended) {
      Reason why = text.why();
      if (why == Reason.WRONG_PASSWORD && sent != null) {
        elevation.refused(sent);
      }
      throw new ActFailure(why, Phrase.quoted(text.words()));
    }
    answered++;
    text.answered();
    return new Asked(null);
  }

  private synchronized String words() {
    return text.words();
  }
}
