package zander.desk.history;

import zander.core.change.PutBack.Verdict;
import zander.core.change.Recovery;
import zander.core.files.AccountNames;
import zander.core.files.RemotePath;
import zander.core.journal.ChangeKind;
import zander.core.journal.FileState;
import zander.core.journal.JournalEntry;
import zander.desk.sheet.Texts;

/** Entries of the journal, and what becomes of them, in words. */
public final class EntryWords {
  private EntryWords() {}

  /** What was done: {@code rights deploy:web 0644 to 0600}. */
  public static String what(JournalEntry entry, AccountNames names) {
    String back = entry.undoes() == 0 ? "" : "put back: ";
    String as = entry.as().isEmpty() ? "" : ", as " + entry.as();
    return back
        + switch (entry.kind()) {
          case SAVE -> (entry.isDone() ? "saved" : "save") + sizes(entry);
          case RIGHTS ->
              "rights " + rights(entry.before(), names) + " to " + rights(entry.after(), names);
          case RIGHTS_OF_TREE -> "rights of " + entries(entry) + " set";
          case ACCESS_LIST -> "access list entry " + named(entry.note(), names);
          case ACCESS_LISTS_OF_TREE ->
              "access list entry " + named(entry.note(), names) + ", on all in it";
          case MAKE_FILE -> "file made";
          case MAKE_FOLDER -> "folder made";
          case MAKE_LINK -> "link made to " + entry.note();
          case RENAME -> renamed(entry);
          case COPY -> "copied from " + entry.note();
          case DELETE -> "deleted, and held";
          case PURGE -> "deleted for good";
          case SEND_UP -> "sent up";
          case REPLACE -> "replaced by a transfer";
          case PACK -> "packed";
          case UNPACK -> "unpacked from " + entry.note();
          case FETCH -> "fetched from " + entry.note();
        }
        + as;
  }

  /** The note is such as {@code u:33:r--}, or without the letters where it was removed. */
  private static String named(String note, AccountNames names) {
    if (note.startsWith("d:")) {
      return named(note.substring(2), names) + " for new entries";
    }
    String[] fields = note.split(":", -1);
    if (fields.length != 3 || !fields[1].matches("[0-9]{1,10}")) {
      return note;
    }
    int id = (int) Long.parseLong(fields[1]);
    String whose = fields[0] + ":" + (fields[0].equals("g") ? names.group(id) : names.user(id));
    return fields[2].isEmpty() ? whose + " removed" : whose + ":" + fields[2];
  }

  /** The note is their number. */
  private static String entries(JournalEntry entry) {
    boolean number = entry.note().matches("[0-9]{1,18}");
    long count = number ? Long.parseLong(entry.note()) : 0;
    return number ? Texts.count(count) + (count == 1 ? " entry" : " entries") : "all in it";
  }

  private static String sizes(JournalEntry entry) {
    return entry.before() == null || entry.contentId() == null
        ? ""
        : ", was " + Texts.size(entry.before().attributes().size());
  }

  private static String renamed(JournalEntry entry) {
    RemotePath to = entry.to();
    return entry.path().parent().equals(to.parent()) ? "renamed to " + to.name() : "moved to " + to;
  }

  private static String rights(FileState state, AccountNames names) {
    return state == null
        ? "?"
        : names.user(state.attributes().uid())
            + ":"
            + names.group(state.attributes().gid())
            + " "
            + state.mode().octal();
  }

  /** Where it stands: empty for one that is done and in force. */
  public static String state(JournalEntry entry, boolean putBack) {
    return putBack
        ? "put back"
        : entry.isDone()
            ? ""
            : entry.isUnderWay() ? "end not known" : OutcomeWords.of(entry.outcome());
  }

  /** The word for a kind, to filter by. */
  public static String kind(ChangeKind kind) {
    return switch (kind) {
      case SAVE -> "saves";
      case RIGHTS, RIGHTS_OF_TREE, ACCESS_LIST, ACCESS_LISTS_OF_TREE -> "rights";
      case RENAME -> "renames";
      case DELETE, PURGE -> "deletions";
      case SEND_UP, REPLACE -> "transfers";
      default -> "new things";
    };
  }

  /** Why an entry cannot be put back, or what that would take with it. */
  public static String verdict(Verdict verdict, JournalEntry entry) {
    return switch (verdict) {
      case READY -> "";
      case CHANGED_SINCE ->
          entry.kind() == ChangeKind.MAKE_FOLDER
              ? "There are things in it now."
              : entry.kind() == ChangeKind.RIGHTS_OF_TREE
                  ? "Some of it was changed since, or is gone: that is left as it is."
                  : "It was changed since. What is there now is kept: it can be put back in its turn.";
      case NAME_TAKEN -> "Something else is called " + entry.path().name() + " now.";
      case GONE -> "What it left is not there any more.";
      case NOT_KEPT -> "The version before was not kept, or was let go by the journal's rules.";
      case FOR_GOOD -> "It was deleted for good: nothing was kept.";
      case ALREADY_PUT_BACK -> "It was put back already.";
      case NEVER_DONE -> "It was not done.";
    };
  }

  /** What was found of a change that was under way. */
  public static String finding(Recovery.Finding finding) {
    return switch (finding.state()) {
      case DONE -> "It was done; only the end was not recorded.";
      case NOT_DONE -> "Nothing was changed.";
      case PART_LEFT ->
          "The server has what was there before. A partial copy was left beside it: "
              + finding.entry().part().name();
      case HALF ->
          finding.entry().kind() == ChangeKind.PURGE
              ? "A part of it is gone, the rest is still there."
              : "A part of it was done.";
      case OTHER -> "It is neither the old nor the new version: somebody else changed it.";
    };
  }
}
