package zander.core.connect.signin;

import java.io.IOException;
import java.security.PublicKey;
import java.time.Duration;
import java.util.List;
import java.util.Objects;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.atomic.AtomicLong;
import java.util.function.IntFunction;
import org.apache.sshd.client.session.ClientSession;
import org.apache.sshd.common.AttributeRepository;
import org.apache.sshd.common.session.Session;
import org.jspecify.annotations.Nullable;
import zander.core.connect.address.ServerAddress;
import zander.core.connect.keys.KeyFailure;
import zander.core.connect.report.ConnectFailure;
import zander.core.connect.report.ConnectFailure.Reason;
import zander.core.connect.report.FailureReasons;
import zander.core.connect.report.SignInNote;
import zander.core.connect.report.SignInNote.Kind;
import zander.core.connect.report.SignInStep;
import zander.core.files.sftp.channel.FileServiceMissing;
import zander.core.phrase.Phrase;
import zander.core.phrase.SignInPhrase;
import zander.core.work.BlockingCalls;

/**
 * One attempt to reach and enter one server: what it is for, how far it got, what was offered and
 * answered, and what was learnt of a failure. The library's callbacks find it in the session's
 * context.
 */
public final class SignInAttempt {
  static final AttributeRepository.AttributeKey<SignInAttempt> KEY =
      new AttributeRepository.AttributeKey<>();

  private static final int MOST_REFUSED = 3;

  /** No server hangs up sooner; a key that signs by itself is no thought. */
  private static final Duration LONG_THOUGHT = Duration.ofSeconds(1);

  private final Hop hop;
  private final SignInPrompt talk;
  private final HostTrust trust;
  private final long began;
  private final AtomicInteger asking = new AtomicInteger();
  private final AtomicLong thought = new AtomicLong();
  private volatile long lastSign = System.nanoTime();
  private volatile SignInStep step = SignInStep.NAME;
  private volatile @Nullable ConnectFailure failure;
  private volatile String disconnectText = "";
  private volatile String banner = "";
  private volatile @Nullable Throwable trouble;
  private volatile boolean timedOut;

  private List<KeyOffer> offers = List.of();
  private int nextOffer;
  private volatile @Nullable KeyOffer pending;
  private volatile @Nullable KeyOffer taken;
  private volatile boolean keyRefused;
  private volatile int lettersRefused;
  private volatile boolean lettersPending;

  /** Sent and not answered yet, or to be sent unasked when the server is dialled again. */
  private volatile @Nullable PendingAnswers given;

  private volatile @Nullable PendingAnswers carried;

  /** Whether somebody was asked, and the server has answered nothing since. */
  private volatile boolean silentSinceThought;

  private volatile boolean partly;

  /**
   * @param began when the whole sign-in began, by {@link System#nanoTime}
   */
  public SignInAttempt(Hop hop, SignInPrompt talk, HostTrust trust, long began) {
    this.hop = hop;
    this.talk = talk;
    this.trust = trust;
    this.began = began;
  }

  /** The attempt that a session of ours was begun with. */
  public static SignInAttempt of(Session session) {
    return Objects.requireNonNull(ofOrNull(session), "a session without its attempt");
  }

  /** The same; {@code null} for a session that does not know it yet. */
  public static @Nullable SignInAttempt ofOrNull(Session session) {
    AttributeRepository context = ((ClientSession) session).getConnectionContext();
    return context == null ? null : context.getAttribute(KEY);
  }

  public ServerAddress address() {
    return hop.address();
  }

  public Hop hop() {
    return hop;
  }

  SignInPrompt talk() {
    return talk;
  }

  public HostTrust trust() {
    return trust;
  }

  public void reach(SignInStep next) {
    if (next == SignInStep.NAME) {
      note(Kind.BEGUN, "");
    } else if (next.compareTo(step) > 0) {
      note(Kind.DONE, "");
      step = next;
      note(Kind.BEGUN, "");
    }
  }

  public SignInStep step() {
    return step;
  }

  /** The words of a server, a name or a fingerprint; may be empty. */
  public void note(Kind kind, String fact) {
    note(kind, Phrase.quoted(fact));
  }

