package zander.core.connect.signin;

import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.time.Duration;
import java.util.EnumSet;
import java.util.List;
import java.util.Set;
import java.util.concurrent.ScheduledFuture;
import java.util.stream.Collectors;
import org.apache.sshd.client.SshClient;
import org.apache.sshd.client.session.ClientSession;
import org.apache.sshd.client.session.ClientSession.ClientSessionEvent;
import org.apache.sshd.common.AttributeRepository;
import org.jspecify.annotations.Nullable;
import zander.core.connect.address.HostLookup;
import zander.core.connect.address.ServerAddress;
import zander.core.connect.channel.Timeouts;
import zander.core.connect.keys.Agent;
import zander.core.connect.report.ConnectFailure;
import zander.core.connect.report.ConnectFailure.Reason;
import zander.core.connect.report.FailureReasons;
import zander.core.connect.report.SignInNote.Kind;
import zander.core.connect.report.SignInStep;
import zander.core.phrase.ExplainedException;
import zander.core.phrase.SignInPhrase;

/** Reaches one server, directly or through a jump host, and signs in there. */
public final class HostSignIn {
  /** Each needs a person who was asked, so this only bounds a server that always hangs up. */
  private static final int MOST_TRIES = 5;

  private final SshClient client;
  private final HostLookup lookup;
  private final @Nullable Agent agent;
  private final Watchdog watchdog;

  /**
   * @param agent {@code null} when none is running
   */
  public HostSignIn(SshClient client, HostLookup lookup, @Nullable Agent agent, Watchdog watchdog) {
    this.client = client;
    this.lookup = lookup;
    this.agent = agent;
    this.watchdog = watchdog;
  }

  /**
   * Up to a proven account; the session is closed when that fails.
   *
   * @param through a signed-in jump host, or {@code null}
   */
  public ClientSession signIn(SignInAttempt attempt, @Nullable ClientSession through)
      throws IOException {
    SignInAttempt now = attempt;
    for (int tries = 1; ; tries++) {
      try {
        ClientSession session = signInOnce(now, through, tries < MOST_TRIES);
        now.forgetLetters();
        return session;
      } catch (HungUp e) {
        now = now.again();
      }
    }
  }

  /** The server did not wait for what a person was asked, and has refused none of it. */
  private static final class HungUp extends IOException {
    HungUp(Exception cause) {
      super(cause);
    }
  }

  private ClientSession signInOnce(
      SignInAttempt attempt, @Nullable ClientSession through, boolean mayTryAgain)
      throws IOException {
    String command = attempt.hop().command();
    ClientSession session = null;
    ScheduledFuture<?> watch = null;
    try {
      session =
          through != null
              ? connectThrough(through, attempt)
              : command != null ? connectByCommand(attempt, command) : connectToAny(attempt);
      watch = watchdog.watch(session, attempt);
      awaitHostKey(session);
      attempt.reach(SignInStep.SIGN_IN);
      if (!attempt.hasOffers()) {
        offerKeys(attempt);
      }
      session.auth().verify(Timeouts.PATIENCE);
      return session;
    } catch (IOException | RuntimeException e) {
      if (session != null) {
        session.close(true);
      }
      if (mayTryAgain && attempt.wasNotWaitedFor()) {
        throw new HungUp(e);
      }
      attempt.forgetLetters();
      throw attempt.explain(e);
    } finally {
      if (watch != null) {
        watch.cancel(false);
      }
    }
  }

  private ClientSession connectToAny(SignInAttempt attempt) throws IOException {
    attempt.reach(SignInStep.NAME);
    List<InetSocketAddress> targets = lookup.find(attempt.address());
    attempt.note(
        Kind.FOUND,
        targets.stream().map(HostSignIn::plain).distinct().collect(Collectors.joining(", ")));
    attempt.reach(SignInStep.PORT);
    IOException last = new ExplainedException(SignInPhrase.NO_ADDRESS.of());
    for (InetSocketAddress target : targets) {
      try {
        attempt.note(Kind.OFFERED, SignInPhrase.PORT_OF.of(plain(target), target.getPort()));
        return connect(target, attempt);
      } catch (IOException e) {
        attempt.note(Kind.REFUSED, SignInPhrase.ABOUT.of(plain(target), FailureReasons.phrase(e)));
        last = e;
      }
    }
    throw last;
  }

