package zander.desk.line;

import static java.util.Objects.requireNonNull;

import java.net.InetAddress;
import java.net.NetworkInterface;
import java.net.SocketException;
import java.time.Duration;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.Future;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.function.Supplier;
import javafx.beans.property.ReadOnlyBooleanProperty;
import javafx.beans.property.ReadOnlyBooleanWrapper;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.beans.property.ReadOnlyStringProperty;
import javafx.beans.property.ReadOnlyStringWrapper;
import org.jspecify.annotations.Nullable;
import zander.core.connect.Connection;
import zander.core.connect.report.ConnectFailure;
import zander.desk.reach.SignInRunner;
import zander.desk.sheet.Texts;
import zander.desk.words.Words;
import zander.desk.work.Background;
import zander.desk.work.FailureWords;
import zander.desk.work.Message;

/**
 * Keeps the line of a desk alive: measures its delay, notices when it died (also after the computer
 * slept, or when its network changed), and opens it again with growing pauses, without asking
 * anybody. What needs a person waits for one.
 */
public final class LineKeeper {
  private static final Words WORDS = Words.of(LineKeeper.class);

  private static final List<Integer> PAUSES = List.of(500, 1000, 2000, 4000, 8000, 15_000, 30_000);
  private static final Duration LOOK = Duration.ofSeconds(1);
  private static final Duration MEASURE = Duration.ofSeconds(2);

  /** A server that is silent for longer while something is asked is told of. */
  private static final Duration SILENT = Duration.ofSeconds(4);

  private static final Duration SLEPT = Duration.ofSeconds(20);
  private static final Duration PROOF = Duration.ofSeconds(5);

  /** Signs in again. */
  public interface Again {
    void signIn(boolean unattended, SignInRunner.Outcome outcome);
  }

  private final Background background;
  private final Again again;
  private final Runnable onBack;
  private final ReadOnlyObjectWrapper<Long> delay = new ReadOnlyObjectWrapper<>();
  private final ReadOnlyBooleanWrapper away = new ReadOnlyBooleanWrapper(false);
  private final ReadOnlyBooleanWrapper trying = new ReadOnlyBooleanWrapper(false);
  private final ReadOnlyStringWrapper words = new ReadOnlyStringWrapper("");
  private final AtomicBoolean measuring = new AtomicBoolean();
  private final ReadOnlyStringWrapper silence = new ReadOnlyStringWrapper("");
  private final Supplier<String> waitsFor;

  // Of the clock's thread.
  private long lastMeasured;
  private long lastHeard;
  private int arrivals;
  private final Future<?> looking;
  private volatile @Nullable Connection connection;
  private volatile CompletableFuture<Boolean> back = CompletableFuture.completedFuture(true);
  private @Nullable Future<?> next;
  private int tries;
  private boolean ended;
  private long lastLook = System.currentTimeMillis();

  /**
   * @param waitsFor what the desk waits for by now, in words such as {@code the listing of /srv};
   *     asked on the interface thread
   */
  public LineKeeper(
      Background background, Again again, Runnable onBack, Supplier<String> waitsFor) {
    this.background = background;
    this.waitsFor = waitsFor;
    this.again = again;
    this.onBack = onBack;
    this.looking = background.every(LOOK, () -> look(System.currentTimeMillis()));
  }

  public void take(SignInRunner.Opened opened) {
    Connection fresh = opened.connection();
    connection = fresh;
    tries = 0;
    trying.set(false);
    away.set(false);
    words.set("");
    silence.set("");
    back.complete(true);
    fresh.onEnd(() -> background.show(() -> lost(fresh)));
    measure(fresh);
  }

  /** One measurement at a time: on a line that says nothing, it waits. */
  private void measure(Connection on) {
    if (!measuring.compareAndSet(false, true)) {
      return;
    }
    background.run(
        () -> {
          try {
            return on.delay().toMillis();
          } finally {
            measuring.set(false);
          }
        },
        delay::set,
        failure -> delay.set(null));
  }

  /** The one that was taken last; there is one from the start of a desk on. */
  Connection connection() {
    return requireNonNull(connection, "a line was taken");
  }

  /**
   * Proves the line when the computer slept, so that more time passed than between two looks, or
   * when its network changed.
   *
   * @param now by the clock on the wall, in milliseconds: the other one stands still in sleep
   */
  public void look(long now) {
    boolean slept = now - lastLook > SLEPT.toMillis() + LOOK.toMillis();
    lastLook = now;
    Connection on = connection;
    if (on == null || !on.isOpen()) {
      return;
    }
    if (slept || !isHere(on.localEnd())) {
      background.run(() -> on.prove(PROOF));
      return;
    }
    long clock = System.nanoTime();
    lookForSilence(on, clock);
    if (clock - lastMeasured >= MEASURE.toNanos() && !measuring.get()) {
      lastMeasured = clock;
      measure(on);
    }
  }

