package zander.desk.rights.kept;

import static java.util.Objects.requireNonNull;

import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import zander.core.kept.KeptProblem;
import zander.core.kept.KeptRule;
import zander.core.kept.ReadyRights;
import zander.core.rights.ModeRule;
import zander.desk.words.Phrases;
import zander.desk.words.Words;

/** The rights that a folder keeps, in words. */
public final class KeptWords {
  private static final Words WORDS = Words.of(KeptWords.class);

  private KeptWords() {}

  static String of(KeptProblem problem) {
    String at = WORDS.say("line", problem.line());
    return at
        + switch (problem.kind()) {
          case PATTERN -> WORDS.say("thePatternCanFit", problem.what());
          case TOO_MANY_FIELDS -> WORDS.say("isOneTooMany", problem.what());
          case SAYS_NOTHING -> WORDS.say("saysNothingOf", problem.what());
          case MODE ->
              WORDS.say("isNoMode", problem.what(), Phrases.say(requireNonNull(problem.detail())));
          case TOO_MANY_LINES -> WORDS.say("thisAndWhatFollows");
        };
  }

  /** What a line means. */
  static String of(KeptRule rule) {
    String what = what(rule);
    if (rule.freed()) {
      return WORDS.say("leftAlone", what);
    }
    List<String> says = new ArrayList<>();
    add(says, WORDS.say("ownerIs"), rule.owner());
    add(says, WORDS.say("groupIs"), rule.group());
    add(says, WORDS.say("files"), mode(rule.filesShown(), rule.files()));
    add(says, WORDS.say("folders"), mode(rule.foldersShown(), rule.folders()));
    return what + ": " + String.join(", ", says) + ".";
  }

  private static String what(KeptRule rule) {
    String pattern = rule.freed() ? rule.shown().substring(1) : rule.shown();
    return switch (pattern) {
      case "/" -> WORDS.say("thisFolderItself");
      case "*" -> WORDS.say("thisFolderAndAll");
      default ->
          pattern.endsWith("/")
              ? WORDS.say("theFolderAndAll", pattern)
              : WORDS.say("whatFitsAndAll", pattern);
    };
  }

  private static void add(List<String> says, String what, @Nullable String value) {
    if (value != null) {
      says.add(what + value);
    }
  }

  private static @Nullable String mode(@Nullable String written, @Nullable ModeRule rule) {
    boolean runs = rule instanceof ModeRule.Exact exact && exact.keepsRun();
    return runs && written != null
        ? WORDS.say("whatCanBeRun", written.substring(0, written.length() - 2))
        : written;
  }

  /** What a folder is for. */
  public static String of(ReadyRights ready) {
    return switch (ready) {
      case PUBLIC_SITE -> WORDS.say("aPublicSite");
      case SITE_WITH_UPLOADS -> WORDS.say("aSiteWithUploads");
      case SHARED_BY_GROUP -> WORDS.say("sharedByAGroup");
      case SECRETS -> WORDS.say("secretsThatTheService");
      case PRIVATE -> WORDS.say("private");
    };
  }
}
