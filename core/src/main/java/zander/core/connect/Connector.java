package zander.core.connect;

import static java.util.Objects.requireNonNull;

import java.io.Closeable;
import java.io.IOException;
import java.time.Duration;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ScheduledFuture;
import org.apache.sshd.client.session.ClientSession;
import org.jspecify.annotations.Nullable;
import zander.core.connect.address.HostLookup;
import zander.core.connect.address.ServerAddress;
import zander.core.connect.channel.SessionPool;
import zander.core.connect.keys.Agent;
import zander.core.connect.report.ConnectFailure;
import zander.core.connect.report.SignInNote;
import zander.core.connect.report.SignInStep;
import zander.core.connect.signin.Hop;
import zander.core.connect.signin.HostSignIn;
import zander.core.connect.signin.HostTrust;
import zander.core.connect.signin.SignInAttempt;
import zander.core.connect.signin.SignInMethods;
import zander.core.connect.signin.SignInPrompt;
import zander.core.connect.signin.Watchdog;
import zander.core.trust.KnownHosts;
import zander.core.work.BlockingCalls;

/**
 * Opens connections: finds the host, checks its key against {@link KnownHosts}, proves the account,
 * and hands over a {@link Connection}. One for the program; safe for several threads.
 */
public final class Connector implements Closeable {
  /** A server that is silent for longer, while nobody is being asked, is given up. */
  private static final Duration USUAL_PATIENCE = Duration.ofSeconds(20);

  private final CompletableFuture<SshRuntime> runtime;
  private final KnownHosts knownHosts;
  private final HostLookup lookup;
  private final @Nullable Agent agent;
  private final Watchdog watchdog;
  private volatile boolean begun;

  /** With the agent that is running, if one is. */
  public Connector(KnownHosts knownHosts, HostLookup lookup) {
    this(knownHosts, lookup, Agent.running().orElse(null), USUAL_PATIENCE);
  }

  /**
   * Starts building the SSH client on a background thread at once.
   *
   * @param agent {@code null} for none
   * @param patience how long a server may be silent
   */
  public Connector(
      KnownHosts knownHosts, HostLookup lookup, @Nullable Agent agent, Duration patience) {
    this.knownHosts = knownHosts;
    this.lookup = lookup;
    this.agent = agent;
    this.watchdog = new Watchdog(patience);
    this.runtime = CompletableFuture.supplyAsync(SshRuntime::start);
    this.runtime.thenRunAsync(() -> WarmUp.run(() -> begun));
  }

  /** How computers are found by name from here. */
  public HostLookup lookup() {
    return lookup;
  }

  public KnownHosts knownHosts() {
    return knownHosts;
  }

  /** Opens a connection without a jump host, landing in the home folder. */
  public Connection open(ServerAddress address, SignInMethods ways, SignInPrompt talk)
      throws IOException {
    return open(List.of(new Hop(address, ways)), null, talk);
  }

  /**
   * Opens a connection, starts its file service and reads the folder to land in. Waits for the
   * network and for the person.
   *
   * @param route the jump hosts in their order, the goal last; at least one
   * @param landing the absolute path of the folder to read first; {@code null} for home
   * @throws ConnectFailure with the server and the step it failed at
   */
  public Connection open(List<Hop> route, @Nullable String landing, SignInPrompt talk)
      throws IOException {
    BlockingCalls.check("sign-in");
    begun = true;
    long began = System.nanoTime();
    ClientSession session = reach(route, talk, began);
    SignInAttempt attempt = SignInAttempt.of(session);
    ScheduledFuture<?> watch = watchdog.watch(session, attempt);
    try {
      attempt.reach(SignInStep.FILES);
      SessionPool lines = new SessionPool(session, () -> reach(route, talk, System.nanoTime()));
      return new Connection(lines, landing);
    } catch (IOException | RuntimeException e) {
      session.close(true);
      throw attempt.explain(e);
    } finally {
      watch.cancel(false);
    }
  }

  /** Signs in at every hop; closing the last session closes the ones before it. */
  private ClientSession reach(List<Hop> route, SignInPrompt talk, long began) throws IOException {
    HostSignIn dial = new HostSignIn(runtime.join().client(), lookup, agent, watchdog);
    ClientSession before = null;
    for (Hop hop : route) {
      ClientSession jump = before;
      if (jump != null) {
        SignInAttempt.of(jump).note(SignInNote.Kind.DONE, "");
      }
      try {
        before = dial.signIn(new SignInAttempt(hop, talk, new HostTrust(knownHosts), began), jump);
      } catch (IOException e) {
        if (jump != null) {
          jump.close(true);
        }
        throw e;
      }
      if (jump != null) {
        before.addCloseFutureListener(closed -> jump.close(true));
      }
    }
    return requireNonNull(before, "a route has a goal");
  }

  @Override
  public void close() {
    watchdog.close();
    runtime.thenAccept(SshRuntime::close);
  }
}
