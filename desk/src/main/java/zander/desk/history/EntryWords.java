package zander.desk.history;

import static java.util.Objects.requireNonNull;

import org.jspecify.annotations.Nullable;
import zander.core.change.PutBack.Verdict;
import zander.core.change.Recovery;
import zander.core.files.AccountNames;
import zander.core.files.RemotePath;
import zander.core.journal.ChangeKind;
import zander.core.journal.FileState;
import zander.core.journal.JournalEntry;
import zander.core.phrase.Phrase;
import zander.desk.sheet.Texts;
import zander.desk.words.Phrases;
import zander.desk.words.Words;

/** Entries of the journal, and what becomes of them, in words. */
public final class EntryWords {
  private static final Words WORDS = Words.of(EntryWords.class);

  private EntryWords() {}

  /** What was done: {@code rights deploy:web 0644 to 0600}. */
  public static String what(JournalEntry entry, AccountNames names) {
    String back = entry.undoes() == 0 ? "" : WORDS.say("putBackOf");
    String as = entry.as().isEmpty() ? "" : WORDS.say("as", entry.as());
    return back
        + switch (entry.kind()) {
          case SAVE ->
              (entry.isDone() ? WORDS.say("saved") : WORDS.say("save"))
                  + sizes(entry)
                  + more(entry);
          case RIGHTS ->
              WORDS.say("rightsTo", rights(entry.before(), names), rights(entry.after(), names));
          case RIGHTS_OF_TREE -> WORDS.say("rightsOfSet", entries(entry));
          case ACCESS_LIST -> WORDS.say("accessListEntry", named(entry.note(), names));
          case ACCESS_LISTS_OF_TREE -> WORDS.say("accessListEntryOn", named(entry.note(), names));
          case MAKE_FILE -> WORDS.say("fileMade");
          case MAKE_FOLDER -> WORDS.say("folderMade");
          case MAKE_LINK -> WORDS.say("linkMadeTo", entry.note());
          case RENAME -> renamed(entry);
          case COPY -> WORDS.say("copiedFrom", entry.note());
          case DELETE -> WORDS.say("deletedAndHeld");
          case PURGE -> WORDS.say("deletedForGood");
          case SEND_UP -> WORDS.say("sentUp") + more(entry);
          case REPLACE -> WORDS.say("replacedByATransfer");
          case PACK -> WORDS.say("packed");
          case UNPACK -> WORDS.say("unpackedFrom", entry.note());
          case FETCH -> WORDS.say("fetchedFrom", entry.note());
        }
        + as;
  }

  /** What else there is to say; notes of versions before are texts, not phrases. */
  private static String more(JournalEntry entry) {
    Phrase note = Phrase.parse(entry.note());
    return note.isQuoted() ? "" : WORDS.say("more", Phrases.say(note));
  }

  /** The note is such as {@code u:33:r--}, or without the letters where it was removed. */
  private static String named(String note, AccountNames names) {
    if (note.startsWith("d:")) {
      return WORDS.say("forNewEntries", named(note.substring(2), names));
    }
    String[] fields = note.split(":", -1);
    if (fields.length != 3 || !fields[1].matches("[0-9]{1,10}")) {
      return note;
    }
    int id = (int) Long.parseLong(fields[1]);
    String whose = fields[0] + ":" + (fields[0].equals("g") ? names.group(id) : names.user(id));
    return fields[2].isEmpty() ? WORDS.say("removed", whose) : whose + ":" + fields[2];
  }

  /** The note is their number. */
  private static String entries(JournalEntry entry) {
    boolean number = entry.note().matches("[0-9]{1,18}");
    long count = number ? Long.parseLong(entry.note()) : 0;
    return number
        ? Texts.count(count) + (count == 1 ? WORDS.say("entry") : WORDS.say("entries"))
        : WORDS.say("allInIt");
  }

  private static String sizes(JournalEntry entry) {
    return entry.before() == null || entry.contentId() == null
        ? ""
        : WORDS.say("was", Texts.size(entry.before().attributes().size()));
  }

  private static String renamed(JournalEntry entry) {
    RemotePath to = entry.to();
    if (to == null) {
      return WORDS.say("renamed");
    }
    return entry.path().parent().equals(to.parent())
        ? WORDS.say("renamedTo", to.name())
        : WORDS.say("movedTo", to);
  }

  private static String rights(@Nullable FileState state, AccountNames names) {
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
        ? WORDS.say("wasPutBack")
        : entry.isDone()
            ? ""
            : entry.isUnderWay() ? WORDS.say("endNotKnown") : OutcomeWords.of(entry.outcome());
  }

  /** The word for a kind, to filter by. */
  public static String kind(ChangeKind kind) {
    return switch (kind) {
      case SAVE -> WORDS.say("saves");
      case RIGHTS, RIGHTS_OF_TREE, ACCESS_LIST, ACCESS_LISTS_OF_TREE -> WORDS.say("rights");
      case RENAME -> WORDS.say("renames");
      case DELETE, PURGE -> WORDS.say("deletions");
      case SEND_UP, REPLACE -> WORDS.say("transfers");
      default -> WORDS.say("newThings");
    };
  }

  /** Why an entry cannot be put back, or what that would take with it. */
  public static String verdict(Verdict verdict, JournalEntry entry) {
    return switch (verdict) {
      case READY -> "";
      case CHANGED_SINCE ->
          entry.kind() == ChangeKind.MAKE_FOLDER
              ? WORDS.say("thereAreThingsIn")
              : entry.kind() == ChangeKind.RIGHTS_OF_TREE
                  ? WORDS.say("someOfItWas")
                  : WORDS.say("itWasChangedSince");
      case NAME_TAKEN -> WORDS.say("somethingElseIsCalled", entry.path().name());
      case GONE -> WORDS.say("whatItLeftIs");
      case NOT_KEPT -> WORDS.say("theVersionBeforeWas");
      case FOR_GOOD -> WORDS.say("itWasDeletedFor");
      case ALREADY_PUT_BACK -> WORDS.say("itWasPutBack");
      case NEVER_DONE -> WORDS.say("itWasNotDone");
    };
  }

  /** What was found of a change that was under way. */
  public static String finding(Recovery.Finding finding) {
    return switch (finding.state()) {
      case DONE -> WORDS.say("itWasDoneOnly");
      case NOT_DONE -> WORDS.say("nothingWasChanged");
      case PART_LEFT ->
          WORDS.say("theServerHasWhat", requireNonNull(finding.entry().part()).name());
      case HALF ->
          finding.entry().kind() == ChangeKind.PURGE
              ? WORDS.say("aPartOfIt")
              : WORDS.say("aPartOfItWas");
      case OTHER -> WORDS.say("itIsNeitherThe");
    };
  }
}
