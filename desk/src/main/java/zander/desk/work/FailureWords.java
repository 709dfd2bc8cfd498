package zander.desk.work;

import java.io.IOException;
import java.nio.file.AccessDeniedException;
import java.nio.file.NoSuchFileException;
import java.util.EnumSet;
import java.util.Set;
import java.util.concurrent.CancellationException;
import zander.core.change.effect.GuardRefused;
import zander.core.change.save.NotPutBack;
import zander.core.change.save.SaveFailure;
import zander.core.connect.channel.ActFailure;
import zander.core.connect.report.ConnectFailure;
import zander.core.edit.NotTextException;
import zander.core.edit.UnencodableTextException;
import zander.core.files.RemoteFailure;
import zander.core.phrase.FileStep;
import zander.core.phrase.Phrase;
import zander.core.seal.StillSealed;
import zander.desk.words.Phrases;
import zander.desk.words.Words;

/** The one place that turns failures into words: what failed, where things stand, what to do. */
public final class FailureWords {
  private static final Words WORDS = Words.of(FailureWords.class);

  /** Before a path, the others need no word. */
  private static final Set<FileStep> OF_SOMETHING =
      EnumSet.of(
          FileStep.ASK_FREE_SPACE,
          FileStep.SET_LENGTH,
          FileStep.SET_MODE,
          FileStep.SET_MODE_AND_TIME,
          FileStep.SET_OWNER,
          FileStep.SET_RIGHTS,
          FileStep.SET_THE_ACCESS_LIST_OF,
          FileStep.SET_TIMES);

  private FailureWords() {}

  /** What it is a failure of; itself where it says no more. */
  public static Throwable within(Throwable failure) {
    Throwable cause = failure.getCause();
    return cause == null ? failure : cause;
  }

  public static Message of(Throwable failure) {
    if (failure instanceof ConnectFailure connect) {
      return SignInWords.of(connect);
    }
    if (failure instanceof SaveFailure save) {
      return SaveWords.of(save);
    }
    if (failure instanceof NotPutBack stands) {
      return SaveWords.of(stands);
    }
    if (failure instanceof GuardRefused refused) {
      return SaveWords.of(refused);
    }
    if (failure instanceof RemoteFailure remote) {
      return remote(remote);
    }
    if (failure instanceof ActFailure act) {
      return act(act);
    }
    if (failure instanceof StillSealed sealed) {
      return sealed(sealed);
    }
    if (failure instanceof NotTextException text) {
      return new Message(
          WORDS.say("thisIsNotA"), WORDS.say("atPositionNothingWas", Phrases.of(text), text.at()));
    }
    if (failure instanceof UnencodableTextException text) {
      return new Message(
          WORDS.say("theEncodingOfThis", text.charset().name(), text.character()),
          WORDS.say("itIsInLine", text.line()));
    }
    if (failure instanceof AccessDeniedException denied) {
      return new Message(
          WORDS.say("noPermissionOnThis"), WORDS.say("andNothingWasChanged", denied.getFile()));
    }
    if (failure instanceof NoSuchFileException missing) {
      return new Message(WORDS.say("itIsNotOn"), missing.getFile());
    }
    if (failure instanceof IllegalArgumentException wrong) {
      return new Message(WORDS.say("thatCannotBeRead"), Phrases.sentence(Phrase.of(wrong)));
    }
    if (failure instanceof CancellationException) {
      return new Message(WORDS.say("itWasStopped"), "");
    }
    if (failure instanceof OutOfMemoryError) {
      return new Message(WORDS.say("thatIsMoreThan"), WORDS.say("itWasGivenUp"));
    }
    return new Message(
        failure instanceof IOException ? WORDS.say("thatFailed") : WORDS.say("somethingWentWrong"),
        Phrases.of(failure));
  }

  private static Message act(ActFailure failure) {
    String words = withStop(Phrases.say(failure.detail()).strip());
    String said =
        words.isEmpty()
            ? ""
            : failure.detail().isQuoted()
                ? WORDS.say("theServerSaid", words)
                : own(failure.detail());
    String nothing = WORDS.say("nothingWasDoneAs");
    return switch (failure.reason()) {
      case NOT_ALLOWED ->
          new Message(
              WORDS.say("theServerDoesNot"),
              WORDS.say(
                  "anAdministratorCanAllow",
                  nothing
                      + said
                      + (failure.allowed().isEmpty()
                          ? ""
                          : WORDS.say("youMayRun", String.join(", ", failure.allowed()))),
                  failure.line().isEmpty() ? "." : WORDS.say("inEtcSudoersWith", failure.line())));
      case WRONG_PASSWORD ->
          new Message(WORDS.say("thePasswordWasWrong"), WORDS.say("itWasNotSent", nothing, said));
      case GIVEN_UP -> new Message(WORDS.say("noPasswordWasGiven"), nothing);
      case WANTS_TERMINAL ->
          new Message(
              WORDS.say("theServerWantsA"), WORDS.say("haveTheRuleChanged", nothing + said));
      case NO_PROGRAM -> new Message(WORDS.say("thereIsNoSudo"), nothing + said);
      case NO_FILE_SERVICE ->
          new Message(
              WORDS.say("thereIsNothingOn"), WORDS.say("openSSHsSftpServerWas", nothing + said));
      case ENDED -> new Message(WORDS.say("youDoNotAct"), WORDS.say("nothingWasDone"));
      case FAILED -> new Message(WORDS.say("theServerDidNot"), nothing + said);
    };
  }

