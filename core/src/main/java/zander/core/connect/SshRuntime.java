package zander.core.connect;

import java.io.Closeable;
import java.io.IOException;
import java.net.InetSocketAddress;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.apache.sshd.client.ClientBuilder;
import org.apache.sshd.client.SshClient;
import org.apache.sshd.client.config.hosts.HostConfigEntryResolver;
import org.apache.sshd.client.session.ClientConnectionServiceFactory;
import org.apache.sshd.client.session.ClientSessionImpl;
import org.apache.sshd.client.session.SessionFactory;
import org.apache.sshd.common.channel.ChannelFactory;
import org.apache.sshd.common.io.IoSession;
import org.apache.sshd.common.kex.KexProposalOption;
import org.apache.sshd.common.keyprovider.KeyIdentityProvider;
import org.apache.sshd.common.session.Session;
import org.apache.sshd.common.session.SessionListener;
import org.apache.sshd.core.CoreModuleProperties;
import zander.core.connect.channel.DirectSocketWriter;
import zander.core.connect.channel.GuardedSession;
import zander.core.connect.channel.OfferedAlgorithms;
import zander.core.connect.report.SignInNote;
import zander.core.connect.report.SignInStep;
import zander.core.connect.signin.AuthMethod;
import zander.core.connect.signin.KeyboardInteractiveAuth;
import zander.core.connect.signin.PasswordAuth;
import zander.core.connect.signin.PublicKeyAuth;
import zander.core.connect.signin.SignInAttempt;
import zander.core.connect.signin.SignInService;
import zander.core.work.BlockingCalls;

/**
 * The one SSH client object of the program, set up for speed and for being in charge of trust, keys
 * and configuration itself. Building it loads providers and algorithms and takes a second the first
 * time: {@link #start} it early, on a background thread.
 */
final class SshRuntime implements Closeable {
  private static final long WINDOW = 16L << 20;

  /**
   * Keys are exchanged anew after an hour, or before a cipher with blocks of 16 bytes has made as
   * many of them as RFC 4344, section 3.2, lets one key make. The library counts those; its limit
   * of 1 GiB beside that (RFC 4253, section 9) is for smaller blocks. Each exchange holds up a
   * large file, and loads the processor when it is a post-quantum one.
   */
  private static final long BYTES_BY_ONE_KEY = 64L << 30;

  /** Several packets are read by one call; the session takes them one by one. */
  private static final int READ_AT_ONCE = 128 * 1024;

  private static final Duration KEEP_ALIVE = Duration.ofSeconds(10);

  private final SshClient client;

  private SshRuntime(SshClient client) {
    this.client = client;
  }

  SshClient client() {
    return client;
  }

  static SshRuntime start() {
    SshClient client = ClientBuilder.builder().build();
    client.setIoServiceFactoryFactory(new DirectSocketWriter());
    OfferedAlgorithms.offerSafe(client);
    client.setServerKeyVerifier(
        (session, peer, key) -> {
          SignInAttempt attempt = SignInAttempt.ofOrNull(session);
          return attempt != null && attempt.verify(key);
        });
    client.setKeyIdentityProvider(KeyIdentityProvider.EMPTY_KEYS_PROVIDER);
    client.setHostConfigEntryResolver(HostConfigEntryResolver.EMPTY);
    client.setUserAuthFactories(
        List.of(
            AuthMethod.factory(PublicKeyAuth.NAME, PublicKeyAuth::new),
            AuthMethod.factory(KeyboardInteractiveAuth.NAME, KeyboardInteractiveAuth::new),
            AuthMethod.factory(PasswordAuth.NAME, PasswordAuth::new)));
    client.setServiceFactories(
        List.of(new SignInService.Factory(), ClientConnectionServiceFactory.INSTANCE));
    List<ChannelFactory> channels = new ArrayList<>(client.getChannelFactories());
    channels.add(AgentForwardChannel.factory());
    client.setChannelFactories(channels);
    client.addSessionListener(new Watcher());
    client.setSessionFactory(new Sessions(client));
    CoreModuleProperties.TCP_NODELAY.set(client, true);
    CoreModuleProperties.WINDOW_SIZE.set(client, WINDOW);
    CoreModuleProperties.REKEY_BYTES_LIMIT.set(client, BYTES_BY_ONE_KEY);
    CoreModuleProperties.NIO2_READ_BUFFER_SIZE.set(client, READ_AT_ONCE);
    CoreModuleProperties.REQUEST_EXEC_REPLY.set(client, true);
    CoreModuleProperties.REQUEST_SHELL_REPLY.set(client, true);
    CoreModuleProperties.IDLE_TIMEOUT.set(client, Duration.ZERO);
    CoreModuleProperties.NIO2_READ_TIMEOUT.set(client, Duration.ZERO);
    CoreModuleProperties.HEARTBEAT_INTERVAL.set(client, KEEP_ALIVE);
    CoreModuleProperties.HEARTBEAT_NO_REPLY_MAX.set(client, 3);
    // The person may think about a host key or look for a passphrase while this runs.
    CoreModuleProperties.AUTH_TIMEOUT.set(client, Duration.ofMinutes(15));
    client.start();
    return new SshRuntime(client);
  }

