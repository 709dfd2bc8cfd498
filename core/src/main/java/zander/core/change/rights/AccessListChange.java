package zander.core.change.rights;

import java.io.IOException;
import zander.core.change.place.EnteredFolder;
import zander.core.connect.command.Commands;
import zander.core.connect.command.ExecResult;
import zander.core.connect.command.ShellWords;
import zander.core.files.FileKind;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.files.ToolErrors;
import zander.core.files.WireName;
import zander.core.journal.ChangeKind;
import zander.core.journal.FileState;
import zander.core.journal.Journal;
import zander.core.journal.JournalEntry;
import zander.core.journal.NewChange;
import zander.core.phrase.ExplainedException;
import zander.core.phrase.FilePhrase;
import zander.core.phrase.FileStep;
import zander.core.phrase.KeptPhrase;

/**
 * Changes access control lists by the server's own {@code setfacl}; the list before is in the
 * journal, as {@code getfacl} writes it. Where another account can turn the path, the entry is
 * opened first, and the tool is given the open handle by its name (proc(5)) once that was seen to
 * be the entry itself: it would follow a link that was put there.
 */
public final class AccessListChange {
  private static final int NO_TOOL = 126;
  private static final int ANOTHER = 98;
  private static final String HANDLE = "/proc/self/fd/3";

  private final RemoteFiles files;
  private final Commands commands;
  private final Journal journal;

  public AccessListChange(RemoteFiles files, Commands commands, Journal journal) {
    this.files = files;
    this.commands = commands;
    this.journal = journal;
  }

  /**
   * Lets an account do something, by an entry of its own; waits.
   *
   * @param bits 4 to read, 2 to write, 1 to run or enter
   */
  public void allow(RemotePath path, int uid, int bits) throws IOException {
    allow(path, new Entry(false, false, uid), bits);
  }

  /**
   * Whose entry of a list is meant.
   *
   * @param forNew whether it is one of the list that new entries of a folder get
   * @param group whether it is a group's
   * @param id the number of the account or the group
   */
  public record Entry(boolean forNew, boolean group, int id) {
    String words() {
      return (forNew ? "d:" : "") + (group ? "g:" : "u:") + Integer.toUnsignedString(id);
    }

    /** What its line begins with where getfacl(1) writes numbers. */
    String lineStart() {
      return (forNew ? "default:" : "")
          + (group ? "group:" : "user:")
          + Integer.toUnsignedString(id)
          + ":";
    }
  }

  /**
   * Gives an entry of the list what it allows; waits.
   *
   * @param bits 4 to read, 2 to write, 1 to run or enter
   */
  public void allow(RemotePath path, Entry whose, int bits) throws IOException {
    String letters =
        ((bits & 4) != 0 ? "r" : "-")
            + ((bits & 2) != 0 ? "w" : "-")
            + ((bits & 1) != 0 ? "x" : "-");
    String entry = whose.words() + ":" + letters;
    change(path, "setfacl -m " + entry + " -- ", new byte[0], 0, entry);
  }

  /** Takes an entry away; waits. */
  public void remove(RemotePath path, Entry whose) throws IOException {
    change(path, "setfacl -x " + whose.words() + " -- ", new byte[0], 0, whose.words() + ":");
  }

  /** Gives one the list it had before; waits. */
  public void putBack(JournalEntry entry) throws IOException {
    byte[] before = journal.contentBefore(entry);
    if (before == null) {
      throw new ExplainedException(KeptPhrase.LISTS_BEFORE_NOT_KEPT.of());
    }
    // A list for new entries stays where the file names none: it has to be taken away as well.
    boolean named = WireName.fromBytes(before).contains("default:");
    boolean folder = files.look(entry.path()).kind() == FileKind.FOLDER;
    String tool = "setfacl " + (folder && !named ? "-k " : "") + "--set-file=- -- ";
    change(entry.path(), tool, before, entry.id(), entry.note());
  }

