package zander.desk.work;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import zander.core.connect.channel.OfferedAlgorithms;
import zander.core.connect.report.ConnectFailure;
import zander.core.connect.report.SignInNote;
import zander.core.connect.report.SignInStep;
import zander.core.trust.WireKey;

/** Words for signing in: its steps, what happened in them, why it failed, and what may help. */
public final class SignInWords {
  private SignInWords() {}

  /** A step as the person knows it. */
  public static String name(SignInStep step) {
    return switch (step) {
      case NAME -> "name";
      case PORT -> "port";
      case GREETING -> "greeting";
      case HOST_KEY -> "host key";
      case SIGN_IN -> "account";
      case FILES -> "file service";
      case SHELL -> "shell";
    };
  }

  /** One thing that happened, in a few words. */
  public static String of(SignInNote note) {
    String fact = note.fact();
    boolean letters = fact.equals("password") || fact.equals("keyboard-interactive");
    return switch (note.kind()) {
      case OFFERED ->
          note.step() == SignInStep.PORT
              ? "trying " + fact
              : letters
                  ? (fact.equals("password") ? "a password was sent" : "questions were answered")
                  : "offered " + fact;
      case REFUSED ->
          note.step() == SignInStep.SIGN_IN
              ? (fact.isEmpty() ? "not right" : fact.contains(": ") ? fact : fact + ": refused")
              : fact;
      case BANNER -> "the server says: " + fact;
      case TAKEN -> (fact.isEmpty() ? "it" : fact) + " was taken";
      default -> fact;
    };
  }

  static Message of(ConnectFailure failure) {
    String host = failure.address().host();
    int port = failure.address().port();
    String account = failure.address().account();
    String noSecret = "No secret was sent.";
    return switch (failure.reason()) {
      case UNKNOWN_HOST -> said(failure, "No computer of the name " + host + " was found", "");
      case REFUSED ->
          said(
              failure,
              host + " refuses connections on port " + port,
              "The computer answers, but nothing listens there.");
      case TIMED_OUT -> said(failure, host + " did not answer in time", "");
      case UNREACHABLE ->
          said(
              failure,
              host + " cannot be reached",
              "There is no way to it from this network. " + failure.getMessage());
      case JUMP_REFUSED ->
          said(
              failure,
              "The jump host did not lead on to " + host,
              "It said: " + failure.getMessage());
      case NOT_SSH ->
          said(
              failure,
              "What answers at " + host + " port " + port + " is not an SSH server",
              noSecret);
      case NO_COMMON_ALGORITHM ->
          said(
              failure,
              isOld(failure)
                  ? host + " has only algorithms that are no longer safe"
                  : host + " and Zander have no algorithm in common",
              negotiation(failure.getMessage()));
      case HOST_KEY_CHANGED ->
          said(
              failure,
              "The host key of " + host + " has changed",
              "Either the server was set up anew, or somebody is between you and it. Zander stopped"
                  + " before any secret was sent.");
      case HOST_KEY_REVOKED ->
          said(
              failure,
              "The host key of " + host + " is marked as revoked",
              "known_hosts says never to trust it. " + noSecret);
      case HOST_NOT_PROVED ->
          said(
              failure,
              host + " could not prove that it is " + host,
              notProved(failure.getMessage()) + " Somebody may be between you and it. " + noSecret);
      case LINE_TAMPERED ->
          said(
              failure,
              "Something was put into the line to " + host,
              "A message came where none may come before the line is sealed: somebody may be"
                  + " between you and the server. "
                  + noSecret);
      case HOST_KEY_DECLINED ->
          new Message("Not connected to " + host, "You did not accept the host key. " + noSecret);
      case KEY_FILE_MISSING ->
          said(failure, "The key file is not there", failure.keyFile() + ". Nothing was offered.");
      case KEY_PUBLIC_HALF ->
          said(
              failure,
              "That is the public half of the key",
              failure.keyFile() + " goes on servers. To sign in, the private half is needed.");
      case KEY_FILE_OPEN ->
          said(
              failure,
              "Others on this computer can read the key file",
              failure.keyFile() + " must be closed to others before it is used.");
      case KEY_FILE_UNREADABLE ->
          said(failure, "The key file cannot be used", failure.getMessage() + ".");
      case WRONG_PASSPHRASE ->
          said(
              failure,
              "The passphrase does not open the key file",
              "Three were wrong, and no key was proved.");
      case KEY_REFUSED -> said(failure, host + " does not take this key for " + account, "");
      case PASSWORD_REFUSED ->
          said(
              failure,
              host + " does not take this for " + account,
              "Zander does not send it again by itself.");
      case PASSWORD_EXPIRED ->
          said(failure, "The password of " + account + " has expired on " + host, "");
      case MORE_WANTED ->
          said(
              failure,
              host + " took the key, but wants more than that",
              "It asks for a second proof that this server's entry does not allow.");
      case TOO_MANY_TRIES -> said(failure, host + " ended the sign-in: too many tries", "");
      case NO_WAY_LEFT ->
          said(
              failure,
              "No way left to sign in at " + host,
              failure.getMessage().startsWith("No more") ? "" : failure.getMessage() + ".");
      case GIVEN_UP -> new Message("Sign-in at " + host + " given up", "Nothing was changed.");
      case NO_FILE_SERVICE ->
          said(
              failure,
              host + " has no file service for " + account,
              "You are signed in, but no file service answers: " + failure.getMessage() + ".");
      case START_FILES_PRINT ->
          said(
              failure,
              "No file service began for " + account + " on " + host,
              "This came in its place: " + failure.getMessage());
      case CLOSED_BY_SERVER -> said(failure, host + " closed the connection", failure.getMessage());
      default -> said(failure, "Could not connect to " + host, failure.getMessage());
    };
  }

