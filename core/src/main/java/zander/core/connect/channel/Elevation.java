package zander.core.connect.channel;

import java.io.Closeable;
import java.util.Arrays;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import org.jspecify.annotations.Nullable;
import zander.core.phrase.AccountPhrase;
import zander.core.phrase.Phrase;
import zander.core.work.SecretBytes;

/**
 * The right to act as another account of a server: whom, by which program, and the password that it
 * asks for, kept in memory until this is closed. For any thread.
 */
public final class Elevation implements Closeable {
  /** Asks the person. */
  public interface PasswordPrompt {
    /**
     * Waits for the person.
     *
     * @param wrong how many were wrong so far
     * @return for this to wipe; {@code null} when they give up
     */
    char @Nullable [] password(int wrong);

    /**
     * Waits for the person to answer what a server asks besides a password, such as a code.
     *
     * @param question in the server's words
     * @return for this to wipe; {@code null} when they give up
     */
    default char @Nullable [] answer(String question) {
      return null;
    }
  }

  /** {@code su} asks once, however wrong the password is; {@code sudo} three times. */
  private static final int MOST_WRONG = 3;

  private final String account;
  private final WayUp way;
  private final PasswordPrompt prompt;
  private final Set<StartTalk> talks = ConcurrentHashMap.newKeySet();

  /**
   * Held while the person is asked; whoever ends the right, on the line's thread, does not wait.
   */
  private final Object asking = new Object();

  private byte @Nullable [] password;
  private int wrong;
  private boolean closed;

  /**
   * Nobody is asked for every file: with a code for each, there is one file service and no more.
   */
  private volatile boolean asksEachTime;

  private volatile boolean inTerminal;

  /**
   * @param account whom to act as, such as {@code root}
   */
  public Elevation(String account, PasswordPrompt prompt) {
    this(account, WayUp.SUDO, prompt);
  }

  public Elevation(String account, WayUp way, PasswordPrompt prompt) {
    this.account = account;
    this.way = way;
    this.prompt = prompt;
  }

  public String account() {
    return account;
  }

  public WayUp way() {
    return way;
  }

  /** Whether the server asked for more than a password, which it would ask for again each time. */
  public boolean asksEachTime() {
    return asksEachTime;
  }

  /**
   * Whether to begin anew after a failure: with another password, where the program has ended
   * because of the last one; or in a terminal, where it wants one.
   */
  public synchronized boolean mayTryAgain(ActFailure failure) {
    if (closed) {
      return false;
    }
    if (failure.reason() == ActFailure.Reason.WANTS_TERMINAL && !inTerminal) {
      inTerminal = true;
      return true;
    }
    return way != WayUp.SUDO && password == null && wrong > 0 && wrong < MOST_WRONG;
  }

  /** Whether the program on the way up runs in a terminal, and nowhere else. */
  public boolean isInTerminal() {
    return inTerminal;
  }

  /**
   * Why no commands are run by it; {@code null} where they are. What a terminal shows has no end
   * and no error stream of its own.
   */
  public @Nullable Phrase whyNoCommands() {
    if (asksEachTime) {
      return AccountPhrase.ASKS_EACH_TIME.of();
    }
    return inTerminal ? AccountPhrase.WANTS_A_TERMINAL.of() : null;
  }

  /** What is said until a program runs; one for each. */
  public StartTalk talk() {
    return new StartTalk(this);
  }

  /**
   * @throws ActFailure when the right has ended: nothing may be begun by it
   */
  synchronized void begins(StartTalk talk) throws ActFailure {
    if (closed) {
      throw new ActFailure(ActFailure.Reason.ENDED, AccountPhrase.RIGHT_ENDED.of());
    }
    talks.add(talk);
  }

  void ended(StartTalk talk) {
    talks.remove(talk);
  }

  /** The answer to a question that is not for the password; {@code null} when there is none. */
  byte @Nullable [] answer(String question) {
    asksEachTime = true;
    synchronized (asking) {
      char[] letters = prompt.answer(question);
      if (letters == null) {
        return null;
      }
      byte[] answer = SecretBytes.bytes(letters);
      SecretBytes.wipe(letters);
      return answer;
    }
  }

  /** The program has ended because of this password: it is never sent again. */
  synchronized void refused(byte[] sent) {
    if (Arrays.equals(sent, password)) {
      SecretBytes.wipe(password);
      password = null;
      wrong++;
    }
  }

  /**
   * The password for a prompt; the person is asked by one thread at a time.
   *
   * @param refused the one that was given to the same prompt before; {@code null} at first
   * @return for the caller to wipe; {@code null} when there is none
   */
  byte @Nullable [] passwordAfter(byte @Nullable [] refused) {
    synchronized (asking) {
      int wrongByNow;
      synchronized (this) {
        if (refused != null) {
          refused(refused);
        }
        if (password != null || closed) {
          return password == null ? null : password.clone();
        }
        wrongByNow = wrong;
      }
      char[] letters = prompt.password(wrongByNow);
      synchronized (this) {
        if (letters != null && !closed) {
          password = SecretBytes.bytes(letters);
        }
        SecretBytes.wipe(letters);
        return password == null ? null : password.clone();
      }
    }
  }

  /** Ends it: the password is wiped, what runs by it is closed, and nothing more is begun. */
  @Override
  public void close() {
    synchronized (this) {
      closed = true;
      SecretBytes.wipe(password);
      password = null;
    }
    talks.forEach(StartTalk::close);
  }
}
