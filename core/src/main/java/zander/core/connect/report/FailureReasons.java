package zander.core.connect.report;

import java.net.NoRouteToHostException;
import java.net.SocketTimeoutException;
import java.net.UnknownHostException;
import java.nio.channels.InterruptedByTimeoutException;
import java.util.concurrent.TimeoutException;
import org.apache.sshd.common.channel.exception.SshChannelOpenException;
import zander.core.connect.report.ConnectFailure.Reason;

/** Tells apart why a server was not reached, before anybody was signed in. */
public final class FailureReasons {
  private FailureReasons() {}

  /** What the system or the server said at the bottom of it, without the library's wrapping. */
  public static String plain(Throwable cause) {
    Throwable at = cause;
    while (at.getCause() != null && at.getCause() != at) {
      at = at.getCause();
    }
    String said = at.getMessage() == null ? at.getClass().getSimpleName() : at.getMessage();
    return said.replaceFirst("^Default\\w+Future\\[[^\\]]*]: ", "");
  }

  /**
   * @param lower what the library said, in small letters
   */
  public static Reason beforeSignIn(SignInStep step, Throwable cause, String lower) {
    for (Throwable at = cause; at != null; at = at.getCause()) {
      if (at instanceof SshChannelOpenException) {
        return Reason.JUMP_REFUSED;
      }
      if (at instanceof UnknownHostException) {
        return Reason.UNKNOWN_HOST;
      }
      if (at instanceof NoRouteToHostException) {
        return Reason.UNREACHABLE;
      }
      if (at instanceof TimeoutException
          || at instanceof SocketTimeoutException
          || at instanceof InterruptedByTimeoutException) {
        return Reason.TIMED_OUT;
      }
    }
    boolean late = lower.contains("timeout") || lower.contains("timed out");
    if (step == SignInStep.PORT) {
      return lower.contains("refused")
          ? Reason.REFUSED
          : late ? Reason.TIMED_OUT : Reason.UNREACHABLE;
    }
    if (lower.contains("unable to negotiate")) {
      return Reason.NO_COMMON_ALGORITHM;
    }
    if (step == SignInStep.GREETING) {
      return lower.contains("closed") || lower.contains("reset")
          ? Reason.CLOSED_BY_SERVER
          : late ? Reason.TIMED_OUT : Reason.NOT_SSH;
    }
    return Reason.FAILED;
  }
}