  @Override
  public void close() {
    try {
      client.close(true).await(Duration.ofSeconds(5));
    } catch (IOException e) {
      // The program ends; sockets close with it.
    }
  }

  private static final class Sessions extends SessionFactory {
    Sessions(SshClient client) {
      super(client);
    }

    @Override
    protected ClientSessionImpl doCreateSession(IoSession line) throws Exception {
      return new GuardedSession(getClient(), line);
    }
  }

  /** Follows each session's steps, and asks first for the host key types that are known. */
  private static final class Watcher implements SessionListener {
    @Override
    public void sessionCreated(Session session) {
      SignInAttempt attempt = SignInAttempt.ofOrNull(session);
      if (attempt == null) {
        return;
      }
      if (attempt.hop().ways().oldAlgorithms()) {
        OfferedAlgorithms.offerOldToo(session);
      }
      if (session instanceof GuardedSession guarded) {
        guarded.callServer(
            InetSocketAddress.createUnresolved(attempt.address().host(), attempt.address().port()));
      }
      try {
        BlockingCalls.allowing(
            () -> {
              attempt.trust().order(session, attempt.address());
              return true;
            });
      } catch (IOException e) {
        // The file is read again, and its fault told, when the host key is verified.
      }
    }

    @Override
    public void sessionPeerIdentificationSend(
        Session session, String version, List<String> extraLines) {
      SignInAttempt attempt = SignInAttempt.ofOrNull(session);
      if (attempt != null) {
        attempt.reach(SignInStep.GREETING);
      }
    }

    @Override
    public void sessionPeerIdentificationReceived(
        Session session, String version, List<String> extraLines) {
      SignInAttempt attempt = SignInAttempt.ofOrNull(session);
      if (attempt != null) {
        attempt.note(SignInNote.Kind.FOUND, version);
      }
    }

    @Override
    public void sessionNegotiationEnd(
        Session session,
        Map<KexProposalOption, String> client,
        Map<KexProposalOption, String> server,
        Map<KexProposalOption, String> agreed,
        Throwable reason) {
      SignInAttempt attempt = SignInAttempt.ofOrNull(session);
      // Keys are exchanged again every so often on a living connection: no news of a sign-in.
      if (attempt != null && reason == null && attempt.step() == SignInStep.GREETING) {
        attempt.note(
            SignInNote.Kind.FOUND,
            agreed.get(KexProposalOption.ALGORITHMS) + ", " + agreed.get(KexProposalOption.S2CENC));
      }
    }

    @Override
    public void sessionException(Session session, Throwable trouble) {
      SignInAttempt attempt = SignInAttempt.ofOrNull(session);
      if (attempt != null) {
        attempt.troubled(trouble);
      }
    }

    @Override
    public void sessionDisconnect(
        Session session, int reason, String text, String language, boolean initiator) {
      SignInAttempt attempt = SignInAttempt.ofOrNull(session);
      if (attempt != null && !initiator) {
        attempt.disconnected(text);
      }
    }
  }
}
