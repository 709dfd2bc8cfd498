package zander.core.change.rights;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.function.LongConsumer;
import org.jspecify.annotations.Nullable;
import zander.core.access.AccessLists;
import zander.core.change.rights.AccessListChange.Entry;
import zander.core.change.rights.ListTools.Meant;
import zander.core.change.rights.look.ScannedEntry;
import zander.core.change.rights.look.TreeLook;
import zander.core.change.rights.look.TreeRoots;
import zander.core.connect.command.Commands;
import zander.core.files.FileKind;
import zander.core.files.PathTrust;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.journal.ChangeKind;
import zander.core.journal.FileState;
import zander.core.journal.Journal;
import zander.core.journal.JournalEntry;
import zander.core.journal.NewChange;
import zander.core.phrase.ExplainedException;
import zander.core.phrase.FilePhrase;
import zander.core.phrase.FileStep;
import zander.core.phrase.KeptPhrase;
import zander.core.rights.Rights;
import zander.core.work.BlockingCalls;
import zander.core.work.Cancellation;

/**
 * Changes one entry of the access lists of a folder and of all in it on its file system: looked at
 * before, written down whole, set by the server's {@code setfacl}, read back, put back exactly.
 * Links are not followed.
 */
public final class AccessListTree {
  /** More lists than this are changed in parts: each is read, and read again. */
  private static final int MOST = 200_000;

  private final RemoteFiles files;
  private final Commands commands;
  private final Journal journal;

  public AccessListTree(RemoteFiles files, Commands commands, Journal journal) {
    this.files = files;
    this.commands = commands;
    this.journal = journal;
  }

  /**
   * What is to be changed.
   *
   * @param letters such as {@code rX}, where X is run permission for folders and for what somebody
   *     may run; {@code null} to take the entry away
   */
  public record Wanted(RemotePath top, Entry whose, @Nullable String letters) {
    private String tool() {
      return letters == null
          ? "setfacl -x " + whose.words() + " "
          : "setfacl -m " + whose.words() + ":" + letters + " ";
    }

    private String note() {
      return whose.words() + ":" + (letters == null ? "" : letters);
    }
  }

  /**
   * What it would do.
   *
   * @param files how many files would be changed
   * @param folders how many folders
   * @param unmasked of how many entries the mask would let more through, to others in the list too
   * @param turnable whether another account can put something else in the place of what is meant
   */
  public record Preview(
      Wanted wanted, long files, long folders, long unmasked, boolean turnable, ListStates before) {
    public long count() {
      return files + folders;
    }
  }

  /**
   * Looks; waits, and changes nothing.
   *
   * @param done told of how many entries the lists are read, now and then
   */
  public Preview look(Wanted wanted, LongConsumer done, Cancellation stop) throws IOException {
    TreeRoots roots = TreeRoots.of(List.of(wanted.top));
    Looking looking = new Looking(roots, wanted.whose.forNew());
    new TreeLook(files, commands, stop).run(roots, false, looking);
    List<Meant> meant = looking.meant;
    Map<String, String> lists =
        new ListTools(files, commands, roots.base(), looking.device).read(meant, done, stop);
    ListStates before = new ListStates(roots.base(), looking.device);
    long[] count = new long[3];
    for (Meant one : meant) {
      String text = lists.get(one.path());
      if (text != null && !isSame(text, one.folder(), wanted)) {
        before.add(one.path(), one.folder(), text, one.file());
        count[one.folder() ? 1 : 0]++;
        count[2] += unmasks(text, one.folder(), wanted) ? 1 : 0;
      }
    }
    return new Preview(wanted, count[0], count[1], count[2], looking.turnable, before);
  }

  /** What is found of a tree. */
  private final class Looking implements TreeLook.Visitor {
    private final TreeRoots roots;
    private final boolean foldersOnly;
    private final List<Meant> meant = new ArrayList<>();
    private boolean turnable;
    private boolean numbered = true;
    private long device;

    Looking(TreeRoots roots, boolean foldersOnly) throws IOException {
      this.roots = roots;
      this.foldersOnly = foldersOnly;
      this.turnable = files.othersMayTurn(roots.about());
    }

