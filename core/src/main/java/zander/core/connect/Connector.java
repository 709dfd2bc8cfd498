package zander.core.connect;

import java.io.Closeable;
import java.io.IOException;
import java.net.InetSocketAddress;
import java.security.KeyPair;
import java.time.Duration;
import java.util.EnumSet;
import java.util.List;
import java.util.Set;
import java.util.concurrent.CompletableFuture;
import org.apache.sshd.client.session.ClientSession;
import org.apache.sshd.client.session.ClientSession.ClientSessionEvent;
import org.apache.sshd.common.AttributeRepository;
import org.apache.sshd.common.config.keys.KeyUtils;
import zander.core.connect.ConnectFailure.Reason;
import zander.core.work.BlockingCalls;

/**
 * Opens connections: finds the host, checks its key against {@link KnownHosts}, proves the account,
 * and hands over a {@link Connection}. One for the program; safe for several threads.
 */
public final class Connector implements Closeable {
  private static final Duration REACH = Duration.ofSeconds(20);

  private final CompletableFuture<SshRuntime> runtime;
  private final KnownHosts knownHosts;
  private final HostLookup lookup;

  /** Starts building the SSH client on a background thread at once. */
  public Connector(KnownHosts knownHosts, HostLookup lookup) {
    this.knownHosts = knownHosts;
    this.lookup = lookup;
    this.runtime = CompletableFuture.supplyAsync(SshRuntime::start);
    this.runtime.thenRunAsync(WarmUp::run);
  }

  /**
   * Opens a connection and starts its file service. Waits for the network and for the person.
   *
   * @throws ConnectFailure with the step it failed at
   */
  public Connection open(ServerAddress address, SignInWays ways, SignInTalk talk)
      throws IOException {
    BlockingCalls.check("sign-in");
    Attempt attempt = new Attempt(address, ways, talk, knownHosts);
    ClientSession session = null;
    try {
      attempt.reach(SignInStep.NAME);
      List<InetSocketAddress> targets = lookup.find(address);
      attempt.reach(SignInStep.PORT);
      session = connectToAny(targets, attempt);
      awaitHostKey(session);
      attempt.reach(SignInStep.SIGN_IN);
      String keyType = offerKey(session, ways, attempt);
      session.auth().verify(CoreTimes.PATIENCE);
      attempt.reach(SignInStep.FILES);
      return Connection.over(session, address, attempt.hostKey(), keyType);
    } catch (IOException | RuntimeException e) {
      if (session != null) {
        session.close(true);
      }
      throw e instanceof ConnectFailure failure ? failure : attempt.explain(e);
    }
  }

  private ClientSession connectToAny(List<InetSocketAddress> targets, Attempt attempt)
      throws IOException {
    IOException last = null;
    for (InetSocketAddress target : targets) {
      try {
        return runtime
            .join()
            .client()
            .connect(
                attempt.address().account(),
                target,
                AttributeRepository.ofKeyValuePair(Attempt.KEY, attempt),
                null)
            .verify(REACH)
            .getSession();
      } catch (IOException e) {
        last = e;
      }
    }
    throw last == null ? new IOException("the name has no address") : last;
  }

  /** Returns once keys are exchanged and the host key was found right. */
  private static void awaitHostKey(ClientSession session) throws IOException {
    Set<ClientSessionEvent> events =
        session.waitFor(
            EnumSet.of(ClientSessionEvent.WAIT_AUTH, ClientSessionEvent.CLOSED),
            CoreTimes.PATIENCE);
    if (events.contains(ClientSessionEvent.CLOSED)
        || !events.contains(ClientSessionEvent.WAIT_AUTH)) {
      // The session's own error says why; this call only brings it out.
      session.auth().verify(Duration.ofSeconds(5));
      throw new IOException("the connection was closed");
    }
  }

  private static String offerKey(ClientSession session, SignInWays ways, Attempt attempt)
      throws ConnectFailure {
    session.setPublicKeyAuthenticationReporter(attempt);
    if (ways.keyFile() == null) {
      if (!ways.password()) {
        throw new ConnectFailure(
            SignInStep.SIGN_IN, Reason.NO_WAY_LEFT, attempt.address(), "no key chosen", null);
      }
      return "";
    }
    KeyPair pair = KeyFile.load(ways.keyFile(), attempt.address(), attempt.talk());
    session.addPublicKeyIdentity(pair);
    return new HostKey(KeyUtils.getKeyType(pair), new byte[0]).shortType();
  }

  @Override
  public void close() {
    runtime.thenAccept(SshRuntime::close);
  }
}