  /** Whether all that the server offers is of the kind that can be allowed for an entry. */
  private static boolean isOld(ConnectFailure failure) {
    Matcher found = NEGOTIATION.matcher(failure.getMessage());
    return found.matches()
        && Arrays.stream(found.group(2).split(","))
            .map(String::strip)
            .anyMatch(OfferedAlgorithms::isOld);
  }

  /** What the library found wrong, as a person reads it. */
  private static String notProved(String detail) {
    String lower = detail.toLowerCase(Locale.ROOT);
    if (lower.contains("expired")) {
      return "Its host certificate has expired, or is not valid yet.";
    }
    if (lower.contains("principal")) {
      return "Its host certificate is for another name.";
    }
    if (lower.contains("not a host key")) {
      return "What it showed is a certificate for a person, not for a host.";
    }
    if (lower.contains("critical option")) {
      return "Its host certificate has conditions that are not known here.";
    }
    if (lower.contains("ca verifier") || lower.contains("ca signature")) {
      return "The signature in its host certificate is wrong, or made with SHA-1.";
    }
    if (lower.contains("certificate")) {
      return "It promised a host certificate and showed none that fits.";
    }
    return "The signature by its host key is wrong.";
  }

  private static final Pattern NEGOTIATION =
      Pattern.compile("(?s).*for (.+?) \\(client: .* / server: (.*)\\)");

  /** What the server offers; what Zander offers fills a screen and helps nobody. */
  private static String negotiation(String detail) {
    Matcher found = NEGOTIATION.matcher(detail);
    return found.matches()
        ? "For " + found.group(1) + " it offers only: " + found.group(2).replace(",", ", ") + "."
        : detail;
  }

  private static Message said(ConnectFailure failure, String headline, String detail) {
    return new Message(
        headline,
        ("Step: " + name(failure.step()) + ". " + (detail == null ? "" : detail)).strip());
  }