  public void note(Kind kind, Phrase fact) {
    lastSign = System.nanoTime();
    // The time that a person thought is not the server's.
    Duration at = Duration.ofNanos(lastSign - began - thought.get());
    talk.noted(new SignInNote(hop.address(), step, kind, fact, at));
  }

  /** What the server has to say to whoever signs in. */
  public void banner(String text) {
    if (!text.isBlank()) {
      banner = text;
      note(Kind.BANNER, text);
    }
  }

  public String banner() {
    return banner;
  }

  /** Work that may wait for a person. */
  interface Asking<T> {
    T ask() throws IOException;
  }

  /** Asks the person; meanwhile no server is blamed for the silence. */
  <T> T asking(Asking<T> question) throws IOException {
    asking.incrementAndGet();
    long begun = System.nanoTime();
    try {
      return BlockingCalls.allowing(question::ask);
    } finally {
      lastSign = System.nanoTime();
      thought.addAndGet(lastSign - begun);
      silentSinceThought |= lastSign - begun > LONG_THOUGHT.toNanos();
      asking.decrementAndGet();
    }
  }

  /** Whether the server has been silent for longer than is borne, while nobody is being asked. */
  boolean isStalled(Duration patience) {
    return asking.get() == 0 && System.nanoTime() - lastSign > patience.toNanos();
  }

  void timedOut() {
    timedOut = true;
  }

  /** Decides on the host key; called before anything secret goes over the line. */
  public boolean verify(PublicKey key) {
    reach(SignInStep.HOST_KEY);
    try {
      BlockingCalls.allowing(
          () -> {
            failure = trust.judge(key, this);
            return true;
          });
    } catch (IOException e) {
      failure =
          new ConnectFailure(SignInStep.HOST_KEY, Reason.FAILED, hop.address(), trust.file(e), e);
    }
    return failure == null;
  }

  void setOffers(List<KeyOffer> prepared) {
    offers = prepared;
  }

  boolean hasOffers() {
    return !offers.isEmpty();
  }

  boolean hasReadyOffer() {
    return !offers.isEmpty() && offers.get(0).signer().isReady();
  }

  /** The next key to offer, noted; {@code null} when none is left or the person gave up. */
  @Nullable KeyOffer nextOffer() {
    if (failure != null || nextOffer == offers.size()) {
      return null;
    }
    KeyOffer next = offers.get(nextOffer++);
    pending = next;
    note(Kind.OFFERED, SignInPhrase.OFFERED_KEY.of(next.name(), next.key()));
    return next;
  }

  @Nullable KeyOffer pendingOffer() {
    return pending;
  }

  /** A key that failed in our own hands ends the sign-in, unless something else can be tried. */
  boolean couldNotSign(IOException e) throws IOException {
    note(Kind.REFUSED, SignInPhrase.ABOUT.of(Objects.requireNonNull(pending).name(), Phrase.of(e)));
    pending = null;
    boolean more = nextOffer < offers.size() || hop.ways().password();
    if (!more && e instanceof KeyFailure trouble) {
      failure = ConnectFailure.of(trouble, hop.address());
    }
    return false;
  }

  /** The key by which the server let us in; {@code null} when it was not a key. */
  public @Nullable KeyOffer taken() {
    return taken;
  }

  /** Whether a password or answers may be asked for, and were not wrong too often. */
  boolean mayTryLetters() {
    return failure == null && hop.ways().password() && lettersRefused < MOST_REFUSED;
  }

  /**
   * Asks for letters, told how many were refused before; what was given for the same question to a
   * server that had hung up is taken without asking again.
   *
   * @param way the method's name, for the notes
   * @param prompts what the server asks; none for a password
   * @return to be wiped by the caller; {@code null} when the person gave up
   */
  List<char[]> askingLetters(String way, List<String> prompts, IntFunction<List<char[]>> question)
      throws IOException {
    PendingAnswers again = carried;
    carried = null;
    List<char[]> letters;
    if (again != null && again.answers(way, prompts)) {
      letters = again.copy();
      again.wipe();
    } else {
      letters = asking(() -> question.apply(lettersRefused));
    }
    if (letters != null) {
      given = PendingAnswers.of(way, prompts, letters);
      lettersPending = true;
      note(Kind.OFFERED, way);
    }
    return letters;
  }

  /** The server has said something: it was there when what was given last was sent. */
  void answered() {
    silentSinceThought = false;
    forgetGiven();
  }

