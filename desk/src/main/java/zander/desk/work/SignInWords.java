package zander.desk.work;

import java.util.stream.Collectors;
import zander.core.connect.ConnectFailure;
import zander.core.trust.WireKey;

/** Words for a sign-in that failed: at which step, what it can mean, what to do. */
final class SignInWords {
  private SignInWords() {}

  static Said of(ConnectFailure failure) {
    String host = failure.address().host();
    int port = failure.address().port();
    String account = failure.address().account();
    return switch (failure.reason()) {
      case UNKNOWN_HOST ->
          new Said(
              "No computer of the name " + host + " was found",
              "Step: name. Look for a typing mistake, and whether this computer is on the network.");
      case REFUSED ->
          new Said(
              host + " refuses connections on port " + port,
              "Step: port. The computer answers, but no SSH server listens there: another port, or"
                  + " the server is stopped.");
      case TIMED_OUT ->
          new Said(
              host + " did not answer in time",
              "Step: " + step(failure) + ". A firewall may drop it, or the server is down.");
      case UNREACHABLE ->
          new Said(
              host + " cannot be reached",
              "Step: port. There is no way to it from this network. " + failure.getMessage());
      case NOT_SSH ->
          new Said(
              "What answers at " + host + " port " + port + " is not an SSH server",
              "Step: greeting. Look at the port number. No secret was sent.");
      case NO_COMMON_ALGORITHM ->
          new Said(
              host + " and Zander have no algorithm in common",
              "Step: greeting. The server may be very old. " + failure.getMessage());
      case HOST_KEY_CHANGED ->
          new Said(
              "The host key of " + host + " has changed",
              "Step: host key. Either the server was set up anew, or somebody is between you and"
                  + " it. Zander stopped before any secret was sent.\nKnown: "
                  + failure.known().stream()
                      .map(WireKey::toString)
                      .collect(Collectors.joining(", "))
                  + "\nShown: "
                  + failure.shown()
                  + "\nAsk whoever runs the server. Only if they confirm the new key, remove the"
                  + " old line from known_hosts.");
      case HOST_KEY_REVOKED ->
          new Said(
              "The host key of " + host + " is marked as revoked",
              "Step: host key. Known hosts says never to trust it. No secret was sent.");
      case HOST_KEY_DECLINED ->
          new Said(
              "Not connected to " + host, "You did not accept the host key. No secret was sent.");
      case KEY_FILE_MISSING ->
          new Said(
              "The key file is not there",
              failure.getMessage() + ". The server was reached; nothing was offered to it.");
      case KEY_FILE_UNREADABLE ->
          new Said(
              "The key file cannot be read",
              failure.getMessage()
                  + ". It must be the private half, in OpenSSH or PEM form, readable for you.");
      case WRONG_PASSPHRASE ->
          new Said(
              "The passphrase does not open the key file", "Three were wrong. No key was offered.");
      case KEY_REFUSED ->
          new Said(
              host + " does not take this key for " + account,
              "Step: sign-in. Likely: the public half is not in the account's authorized_keys, the"
                  + " account is another, or its home or .ssh folder is writable for others.");
      case PASSWORD_REFUSED ->
          new Said(
              host + " does not take this password for " + account,
              "Step: sign-in. Zander does not try it again by itself. Too many wrong ones may lock"
                  + " the account.");
      case TOO_MANY_TRIES ->
          new Said(
              host + " ended the sign-in: too many tries", "Step: sign-in. Wait, then try again.");
      case NO_WAY_LEFT ->
          new Said(
              host + " takes none of the ways to sign in",
              "Step: sign-in. Choose a key for this server, or allow a password.");
      case GIVEN_UP -> new Said("Sign-in to " + host + " given up", "Nothing was changed.");
      case NO_FILE_SERVICE ->
          new Said(
              host + " has no file service for " + account,
              "Step: files. You are who you say, but SFTP is switched off there.");
      case CLOSED_BY_SERVER ->
          new Said(
              host + " closed the connection",
              "Step: " + step(failure) + ". " + failure.getMessage());
      default ->
          new Said(
              "Could not connect to " + host,
              "Step: " + step(failure) + ". " + failure.getMessage());
    };
  }

  private static String step(ConnectFailure failure) {
    return failure.step().name().toLowerCase(java.util.Locale.ROOT).replace('_', ' ');
  }
}