  /** Something is asked, the measurement if nothing else, and nothing at all comes. */
  private void lookForSilence(Connection on, long clock) {
    int now = on.arrivals();
    if (now != arrivals || !measuring.get()) {
      arrivals = now;
      lastHeard = clock;
    }
    long silent = clock - lastHeard;
    background.show(
        () -> {
          boolean tell = silent >= SILENT.toNanos() && on == connection && !away.get();
          silence.set(
              tell
                  ? WORDS.say(
                      "theServerHasNot", TimeUnit.NANOSECONDS.toSeconds(silent), waitsFor.get())
                  : "");
        });
  }

  /** Gives a silent line up and opens it again. */
  public void dropNow() {
    Connection on = connection();
    background.run(on::drop);
  }

  /** That the server is silent, and what is waited for; empty while it answers. */
  public ReadOnlyStringProperty silenceProperty() {
    return silence.getReadOnlyProperty();
  }

  private static boolean isHere(@Nullable InetAddress end) {
    try {
      return end == null || NetworkInterface.getByInetAddress(end) != null;
    } catch (SocketException e) {
      return true;
    }
  }

  /** Looks whether the line is still there after something failed. */
  public void check() {
    Connection on = connection();
    if (on.isOpen()) {
      background.run(() -> on.prove(PROOF));
    } else {
      lost(on);
    }
  }

  private void lost(Connection which) {
    if (ended || which != connection || away.get()) {
      return;
    }
    back = new CompletableFuture<>();
    away.set(true);
    silence.set("");
    trying.set(true);
    pause();
  }

  private void pause() {
    int milliseconds = PAUSES.get(Math.min(tries, PAUSES.size() - 1));
    words.set(
        tries == 0
            ? WORDS.say("theConnectionBroke")
            : WORDS.say(
                "stillAwayAfterNext",
                tries == 1 ? WORDS.say("oneTry") : WORDS.say("tries", tries),
                Texts.timeLeft(Math.max(1, milliseconds / 1000))));
    next = background.later(Duration.ofMillis(milliseconds), () -> tryAgain(true));
  }

  private void tryAgain(boolean unattended) {
    if (ended || !away.get()) {
      return;
    }
    tries++;
    words.set(WORDS.say("connectingAgainTry", tries));
    again.signIn(unattended, new SignInRunner.Outcome(this::cameBack, this::failedAgain));
  }

  private void cameBack(SignInRunner.Opened opened) {
    if (ended) {
      background.run(opened.connection()::close);
      return;
    }
    take(opened);
    onBack.run();
  }

  private void failedAgain(SignInRunner.Failed failed) {
    Message said = FailureWords.of(failed.cause());
    if (failed.needsSomebody()) {
      giveUpTrying(WORDS.say("theConnectionBrokeConnecting"));
    } else if (isOfTheNetwork(failed.cause()) && trying.get()) {
      pause();
    } else {
      giveUpTrying(said.headline() + ". " + said.detail());
    }
  }

  private static boolean isOfTheNetwork(Throwable cause) {
    return cause instanceof ConnectFailure failure
        && switch (failure.reason()) {
          case UNKNOWN_HOST,
              REFUSED,
              TIMED_OUT,
              UNREACHABLE,
              JUMP_REFUSED,
              NOT_SSH,
              CLOSED_BY_SERVER,
              NO_FILE_SERVICE,
              FAILED ->
              true;
          default -> false;
        };
  }

  private void giveUpTrying(String why) {
    trying.set(false);
    words.set(why);
  }

  /** Tries now; whatever has to be asked is asked. */
  public void tryNow() {
    if (away.get()) {
      if (next != null) {
        next.cancel(false);
      }
      trying.set(true);
      tryAgain(false);
    }
  }

  /** Stays away until somebody wants otherwise. */
  public void stopTrying() {
    if (next != null) {
      next.cancel(false);
    }
    giveUpTrying(WORDS.say("awayWhatYouSee"));
  }

  /**
   * Waits until the line is back; for threads that may.
   *
   * @return false when the desk was closed
   */
  public boolean awaitBack() {
    Connection on = connection();
    if (!on.prove(PROOF)) {
      CompletableFuture<Void> noticed = new CompletableFuture<>();
      background.show(
          () -> {
            lost(on);
            noticed.complete(null);
          });
      noticed.join();
    }
    return back.join();
  }

  public void end() {
    ended = true;
    looking.cancel(false);
    if (next != null) {
      next.cancel(false);
    }
    back.complete(false);
    Connection last = connection();
    background.run(last::close);
  }

  /** Milliseconds for a round trip, or {@code null} while not known. */
  public ReadOnlyObjectProperty<Long> delayProperty() {
    return delay.getReadOnlyProperty();
  }

  /** Whether the connection is gone and what is shown is as it was. */
  public ReadOnlyBooleanProperty awayProperty() {
    return away.getReadOnlyProperty();
  }

  /** Whether it is being opened again by itself. */
  public ReadOnlyBooleanProperty tryingProperty() {
    return trying.getReadOnlyProperty();
  }

  /** How it stands with a line that is away. */
  public ReadOnlyStringProperty wordsProperty() {
    return words.getReadOnlyProperty();
  }
}
