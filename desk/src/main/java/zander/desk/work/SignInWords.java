package zander.desk.work;

import static java.util.Objects.requireNonNull;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import zander.core.connect.channel.OfferedAlgorithms;
import zander.core.connect.report.ConnectFailure;
import zander.core.connect.report.SignInNote;
import zander.core.connect.report.SignInStep;
import zander.core.phrase.SignInPhrase;
import zander.core.trust.WireKey;
import zander.desk.words.Phrases;
import zander.desk.words.Words;

/** Words for signing in: its steps, what happened in them, why it failed, and what may help. */
public final class SignInWords {
  private static final Words WORDS = Words.of(SignInWords.class);

  private SignInWords() {}

  /** A step as the person knows it. */
  public static String name(SignInStep step) {
    return switch (step) {
      case NAME -> WORDS.say("nameStep");
      case PORT -> WORDS.say("port");
      case GREETING -> WORDS.say("greeting");
      case HOST_KEY -> WORDS.say("hostKey");
      case SIGN_IN -> WORDS.say("account");
      case FILES -> WORDS.say("fileService");
      case SHELL -> WORDS.say("shell");
    };
  }

  /** One thing that happened, in a few words. */
  public static String of(SignInNote note) {
    String fact = Phrases.say(note.fact());
    boolean letters = fact.equals("password") || fact.equals("keyboard-interactive");
    return switch (note.kind()) {
      case OFFERED ->
          note.step() == SignInStep.PORT
              ? WORDS.say("trying", fact)
              : letters
                  ? (fact.equals("password")
                      ? WORDS.say("aPasswordWasSent")
                      : WORDS.say("questionsWereAnswered"))
                  : WORDS.say("offered", fact);
      case REFUSED ->
          note.step() == SignInStep.SIGN_IN
              ? (fact.isEmpty()
                  ? WORDS.say("notRight")
                  : note.fact().is(SignInPhrase.ABOUT) ? fact : WORDS.say("refused", fact))
              : fact;
      case BANNER -> WORDS.say("theServerSays", fact);
      case TAKEN -> WORDS.say("wasTaken", fact.isEmpty() ? WORDS.say("it") : fact);
      default -> fact;
    };
  }