  private void forgetGiven() {
    PendingAnswers last = given;
    given = null;
    if (last != null) {
      last.wipe();
    }
  }

  /** Wipes what was kept for dialling again. */
  void forgetLetters() {
    forgetGiven();
    PendingAnswers last = carried;
    carried = null;
    if (last != null) {
      last.wipe();
    }
  }

  /**
   * Whether the server hung up while somebody was thinking (sshd's LoginGraceTime), so that nothing
   * of what they gave was refused.
   */
  boolean wasNotWaitedFor() {
    return silentSinceThought && failure == null && disconnectText.isEmpty() && !timedOut;
  }

  /** The same attempt once more, with what the person gave. */
  SignInAttempt again() {
    SignInAttempt next =
        new SignInAttempt(hop, talk, new HostTrust(trust.knownHosts()), began + thought.get());
    next.offers = offers;
    next.carried = given;
    next.lettersRefused = lettersRefused;
    given = null;
    next.note(Kind.FOUND, SignInPhrase.HUNG_UP_MEANWHILE.of());
    return next;
  }

  void passwordExpired() {
    failure =
        new ConnectFailure(
            SignInStep.SIGN_IN,
            Reason.PASSWORD_EXPIRED,
            hop.address(),
            SignInPhrase.NEW_PASSWORD_WANTED.of(),
            null);
  }

  void refused(List<String> methods, boolean partial) {
    Kind kind = partial ? Kind.TAKEN : Kind.REFUSED;
    answered();
    if (pending != null) {
      keyRefused |= !partial;
      taken = partial ? pending : taken;
      note(kind, pending.name());
      pending = null;
    } else if (lettersPending) {
      note(kind, "");
      lettersPending = false;
      lettersRefused = partial ? 0 : lettersRefused + 1;
    }
    if (partial) {
      partly = true;
      note(Kind.FOUND, SignInPhrase.WANTS_MORE.of(String.join(", ", methods)));
    }
  }

  void accepted() {
    answered();
    if (pending != null) {
      taken = pending;
    }
  }

  ConnectFailure giveUp() {
    failure =
        new ConnectFailure(step, Reason.GIVEN_UP, hop.address(), SignInPhrase.GIVEN_UP.of(), null);
    return failure;
  }

  public void disconnected(String text) {
    disconnectText = text == null ? "" : text;
  }

  /** The session's own first trouble says more than what comes of it. */
  public void troubled(Throwable cause) {
    if (trouble == null) {
      trouble = cause;
    }
  }

  /** Puts what is known about a failure into one with a step and a reason. */
  public ConnectFailure explain(Throwable thrown) {
    ConnectFailure explained = failure;
    Throwable first = step.compareTo(SignInStep.SIGN_IN) < 0 ? trouble : null;
    Throwable cause = first != null && !(thrown instanceof ConnectFailure) ? first : thrown;
    if (cause instanceof ConnectFailure already) {
      explained = already;
    } else if (explained == null && cause instanceof KeyFailure trouble) {
      explained = ConnectFailure.of(trouble, hop.address());
    } else if (explained == null) {
      String said =
          cause instanceof FileServiceMissing missing && !missing.printed().isEmpty()
              ? missing.printed()
              : disconnectText;
      Phrase told = said.isEmpty() ? FailureReasons.phrase(cause) : Phrase.quoted(said);
      Reason why = reason(cause, said.isEmpty() ? FailureReasons.plain(cause) : said);
      explained = new ConnectFailure(step, why, hop.address(), told, cause);
    }
    note(
        Kind.FAILED,
        explained.reason() == Reason.GIVEN_UP ? Phrase.quoted("") : explained.phrase());
    return explained;
  }

  private Reason reason(Throwable cause, String detail) {
    if (timedOut) {
      return Reason.TIMED_OUT;
    }
    String lower = detail.toLowerCase(java.util.Locale.ROOT);
    return switch (step) {
      case FILES, SHELL -> FailureReasons.afterSignIn(cause, lower);
      case SIGN_IN -> FailureReasons.atSignIn(lower, lettersRefused > 0, partly, keyRefused);
      default -> FailureReasons.beforeSignIn(step, cause, lower);
    };
  }
}
