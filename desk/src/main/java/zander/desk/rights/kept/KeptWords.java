package zander.desk.rights.kept;

import java.util.ArrayList;
import java.util.List;
import zander.core.kept.KeptProblem;
import zander.core.kept.KeptRule;
import zander.core.kept.ReadyRights;
import zander.core.rights.ModeRule;

/** The rights that a folder keeps, in words. */
public final class KeptWords {
  private KeptWords() {}

  static String of(KeptProblem problem) {
    String at = "Line " + problem.line() + ": ";
    return at
        + switch (problem.kind()) {
          case PATTERN -> "the pattern " + problem.what() + " can fit nothing.";
          case TOO_MANY_FIELDS ->
              problem.what() + " is one too many: pattern, owner, group, files, folders.";
          case SAYS_NOTHING -> "says nothing of " + problem.what() + ".";
          case MODE -> problem.what() + " is no mode: " + problem.detail() + ".";
          case TOO_MANY_LINES -> "this and what follows are more lines than can be kept.";
        };
  }

  /** What a line means. */
  static String of(KeptRule rule) {
    String what = what(rule);
    if (rule.freed()) {
      return what + ": left alone.";
    }
    List<String> says = new ArrayList<>();
    add(says, "owner ", rule.owner());
    add(says, "group ", rule.group());
    add(says, "files ", mode(rule.filesShown(), rule.files()));
    add(says, "folders ", mode(rule.foldersShown(), rule.folders()));
    return what + ": " + String.join(", ", says) + ".";
  }

  private static String what(KeptRule rule) {
    String pattern = rule.freed() ? rule.shown().substring(1) : rule.shown();
    return switch (pattern) {
      case "/" -> "This folder itself";
      case "*" -> "This folder and all in it";
      default ->
          pattern.endsWith("/")
              ? "The folder " + pattern + " and all in it"
              : "What fits " + pattern + ", and all in it";
    };
  }

  private static void add(List<String> says, String what, String value) {
    if (value != null) {
      says.add(what + value);
    }
  }

  private static String mode(String written, ModeRule rule) {
    boolean runs = rule instanceof ModeRule.Exact exact && exact.keepsRun();
    return runs
        ? written.substring(0, written.length() - 2) + ", what can be run stays so"
        : written;
  }

  /** What a folder is for. */
  public static String of(ReadyRights ready) {
    return switch (ready) {
      case PUBLIC_SITE -> "A public site";
      case SITE_WITH_UPLOADS -> "A site with uploads";
      case SHARED_BY_GROUP -> "Shared by a group";
      case SECRETS -> "Secrets that the service reads";
      case PRIVATE -> "Private";
    };
  }
}