  private static String plain(InetSocketAddress target) {
    return target.isUnresolved() ? target.getHostString() : target.getAddress().getHostAddress();
  }

  private ClientSession connectThrough(ClientSession through, SignInAttempt attempt)
      throws IOException {
    attempt.reach(SignInStep.NAME);
    ServerAddress jump = SignInAttempt.of(through).address();
    attempt.note(Kind.FOUND, SignInPhrase.LEFT_TO.of(jump.host()));
    attempt.reach(SignInStep.PORT);
    return connectOver(JumpTunnel.open(through, attempt.address()), attempt);
  }

  private ClientSession connectOver(LoopbackLine.FarEnd far, SignInAttempt attempt)
      throws IOException {
    LoopbackLine line;
    try {
      line = LoopbackLine.to(far);
    } catch (IOException e) {
      far.close();
      throw e;
    }
    try {
      ClientSession session = connect(line.address(), attempt);
      session.addCloseFutureListener(closed -> line.close());
      line.connected(session.getIoSession().getLocalAddress());
      return session;
    } catch (IOException | RuntimeException e) {
      line.close();
      throw e;
    }
  }

  /** The command finds the server, and says why when it does not. */
  private ClientSession connectByCommand(SignInAttempt attempt, String command) throws IOException {
    attempt.reach(SignInStep.NAME);
    attempt.note(Kind.FOUND, SignInPhrase.LEFT_TO_A_COMMAND.of());
    attempt.reach(SignInStep.PORT);
    attempt.note(Kind.OFFERED, command);
    if (!attempt.asking(() -> attempt.talk().mayRun(attempt.address(), command))) {
      throw new ConnectFailure(
          SignInStep.PORT,
          Reason.GIVEN_UP,
          attempt.address(),
          SignInPhrase.COMMAND_NOT_ALLOWED.of(),
          null);
    }
    CommandTunnel tunnel = CommandTunnel.start(command);
    ClientSession session = connectOver(tunnel, attempt);
    session.addCloseFutureListener(
        closed -> {
          if (!session.isAuthenticated()) {
            tunnel.onLastWords(words -> attempt.note(Kind.REFUSED, words));
          }
        });
    return session;
  }

  private ClientSession connect(InetSocketAddress found, SignInAttempt attempt) throws IOException {
    // Without its name, which the library would look up once more, and take the first answer to.
    InetSocketAddress target =
        found.isUnresolved()
            ? found
            : new InetSocketAddress(
                InetAddress.getByAddress(found.getAddress().getAddress()), found.getPort());
    return client
        .connect(
            attempt.address().account(),
            target,
            AttributeRepository.ofKeyValuePair(SignInAttempt.KEY, attempt),
            null)
        .verify(watchdog.patience())
        .getSession();
  }

  /** Returns once keys are exchanged and the host key was found right. */
  private static void awaitHostKey(ClientSession session) throws IOException {
    Set<ClientSessionEvent> events =
        session.waitFor(
            EnumSet.of(ClientSessionEvent.WAIT_AUTH, ClientSessionEvent.CLOSED), Timeouts.PATIENCE);
    if (events.contains(ClientSessionEvent.CLOSED)
        || !events.contains(ClientSessionEvent.WAIT_AUTH)) {
      // The session's own error says why; this call only brings it out.
      session.auth().verify(Duration.ofSeconds(5));
      throw new ExplainedException(SignInPhrase.CLOSED.of());
    }
  }

  private void offerKeys(SignInAttempt attempt) throws IOException {
    SignInMethods ways = attempt.hop().ways();
    List<KeyOffer> offers = attempt.asking(() -> KeyOffers.prepare(ways, attempt, agent));
    if (offers.isEmpty() && !ways.password()) {
      throw new ConnectFailure(
          SignInStep.SIGN_IN,
          Reason.NO_WAY_LEFT,
          attempt.address(),
          (ways.agent() ? SignInPhrase.AGENT_EMPTY : SignInPhrase.NO_KEY_CHOSEN).of(),
          null);
    }
    attempt.setOffers(offers);
  }
}