  static Message of(ConnectFailure failure) {
    String host = failure.address().host();
    int port = failure.address().port();
    String account = failure.address().account();
    String noSecret = WORDS.say("noSecretWasSent");
    return switch (failure.reason()) {
      case UNKNOWN_HOST -> said(failure, WORDS.say("noComputerOfThe", host), "");
      case REFUSED ->
          said(
              failure,
              WORDS.say("refusesConnectionsOnPort", host, port),
              WORDS.say("theComputerAnswersBut"));
      case TIMED_OUT -> said(failure, WORDS.say("didNotAnswerIn", host), "");
      case UNREACHABLE ->
          said(
              failure,
              WORDS.say("cannotBeReached", host),
              WORDS.say("thereIsNoWay", Phrases.of(failure)));
      case JUMP_REFUSED ->
          said(
              failure, WORDS.say("theJumpHostDid", host), WORDS.say("itSaid", Phrases.of(failure)));
      case NOT_SSH -> said(failure, WORDS.say("whatAnswersAtPort", host, port), noSecret);
      case NO_COMMON_ALGORITHM ->
          said(
              failure,
              isOld(failure)
                  ? WORDS.say("hasOnlyAlgorithmsThat", host)
                  : WORDS.say("andZanderHaveNo", host),
              negotiation(failure.getMessage()));
      case HOST_KEY_CHANGED ->
          said(failure, WORDS.say("theHostKeyOf", host), WORDS.say("eitherTheServerWas"));
      case HOST_KEY_REVOKED ->
          said(
              failure,
              WORDS.say("theHostKeyOfIs", host),
              WORDS.say("knownHostsSaysNever", noSecret));
      case HOST_NOT_PROVED ->
          said(
              failure,
              WORDS.say("couldNotProveThat", host, host),
              WORDS.say("somebodyMayBeBetween", notProved(failure.getMessage()), noSecret));
      case LINE_TAMPERED ->
          said(
              failure,
              WORDS.say("somethingWasPutInto", host),
              WORDS.say("aMessageCameWhere", noSecret));
      case HOST_KEY_DECLINED ->
          new Message(WORDS.say("notConnectedTo", host), WORDS.say("youDidNotAccept", noSecret));
      case KEY_FILE_MISSING ->
          said(
              failure, WORDS.say("theKeyFileIs"), WORDS.say("nothingWasOffered", keyFile(failure)));
      case KEY_PUBLIC_HALF ->
          said(
              failure,
              WORDS.say("thatIsThePublic"),
              WORDS.say("goesOnServersTo", keyFile(failure)));
      case KEY_FILE_OPEN ->
          said(
              failure,
              WORDS.say("othersOnThisComputer"),
              WORDS.say("mustBeClosedTo", keyFile(failure)));
      case KEY_FILE_UNREADABLE ->
          said(failure, WORDS.say("theKeyFileCannot"), Phrases.of(failure) + ".");
      case WRONG_PASSPHRASE ->
          said(failure, WORDS.say("thePassphraseDoesNot"), WORDS.say("threeWereWrongAnd"));
      case KEY_REFUSED -> said(failure, WORDS.say("doesNotTakeThis", host, account), "");
      case PASSWORD_REFUSED ->
          said(
              failure,
              WORDS.say("doesNotTakeThisFor", host, account),
              WORDS.say("zanderDoesNotSend"));
      case PASSWORD_EXPIRED -> said(failure, WORDS.say("thePasswordOfHas", account, host), "");
      case MORE_WANTED -> said(failure, WORDS.say("tookTheKeyBut", host), WORDS.say("itAsksForA"));
      case TOO_MANY_TRIES -> said(failure, WORDS.say("endedTheSignIn", host), "");
      case NO_WAY_LEFT ->
          said(
              failure,
              WORDS.say("noWayLeftTo", host),
              String.valueOf(failure.getMessage()).startsWith("No more")
                  ? ""
                  : Phrases.sentence(failure.phrase()));
      case GIVEN_UP ->
          new Message(WORDS.say("signInAtGiven", host), WORDS.say("nothingWasChanged"));
      case NO_FILE_SERVICE ->
          said(
              failure,
              WORDS.say("hasNoFileService", host, account),
              WORDS.say("youAreSignedIn", Phrases.of(failure)));
      case START_FILES_PRINT ->
          said(
              failure,
              WORDS.say("noFileServiceBegan", account, host),
              WORDS.say("thisCameInIts", Phrases.of(failure)));
      case CLOSED_BY_SERVER ->
          said(failure, WORDS.say("closedTheConnection", host), Phrases.of(failure));
      default -> said(failure, WORDS.say("couldNotConnectTo", host), Phrases.of(failure));
    };
  }