  private static Message sealed(StillSealed failure) {
    return switch (failure.reason()) {
      case VAULT_CLOSED ->
          new Message(WORDS.say("itIsSealedAnd"), WORDS.say("nothingWasChangedOpen"));
      case KEY_GONE -> new Message(WORDS.say("itCannotBeOpened"), WORDS.say("itWasSealedOn"));
      case DAMAGED -> new Message(WORDS.say("whatIsKeptOn"), WORDS.say("itWasNotUsed"));
    };
  }

  private static Message remote(RemoteFailure failure) {
    String path = failure.path() == null ? "" : failure.path().text();
    String step = Phrases.say(failure.step().of());
    String what =
        OF_SOMETHING.contains(failure.step()) && !path.isEmpty()
            ? WORDS.say("couldNotOf", step, path)
            : WORDS.say("couldNot", step, path.isEmpty() ? "" : " " + path);
    String unchanged = WORDS.say("nothingWasChanged");
    return switch (failure.reason()) {
      case NO_SUCH_FILE ->
          new Message(WORDS.say("itIsNotThere", what), WORDS.say("itMayHaveBeen", unchanged));
      case PERMISSION_DENIED ->
          new Message(WORDS.say("noPermission", what), WORDS.say("yourAccountMayNot"));
      case ALREADY_EXISTS -> new Message(WORDS.say("theNameIsTaken", what), unchanged);
      case NO_SPACE ->
          new Message(
              WORDS.say("theServersDiskIs", what),
              WORDS.say("whatWasThereBefore", quoted(failure)));
      case NO_INODES ->
          new Message(WORDS.say("theServersDiskTakes", what), WORDS.say("itHasSpaceLeft"));
      case QUOTA ->
          new Message(
              WORDS.say("yourDiskQuotaOn", what),
              WORDS.say("whatWasThereBeforeIs", quoted(failure)));
      case READ_ONLY ->
          new Message(
              WORDS.say("theFileSystemIs", what), WORDS.say("whoeverRunsTheServer", unchanged));
      case LINKS_FOLLOWED ->
          new Message(
              WORDS.say("thisServerLooksThrough", what),
              WORDS.say("whatIsDoneTo", Phrases.sentence(failure.detail())));
      case LEADS_ELSEWHERE ->
          new Message(
              WORDS.say("anotherAccountCanLead", what),
              WORDS.say("nothingWasChangedGo", leadsElsewhere(failure)));
      case NO_SHELL ->
          new Message(
              WORDS.say("thisAccountHasNo", what),
              WORDS.say("filesCanBeListed", quoted(failure), unchanged));
      case NOT_SUPPORTED ->
          new Message(
              WORDS.say("theServerCannotDo", what),
              (Phrases.sentence(failure.detail()) + " " + unchanged).strip());
      case LINE_LOST ->
          new Message(WORDS.say("theConnectionBroke", what), WORDS.say("whatTheServerDid"));
      case NOT_A_FOLDER -> new Message(WORDS.say("itIsNotA", what), unchanged);
      case BAD_ANSWER ->
          new Message(WORDS.say("theServerAnsweredAgainst", what), quoted(failure).strip());
      case TOO_LARGE ->
          new Message(
              WORDS.say("itIsTooLarge", what),
              (Phrases.sentence(failure.detail()) + " " + unchanged).strip());
      case FAILED -> new Message(what, failed(failure.detail()));
    };
  }

  private static String leadsElsewhere(RemoteFailure failure) {
    String path = failure.path() == null ? WORDS.say("thePath") : failure.path().text();
    return WORDS.say("doesNotLeadWhere", path, Phrases.say(failure.detail()));
  }

  /** What the server said, or Zander found, as a sentence with a space after it; may be empty. */
  private static String quoted(RemoteFailure failure) {
    if (!failure.detail().isQuoted()) {
      return Phrases.sentence(failure.detail()) + " ";
    }
    String said = failure.said().strip();
    return said.isEmpty() ? "" : WORDS.say("serverSaidThen", withStop(said));
  }

  private static String own(Phrase detail) {
    return " " + Phrases.sentence(detail);
  }

  private static String withStop(String said) {
    return said.isEmpty() || said.endsWith(".") ? said : said + ".";
  }

  /** Version 3 of SFTP has one word for most failures, which helps nobody. */
  private static String failed(Phrase detail) {
    if (!detail.isQuoted()) {
      return Phrases.sentence(detail);
    }
    String said = Phrases.say(detail).strip();
    boolean mute = said.isEmpty() || said.equalsIgnoreCase("failure");
    return mute ? WORDS.say("theServerGaveNo") : WORDS.say("serverSaid", said);
  }
}
