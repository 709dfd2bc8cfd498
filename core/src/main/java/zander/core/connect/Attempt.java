package zander.core.connect;

import java.io.IOException;
import java.net.SocketAddress;
import java.security.PublicKey;
import java.util.List;
import org.apache.sshd.client.auth.pubkey.PublicKeyAuthenticationReporter;
import org.apache.sshd.client.session.ClientSession;
import org.apache.sshd.common.AttributeRepository;
import org.apache.sshd.common.config.keys.KeyUtils;
import org.apache.sshd.common.session.Session;
import org.apache.sshd.common.util.buffer.ByteArrayBuffer;
import zander.core.connect.ConnectFailure.Reason;

/**
 * One attempt to open a connection: what it is for, how far it got, and what was learnt of a
 * failure. The library's callbacks find it in the session's context.
 */
final class Attempt implements PublicKeyAuthenticationReporter {
  static final AttributeRepository.AttributeKey<Attempt> KEY =
      new AttributeRepository.AttributeKey<>();

  private final ServerAddress address;
  private final SignInWays ways;
  private final SignInTalk talk;
  private final KnownHosts knownHosts;
  private volatile SignInStep step = SignInStep.NAME;
  private volatile ConnectFailure failure;
  private volatile String disconnectText = "";
  private volatile boolean keyRefused;
  private volatile boolean passwordTried;
  private volatile HostKey hostKey;

  Attempt(ServerAddress address, SignInWays ways, SignInTalk talk, KnownHosts knownHosts) {
    this.address = address;
    this.ways = ways;
    this.talk = talk;
    this.knownHosts = knownHosts;
  }

  static Attempt of(Session session) {
    AttributeRepository context = ((ClientSession) session).getConnectionContext();
    return context == null ? null : context.getAttribute(KEY);
  }

  ServerAddress address() {
    return address;
  }

  SignInTalk talk() {
    return talk;
  }

  SignInStep step() {
    return step;
  }

  HostKey hostKey() {
    return hostKey;
  }

  boolean mayUsePassword() {
    return ways.password();
  }

  void reach(SignInStep next) {
    if (next.compareTo(step) > 0 || next == SignInStep.NAME) {
      step = next;
      talk.reached(next);
    }
  }

  void giveUp() {
    failure = new ConnectFailure(step, Reason.GIVEN_UP, address, "given up by the user", null);
  }

  void passwordTried() {
    passwordTried = true;
  }

  void disconnected(String text) {
    disconnectText = text == null ? "" : text;
  }

  List<String> knownTypes() throws IOException {
    return knownHosts.typesFor(address);
  }

  /** Decides on the host key; called before anything secret goes over the line. */
  boolean verify(SocketAddress peer, PublicKey key) {
    reach(SignInStep.HOST_KEY);
    ByteArrayBuffer buffer = new ByteArrayBuffer();
    buffer.putRawPublicKey(key);
    HostKey shown = new HostKey(KeyUtils.getKeyType(key), buffer.getCompactData());
    hostKey = shown;
    try {
      KnownHosts.Finding finding = knownHosts.find(address, shown);
      switch (finding.standing()) {
        case KNOWN:
          return true;
        case FIRST_CONTACT:
          if (talk.isHostKeyRight(address, shown)) {
            knownHosts.remember(address, shown);
            return true;
          }
          return refuse(Reason.HOST_KEY_DECLINED, shown, finding);
        case CHANGED:
          return refuse(Reason.HOST_KEY_CHANGED, shown, finding);
        default:
          return refuse(Reason.HOST_KEY_REVOKED, shown, finding);
      }
    } catch (IOException e) {
      failure =
          new ConnectFailure(
              SignInStep.HOST_KEY,
              Reason.FAILED,
              address,
              knownHosts.file() + ": " + e.getMessage(),
              e);
      return false;
    }
  }

  private boolean refuse(Reason reason, HostKey shown, KnownHosts.Finding finding) {
    failure =
        new ConnectFailure(
            SignInStep.HOST_KEY, reason, address, shown.toString(), null, shown, finding.known());
    return false;
  }

  @Override
  public void signalAuthenticationFailure(
      ClientSession session,
      String service,
      java.security.KeyPair identity,
      boolean partial,
      List<String> serverMethods) {
    keyRefused = !partial;
  }

  /** Puts what is known about a failure into one with a step and a reason. */
  ConnectFailure explain(Throwable cause) {
    if (failure != null) {
      return failure;
    }
    String detail = disconnectText.isEmpty() ? String.valueOf(cause.getMessage()) : disconnectText;
    return new ConnectFailure(step, reason(cause, detail), address, detail, cause);
  }

  private Reason reason(Throwable cause, String detail) {
    String lower = detail.toLowerCase(java.util.Locale.ROOT);
    if (step == SignInStep.FILES) {
      return Reason.NO_FILE_SERVICE;
    }
    if (step == SignInStep.SIGN_IN) {
      if (lower.contains("too many authentication")) {
        return Reason.TOO_MANY_TRIES;
      }
      if (passwordTried) {
        return Reason.PASSWORD_REFUSED;
      }
      return keyRefused ? Reason.KEY_REFUSED : signInReason(lower);
    }
    for (Throwable at = cause; at != null; at = at.getCause()) {
      if (at instanceof java.net.UnknownHostException) {
        return Reason.UNKNOWN_HOST;
      }
      if (at instanceof java.net.NoRouteToHostException) {
        return Reason.UNREACHABLE;
      }
      if (at instanceof java.util.concurrent.TimeoutException
          || at instanceof java.net.SocketTimeoutException
          || at instanceof java.nio.channels.InterruptedByTimeoutException) {
        return Reason.TIMED_OUT;
      }
    }
    if (step == SignInStep.PORT) {
      return lower.contains("refused")
          ? Reason.REFUSED
          : lower.contains("timeout") ? Reason.TIMED_OUT : Reason.UNREACHABLE;
    }
    if (lower.contains("unable to negotiate")) {
      return Reason.NO_COMMON_ALGORITHM;
    }
    if (step == SignInStep.GREETING) {
      return lower.contains("closed") || lower.contains("reset")
          ? Reason.CLOSED_BY_SERVER
          : lower.contains("timeout") ? Reason.TIMED_OUT : Reason.NOT_SSH;
    }
    return Reason.FAILED;
  }

  private static Reason signInReason(String lower) {
    return lower.contains("no more authentication methods")
        ? Reason.NO_WAY_LEFT
        : Reason.CLOSED_BY_SERVER;
  }
}