  /** What is wrong with a key file says which. */
  private static Path keyFile(ConnectFailure failure) {
    return requireNonNull(failure.keyFile());
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
  private static String notProved(@Nullable String detail) {
    String lower = detail == null ? "" : detail.toLowerCase(Locale.ROOT);
    if (lower.contains("expired")) {
      return WORDS.say("itsHostCertificateHas");
    }
    if (lower.contains("principal")) {
      return WORDS.say("itsHostCertificateIs");
    }
    if (lower.contains("not a host key")) {
      return WORDS.say("whatItShowedIs");
    }
    if (lower.contains("critical option")) {
      return WORDS.say("itsHostCertificateHasConditions");
    }
    if (lower.contains("ca verifier") || lower.contains("ca signature")) {
      return WORDS.say("theSignatureInIts");
    }
    if (lower.contains("certificate")) {
      return WORDS.say("itPromisedAHost");
    }
    return WORDS.say("theSignatureByIts");
  }

  private static final Pattern NEGOTIATION =
      Pattern.compile("(?s).*for (.+?) \\(client: .* / server: (.*)\\)");

  /** What the server offers; what Zander offers fills a screen and helps nobody. */
  private static @Nullable String negotiation(@Nullable String detail) {
    Matcher found = NEGOTIATION.matcher(detail);
    return found.matches()
        ? WORDS.say("forItOffersOnly", found.group(1), found.group(2).replace(",", ", "))
        : detail;
  }

  private static Message said(ConnectFailure failure, String headline, @Nullable String detail) {
    return new Message(
        headline, WORDS.say("step", name(failure.step()), detail == null ? "" : detail).strip());
  }

  /** What is likely to help, the likeliest first. */
  public static List<String> cures(ConnectFailure failure) {
    String host = failure.address().host();
    String account = failure.address().account();
    List<String> cures = new ArrayList<>();
    switch (failure.reason()) {
      case UNKNOWN_HOST -> {
        cures.add(WORDS.say("lookForATyping"));
        cures.add(WORDS.say("lookWhetherThisComputer"));
        cures.add(WORDS.say("someNamesAreKnown"));
      }
      case REFUSED -> {
        cures.add(WORDS.say("anotherPortServersAre", failure.address().port()));
        cures.add(WORDS.say("theSshServerMay"));
      }
      case TIMED_OUT -> {
        cures.add(WORDS.say("aFirewallMayDrop"));
        cures.add(WORDS.say("ifItLiesIn"));
      }
      case UNREACHABLE -> cures.add(WORDS.say("lookAtThisComputers"));
      case JUMP_REFUSED -> {
        cures.add(WORDS.say("theNameMustBe", host));
        cures.add(WORDS.say("theJumpHostsSshd"));
      }
      case NOT_SSH -> cures.add(WORDS.say("lookAtThePort"));
      case NO_COMMON_ALGORITHM -> {
        cures.add(WORDS.say("anOpenSSHOfVersion"));
        if (isOld(failure)) {
          cures.add(WORDS.say("untilThenAllowOld"));
        }
      }
      case HOST_NOT_PROVED, LINE_TAMPERED -> cures.add(WORDS.say("askWhoeverRunsThe"));
      case HOST_KEY_CHANGED -> {
        cures.add(WORDS.say("askWhoeverRunsTheServer"));
        cures.add(WORDS.say("onlyIfItIs"));
      }
      case HOST_KEY_REVOKED -> cures.add(WORDS.say("askWhoeverRuns"));
      case KEY_FILE_MISSING -> cures.add(WORDS.say("chooseTheKeyAgain"));
      case KEY_PUBLIC_HALF -> cures.add(WORDS.say("chooseTheFileOf"));
      case KEY_FILE_OPEN -> cures.add(WORDS.say("setItsModeTo"));
      case KEY_FILE_UNREADABLE -> cures.add(WORDS.say("zanderReadsPrivateKeys"));
      case WRONG_PASSPHRASE -> cures.add(WORDS.say("tryAgainOrChoose"));
      case KEY_REFUSED -> {
        cures.add(WORDS.say("thePublicHalfMay", account));
        cures.add(WORDS.say("theAccountMayBe", account));
        cures.add(WORDS.say("theHomeFolderSsh"));
      }
      case PASSWORD_REFUSED -> {
        cures.add(WORDS.say("waitBeforeTryingAgain"));
        cures.add(WORDS.say("theAccountMayBe", account));
      }
      case PASSWORD_EXPIRED -> cures.add(WORDS.say("setANewOne"));
      case MORE_WANTED -> cures.add(WORDS.say("allowAPasswordAnd"));
      case TOO_MANY_TRIES -> {
        cures.add(WORDS.say("chooseOneKeyIn"));
        cures.add(WORDS.say("waitALittleBefore"));
      }
      case NO_WAY_LEFT -> {
        cures.add(WORDS.say("chooseAKeyFor"));
        cures.add(WORDS.say("ifTheKeyIs"));
      }
      case NO_FILE_SERVICE -> cures.add(WORDS.say("sshdConfigThereNeeds"));
      case START_FILES_PRINT -> {
        cures.add(WORDS.say("aStartFileOf"));
        cures.add(WORDS.say("orSshdConfigThere"));
      }
      case CLOSED_BY_SERVER -> {
        cures.add(WORDS.say("theAccountMayBeLocked"));
        cures.add(WORDS.say("theServerMayBe"));
      }
      default -> {}
    }
    return cures;
  }

  /** The fingerprints of a host key that is not the known one, each on a line. */
  public static List<String> fingerprints(ConnectFailure failure) {
    List<String> lines = new ArrayList<>();
    for (WireKey known : failure.known()) {
      lines.add(WORDS.say("known", known));
    }
    if (failure.shown() != null) {
      lines.add(WORDS.say("shown", failure.shown()));
    }
    return lines;
  }
}