    @Override
    public void entry(ScannedEntry entry) throws IOException {
      boolean folder = entry.kind() == FileKind.FOLDER;
      if (entry.elsewhere() || !(folder || entry.kind() == FileKind.FILE)) {
        return;
      }
      Rights is = entry.rights();
      turnable |=
          folder
              && PathTrust.mayTurn(
                  new RemoteAttributes(FileKind.FOLDER, 0, is.uid(), is.gid(), is.mode(), 0, 0),
                  -1,
                  files.uid());
      numbered &= entry.file() != 0;
      device = device == 0 ? entry.device() : device;
      if (turnable && !numbered) {
        // Without its number, what is opened cannot be told from what was put in its place.
        throw new RemoteFailure(
            Reason.NOT_SUPPORTED,
            FileStep.LOOK_THROUGH,
            roots.base(),
            FilePhrase.NOT_TOLD_APART.of(),
            null);
      }
      if (meant.size() == MOST) {
        throw new RemoteFailure(
            Reason.TOO_LARGE,
            FileStep.LOOK_THROUGH,
            roots.base(),
            FilePhrase.TOO_MANY_ENTRIES.of(),
            null);
      }
      if (folder || !foldersOnly) {
        meant.add(new Meant(entry.path(), folder, entry.file()));
      }
    }

    @Override
    public void unreadable(String path) {
      // Its own list is seen; what is in it is out of reach for this account.
    }
  }

  /** Whether a list has the entry as wanted. */
  private static boolean has(String text, boolean folder, Wanted wanted) {
    String line = AccessLists.line(text, wanted.whose.lineStart());
    String letters = wanted.letters;
    if (letters == null) {
      return line == null;
    }
    return line != null && line.equals(entry(text, folder, letters));
  }

  /** What the entry allows by then: X is run permission where somebody has it (setfacl(1)). */
  private static String entry(String text, boolean folder, String letters) {
    boolean runs =
        letters.indexOf('x') >= 0 || (letters.indexOf('X') >= 0 && (folder || anybodyRuns(text)));
    return (letters.indexOf('r') >= 0 ? "r" : "-")
        + (letters.indexOf('w') >= 0 ? "w" : "-")
        + (runs ? "x" : "-");
  }

  private static boolean anybodyRuns(String text) {
    return text.lines()
        .anyMatch(
            line ->
                !line.startsWith("default:")
                    && !line.startsWith("#")
                    && line.charAt(line.length() - 1) == 'x');
  }

  /** What the mask is by then, which is reckoned anew: all that it stands above. */
  private static String mask(String text, boolean folder, Wanted wanted) {
    String prefix = wanted.whose.forNew() ? "default:" : "";
    String letters = wanted.letters;
    StringBuilder all = new StringBuilder(letters == null ? "" : entry(text, folder, letters));
    text.lines()
        .filter(line -> line.startsWith(prefix + "group:") || line.startsWith(prefix + "user:"))
        .filter(line -> !line.startsWith(prefix + "user::"))
        .filter(line -> !line.startsWith(wanted.whose.lineStart()))
        .forEach(line -> all.append(line.substring(line.lastIndexOf(':') + 1)));
    return (all.indexOf("r") >= 0 ? "r" : "-")
        + (all.indexOf("w") >= 0 ? "w" : "-")
        + (all.indexOf("x") >= 0 ? "x" : "-");
  }

  private static @Nullable String maskNow(String text, Wanted wanted) {
    return AccessLists.line(text, (wanted.whose.forNew() ? "default:" : "") + "mask::");
  }

  /** Whether nothing would be changed: the entry is there, and the mask is what it would be. */
  private static boolean isSame(String text, boolean folder, Wanted wanted) {
    return has(text, folder, wanted)
        && (wanted.letters == null || mask(text, folder, wanted).equals(maskNow(text, wanted)));
  }

  /** Whether the mask would let through what it does not now. */
  private static boolean unmasks(String text, boolean folder, Wanted wanted) {
    String now = maskNow(text, wanted);
    String then = mask(text, folder, wanted);
    return now != null && "rwx".chars().anyMatch(c -> then.indexOf(c) >= 0 && now.indexOf(c) < 0);
  }