  private void change(RemotePath path, String tool, byte[] input, long undoes, String note)
      throws IOException {
    RemoteAttributes is = files.look(path);
    if (is.kind() == FileKind.LINK) {
      throw new RemoteFailure(
          Reason.NOT_SUPPORTED,
          FileStep.SET_THE_ACCESS_LIST_OF,
          path,
          FilePhrase.LIST_OF_A_LINK.of(),
          null);
    }
    if (is.kind() == FileKind.OTHER) {
      // Opening it may wait for ever, or do something.
      throw new RemoteFailure(
          Reason.NOT_SUPPORTED,
          FileStep.SET_THE_ACCESS_LIST_OF,
          path,
          FilePhrase.NEITHER_FILE_NOR_FOLDER.of(),
          null);
    }
    String handle = handle(path, is);
    byte[] before = run(path, handle, "getfacl -cn -- ");
    Journal.Pending pending =
        journal.begin(
            NewChange.of(ChangeKind.ACCESS_LIST, path)
                .states(FileState.of(is), FileState.of(is))
                .content(before)
                .undoes(undoes)
                .note(note));
    try {
      String fed =
          input.length == 0
              ? ""
              : "printf %s " + ShellWords.quoteWire(WireName.fromBytes(input)) + " | ";
      run(path, handle, fed + tool);
      pending.done(FileState.of(files.look(path)), java.util.List.of());
    } catch (IOException e) {
      pending.failed(e);
      throw e;
    }
  }

  /**
   * What opens the entry and makes sure that it is the one; empty where nobody else can turn its
   * path.
   */
  private String handle(RemotePath path, RemoteAttributes is) throws IOException {
    if (!files.othersMayTurn(path)) {
      return "";
    }
    RemotePath real = files.trueFolder(path.parent()).child(path.wireName());
    // What a command writes loses the line ends at its end (POSIX XCU 2.6.3): the x keeps them.
    return "exec 3< "
        + EnteredFolder.name(path)
        + " || exit; [ \"$(readlink "
        + HANDLE
        + "; echo x)\" = "
        + ShellWords.quoteWire(real.wire() + "\nx")
        + " ] && [ \"$(stat -Lc %u:%g:%a "
        + HANDLE
        + ")\" = "
        + Integer.toUnsignedString(is.uid())
        + ":"
        + Integer.toUnsignedString(is.gid())
        + ":"
        + Integer.toOctalString(is.mode().bits())
        + " ] || exit "
        + ANOTHER
        + "; ";
  }

  private byte[] run(RemotePath path, String handle, String tool) throws IOException {
    RemotePath folder = path.parent();
    String name = path.isRoot() ? "." : EnteredFolder.name(path);
    ExecResult ran =
        commands.script(
            EnteredFolder.enter(files, folder)
                + handle
                + tool
                + (handle.isEmpty() ? name : HANDLE));
    EnteredFolder.check(ran, FileStep.SET_THE_ACCESS_LIST_OF, folder);
    if (ran.exit() == ANOTHER) {
      throw new RemoteFailure(
          Reason.LEADS_ELSEWHERE,
          FileStep.SET_THE_ACCESS_LIST_OF,
          path,
          FilePhrase.ANOTHER_ENTRY_THERE.of(),
          null);
    }
    if (ran.exit() >= NO_TOOL) {
      throw new RemoteFailure(
          Reason.NOT_SUPPORTED,
          FileStep.SET_THE_ACCESS_LIST_OF,
          path,
          FilePhrase.NO_SETFACL.of(),
          null);
    }
    if (ran.exit() != 0) {
      throw ToolErrors.failure(
          FileStep.SET_THE_ACCESS_LIST_OF,
          path,
          ran.errorText(),
          FilePhrase.ENDED_WITH.of("setfacl", ran.exit()));
    }
    return ran.out();
  }
}
