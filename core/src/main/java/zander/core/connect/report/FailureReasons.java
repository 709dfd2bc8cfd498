package zander.core.connect.report;

import java.net.NoRouteToHostException;
import java.net.SocketTimeoutException;
import java.net.UnknownHostException;
import java.nio.channels.InterruptedByTimeoutException;
import java.util.concurrent.TimeoutException;
import org.apache.sshd.common.channel.exception.SshChannelOpenException;
import org.jspecify.annotations.Nullable;
import zander.core.connect.report.ConnectFailure.Reason;
import zander.core.files.sftp.channel.FileServiceMissing;
import zander.core.phrase.Phrase;
import zander.core.phrase.SignInPhrase;

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

  /** The same as what is told: what Zander found, or what the system or the server said, quoted. */
  public static Phrase phrase(Throwable cause) {
    Phrase found = Phrase.found(cause);
    return found == null ? Phrase.quoted(plain(cause)) : found;
  }

  private static boolean isClosed(Throwable cause) {
    Phrase found = Phrase.found(cause);
    return found != null && found.is(SignInPhrase.CLOSED);
  }

  /**
   * Why the server did not let the person in.
   *
   * @param lower what the library said, in small letters
   * @param partly whether something was taken, and more was wanted
   */
  public static Reason atSignIn(
      String lower, boolean passwordRefused, boolean partly, boolean keyRefused) {
    if (lower.contains("too many authentication")) {
      return Reason.TOO_MANY_TRIES;
    }
    if (passwordRefused) {
      return Reason.PASSWORD_REFUSED;
    }
    if (partly) {
      return Reason.MORE_WANTED;
    }
    if (keyRefused) {
      return Reason.KEY_REFUSED;
    }
    return lower.contains("no more authentication methods")
        ? Reason.NO_WAY_LEFT
        : Reason.CLOSED_BY_SERVER;
  }

  /**
   * Why files or a shell could not be had once signed in.
   *
   * @param lower what the library said, in small letters
   */
  public static Reason afterSignIn(Throwable cause, String lower) {
    if (isClosed(cause)
        || (lower.contains("session") && lower.contains("clos"))
        || (lower.contains("connection") && lower.contains("reset"))) {
      return Reason.CLOSED_BY_SERVER;
    }
    return cause instanceof FileServiceMissing missing && !missing.printed().isEmpty()
        ? Reason.START_FILES_PRINT
        : Reason.NO_FILE_SERVICE;
  }

  /** What the library says when somebody may be in between; {@code null} when it is not that. */
  private static @Nullable Reason alarm(String lower) {
    if (lower.contains("strict kex")) {
      return Reason.LINE_TAMPERED;
    }
    boolean unproved =
        lower.contains("signature verification failed")
            || lower.contains("ca verifier")
            || lower.contains("opensshcertificate found with")
            || lower.contains("did not send a certificate");
    return unproved ? Reason.HOST_NOT_PROVED : null;
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
    Reason alarm = alarm(lower);
    if (alarm != null) {
      return alarm;
    }
    if (step == SignInStep.GREETING) {
      return isClosed(cause) || lower.contains("closed") || lower.contains("reset")
          ? Reason.CLOSED_BY_SERVER
          : late ? Reason.TIMED_OUT : Reason.NOT_SSH;
    }
    return Reason.FAILED;
  }
}