  /**
   * What became of it, read back.
   *
   * @param left how many are not as wanted: refused, gone, or not come to
   */
  public record Outcome(long set, long left, boolean stopped) {}

  /**
   * Makes the change as it was looked at; waits.
   *
   * @param done told how many entries were come to, now and then
   */
  public Outcome set(Preview preview, LongConsumer done, Cancellation stop) throws IOException {
    BlockingCalls.check("setting access lists of a tree");
    Wanted wanted = preview.wanted;
    RemoteAttributes is = files.look(wanted.top);
    Journal.Pending pending =
        journal.begin(
            NewChange.of(ChangeKind.ACCESS_LISTS_OF_TREE, wanted.top)
                .states(FileState.of(is), FileState.of(is))
                .content(preview.before.toBytes())
                .note(wanted.note()));
    try {
      List<Meant> meant = meant(preview.before);
      ListTools tools = tools(preview.before);
      tools.run(wanted.tool(), meant, preview.turnable, done, stop);
      Map<String, String> now = tools.read(meant, read -> {}, new Cancellation());
      pending.done();
      long set = meant.stream().filter(one -> isSet(now.get(one.path()), one, wanted)).count();
      return new Outcome(set, meant.size() - set, stop.isStopped());
    } catch (IOException | RuntimeException e) {
      // Some may be set: it can be taken back.
      pending.lost();
      throw e;
    } finally {
      files.batch().rightsChanged();
    }
  }

  private ListTools tools(ListStates states) throws IOException {
    return new ListTools(files, commands, states.base(), states.device());
  }

  private static boolean isSet(@Nullable String text, Meant one, Wanted wanted) {
    return text != null && has(text, one.folder(), wanted);
  }

  private static List<Meant> meant(ListStates states) throws IOException {
    List<Meant> meant = new ArrayList<>();
    states.forEach((path, folder, text, file) -> meant.add(new Meant(path, folder, file)));
    return meant;
  }

  /** Gives all the lists that they had before; waits. */
  public void putBack(JournalEntry entry) throws IOException {
    byte[] content = journal.contentBefore(entry);
    if (content == null) {
      throw new ExplainedException(KeptPhrase.LISTS_BEFORE_NOT_KEPT.of());
    }
    RemoteAttributes is = files.look(entry.path());
    Journal.Pending pending =
        journal.begin(
            NewChange.of(ChangeKind.ACCESS_LISTS_OF_TREE, entry.path())
                .states(FileState.of(is), FileState.of(is))
                .content(content)
                .undoes(entry.id())
                .note(entry.note()));
    try {
      takeBack(ListStates.ofBytes(content));
      pending.done();
    } catch (IOException | RuntimeException e) {
      pending.failed(e);
      throw e;
    }
  }

  /** The same for one that was cut off; not written down. */
  public void takeBack(JournalEntry entry) throws IOException {
    byte[] content = journal.contentBefore(entry);
    if (content == null) {
      throw new ExplainedException(KeptPhrase.LISTS_BEFORE_NOT_KEPT.of());
    }
    takeBack(ListStates.ofBytes(content));
  }

  private void takeBack(ListStates before) throws IOException {
    ListTools tools = tools(before);
    List<Meant> meant = meant(before);
    Cancellation toTheEnd = new Cancellation();
    tools.give(before, tools.read(meant, read -> {}, toTheEnd), toTheEnd);
    Map<String, String> now = tools.read(meant, read -> {}, toTheEnd);
    files.batch().rightsChanged();
    long[] not = new long[1];
    before.forEach(
        (path, folder, text, file) -> not[0] += text.equals(now.getOrDefault(path, text)) ? 0 : 1);
    if (not[0] > 0) {
      throw new RemoteFailure(
          Reason.FAILED,
          FileStep.PUT_ACCESS_LISTS_BACK_IN,
          before.base(),
          FilePhrase.ENTRIES_NOT_PUT_BACK.of(not[0]),
          null);
    }
  }
}