  /** What is likely to help, the likeliest first. */
  public static List<String> cures(ConnectFailure failure) {
    String host = failure.address().host();
    String account = failure.address().account();
    List<String> cures = new ArrayList<>();
    switch (failure.reason()) {
      case UNKNOWN_HOST -> {
        cures.add("Look for a typing mistake in the name.");
        cures.add("Look whether this computer is on the network, or needs its private one.");
        cures.add("Some names are known only behind a jump host: name one in the entry.");
      }
      case REFUSED -> {
        cures.add(
            "Another port? Servers are sometimes moved off " + failure.address().port() + ".");
        cures.add("The SSH server may be stopped, or still starting.");
      }
      case TIMED_OUT -> {
        cures.add("A firewall may drop what is sent, or the server is down or overloaded.");
        cures.add("If it lies in an inner network, name a jump host in the entry.");
      }
      case UNREACHABLE -> cures.add("Look at this computer's network.");
      case JUMP_REFUSED -> {
        cures.add("The name " + host + " must be known to the jump host, not here.");
        cures.add("The jump host's sshd may forbid it: AllowTcpForwarding, PermitOpen.");
      }
      case NOT_SSH -> cures.add("Look at the port number.");
      case NO_COMMON_ALGORITHM -> {
        cures.add(
            "An OpenSSH of version 7.4 or later has better ones, unless lines in its sshd_config"
                + " take them away: Ciphers, MACs, KexAlgorithms, HostKeyAlgorithms.");
        if (isOld(failure)) {
          cures.add(
              "Until then, allow old algorithms in this server's entry: whoever taps the line can"
                  + " break them with effort.");
        }
      }
      case HOST_NOT_PROVED, LINE_TAMPERED ->
          cures.add("Ask whoever runs the server, by another way, before you try again.");
      case HOST_KEY_CHANGED -> {
        cures.add("Ask whoever runs the server for its new fingerprint, by another way.");
        cures.add("Only if it is the one shown here, replace the known key.");
      }
      case HOST_KEY_REVOKED -> cures.add("Ask whoever runs the server.");
      case KEY_FILE_MISSING -> cures.add("Choose the key again in the entry.");
      case KEY_PUBLIC_HALF -> cures.add("Choose the file of the same name without .pub.");
      case KEY_FILE_OPEN -> cures.add("Set its mode to 600, so that only you can read it.");
      case KEY_FILE_UNREADABLE ->
          cures.add("Zander reads private keys in OpenSSH and PEM form; others must be turned.");
      case WRONG_PASSPHRASE -> cures.add("Try again, or choose another key in the entry.");
      case KEY_REFUSED -> {
        cures.add("The public half may not be in " + account + "'s authorized_keys: put it there.");
        cures.add("The account may be another than " + account + ".");
        cures.add(
            "The home folder, .ssh or authorized_keys may be writable for others: sshd then"
                + " ignores the file.");
      }
      case PASSWORD_REFUSED -> {
        cures.add("Wait before trying again: too many wrong ones may lock the account.");
        cures.add("The account may be another than " + account + ".");
      }
      case PASSWORD_EXPIRED -> cures.add("Set a new one in another way, then come back.");
      case MORE_WANTED -> cures.add("Allow a password and questions in the entry.");
      case TOO_MANY_TRIES -> {
        cures.add("Choose one key in the entry, so that others are not tried first.");
        cures.add("Wait a little before the next try.");
      }
      case NO_WAY_LEFT -> {
        cures.add("Choose a key for this server, or allow a password.");
        cures.add("If the key is in the agent, look whether the agent is running.");
      }
      case NO_FILE_SERVICE ->
          cures.add("sshd_config there needs a line: Subsystem sftp internal-sftp");
      case START_FILES_PRINT -> {
        cures.add(
            "A start file of the account (.bashrc, .cshrc, config.fish) prints this, or starts"
                + " another program: let it do so only in a terminal, after a line like:"
                + " [ -t 0 ] || return");
        cures.add("Or sshd_config there gets a line: Subsystem sftp internal-sftp");
      }
      case CLOSED_BY_SERVER -> {
        cures.add("The account may be locked, or may sign in only from elsewhere.");
        cures.add("The server may be taking too many connections just now.");
      }
      default -> {}
    }
    return cures;
  }

  /** The fingerprints of a host key that is not the known one, each on a line. */
  public static List<String> fingerprints(ConnectFailure failure) {
    List<String> lines = new ArrayList<>();
    for (WireKey known : failure.known()) {
      lines.add("known  " + known);
    }
    if (failure.shown() != null) {
      lines.add("shown  " + failure.shown());
    }
    return lines;
  }
}
