package zander.core.change.rights.look;

import java.io.IOException;
import java.util.List;
import zander.core.change.place.EnteredFolder;
import zander.core.connect.command.Commands;
import zander.core.connect.command.ExecResult;
import zander.core.connect.command.ShellWords;
import zander.core.files.AnswerBounds;
import zander.core.files.FileKind;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteEntry;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.files.TreeWalk;
import zander.core.phrase.FilePhrase;
import zander.core.phrase.FileStep;
import zander.core.rights.Mode;
import zander.core.rights.Rights;
import zander.core.work.Cancellation;

/**
 * Goes through trees for the rights of all that is in them: by the server's {@code find} where that
 * is GNU's, which tells file systems and files apart, by the file service otherwise. Links are seen
 * and never followed. What is found is handed on as it comes; a folder before what is in it.
 */
public final class TreeLook {
  private static final int NO_FIND = 21;

  private static final String PROBE =
      "find . -maxdepth 0 -xdev \\( -readable -o -true \\) -printf '%D' >/dev/null 2>&1 || exit "
          + NO_FIND
          + "\n";

  /** A folder that one may not list or enter is told and left. */
  private static final String EACH =
      "\\( -type d \\( ! -readable -o ! -executable \\)"
          + " -printf '! %y %m %U %G %D %i %d %p\\0' -prune \\)"
          + " -o -printf '. %y %m %U %G %D %i %d %p\\0'\n";

  /** What a command is given has an end (ARG_MAX, 128 KiB at least on Linux). */
  private static final int MOST_OPERANDS = 90_000;

  private final RemoteFiles files;
  private final Commands commands;
  private final Cancellation stop;

  public TreeLook(RemoteFiles files, Commands commands, Cancellation stop) {
    this.files = files;
    this.commands = commands;
    this.stop = stop;
  }

  /** Told on the thread that looks. */
  public interface Visitor {
    void entry(ScannedEntry entry) throws IOException;

    /** A folder, told before, could not be looked into. */
    void unreadable(String path) throws IOException;
  }

  /**
   * Looks at the roots and all below them; waits.
   *
   * @param otherFileSystems whether to go on where another file system is mounted
   * @return whether the server's tools did it
   * @throws java.util.concurrent.CancellationException when it was stopped
   */
  public boolean run(TreeRoots roots, boolean otherFileSystems, Visitor visitor)
      throws IOException {
    Visitor bounded = new Bounded(visitor, roots);
    return commands.byShellOr(
        () -> byTools(roots, otherFileSystems, bounded) || byFiles(roots, bounded),
        () -> byFiles(roots, bounded));
  }

  /** Ends a look that has no end, before what is kept of it fills the memory. */
  private static final class Bounded implements Visitor {
    private final Visitor visitor;
    private final TreeRoots roots;
    private long seen;

    Bounded(Visitor visitor, TreeRoots roots) {
      this.visitor = visitor;
      this.roots = roots;
    }

    @Override
    public void entry(ScannedEntry entry) throws IOException {
      if (++seen > AnswerBounds.treeEntries()) {
        throw new RemoteFailure(
            Reason.TOO_LARGE,
            FileStep.LOOK_THROUGH,
            roots.base(),
            FilePhrase.TOO_MANY_ENTRIES.of(),
            null);
      }
      visitor.entry(entry);
    }

    @Override
    public void unreadable(String path) throws IOException {
      visitor.unreadable(path);
    }
  }

  /** False, with nothing told, where there is no such tool. */
  private boolean byTools(TreeRoots roots, boolean otherFileSystems, Visitor visitor)
      throws IOException {
    StringBuilder script = new StringBuilder(EnteredFolder.enter(files, roots.base()));
    script.append(PROBE);
    StringBuilder operands = new StringBuilder(roots.names().isEmpty() ? " ." : "");
    for (String name : roots.names()) {
      if (operands.length() > MOST_OPERANDS) {
        find(script, operands, otherFileSystems);
      }
      operands.append(' ').append(ShellWords.quoteWire("./" + name));
    }
    find(script, operands, otherFileSystems);
    Records records = new Records(visitor);
    ExecResult result = commands.stream(script.toString(), records::take, stop);
    EnteredFolder.check(result, FileStep.LOOK_THROUGH, roots.base());
    if (result.exit() == NO_FIND && records.all == 0) {
      return false;
    }
    if (records.all == 0) {
      throw new RemoteFailure(
          Reason.NO_SUCH_FILE,
          FileStep.LOOK_THROUGH,
          roots.base(),
          result.errorText().strip(),
          null);
    }
    return true;
  }

  private static void find(StringBuilder script, StringBuilder operands, boolean everywhere) {
    script.append("find").append(operands).append(everywhere ? " " : " -xdev ").append(EACH);
    operands.setLength(0);
  }

  /** Takes what {@code find} writes apart. */
  private static final class Records {
    private static final int FIELDS = 8;
    private static final int MOST = 64 * 1024;
    private static final int OCTAL = 8;

    private final Visitor visitor;
    private byte[] record = new byte[1024];
    private int length;
    private long all;
    private String device = "";

    Records(Visitor visitor) {
      this.visitor = visitor;
    }

    void take(byte[] part) throws IOException {
      for (byte b : part) {
        if (b == 0) {
          end();
          length = 0;
        } else {
          add(b);
        }
      }
    }

    private void add(byte b) throws RemoteFailure {
      if (length == record.length) {
        if (length >= MOST) {
          throw bad("a name without an end");
        }
        record = java.util.Arrays.copyOf(record, 2 * length);
      }
      record[length++] = b;
    }

    @SuppressWarnings("deprecation") // One byte, one char: what the wire form is.
    private void end() throws IOException {
      String[] fields = new String(record, 0, 0, length).split(" ", FIELDS + 1);
      try {
        if (fields.length <= FIELDS) {
          throw bad("too few words");
        }
        if (fields[7].equals("0")) {
          device = fields[5];
        }
        String path = fields[FIELDS];
        ScannedEntry entry =
            new ScannedEntry(
                path.startsWith("./") ? path.substring(2) : path.equals(".") ? "" : path,
                kind(fields[1]),
                new Rights(
                    Integer.parseUnsignedInt(fields[3]),
                    Integer.parseUnsignedInt(fields[4]),
                    new Mode(Integer.parseInt(fields[2], OCTAL))),
                Long.parseUnsignedLong(fields[6]),
                Long.parseUnsignedLong(fields[5]),
                !fields[5].equals(device));
        all++;
        visitor.entry(entry);
        if (fields[0].equals("!") && !entry.elsewhere()) {
          visitor.unreadable(entry.path());
        }
      } catch (IllegalArgumentException e) {
        throw bad(String.valueOf(e.getMessage()));
      }
    }

    private static FileKind kind(String letter) {
      return switch (letter) {
        case "f" -> FileKind.FILE;
        case "d" -> FileKind.FOLDER;
        case "l" -> FileKind.LINK;
        default -> FileKind.OTHER;
      };
    }

    private static RemoteFailure bad(String what) {
      return new RemoteFailure(
          Reason.BAD_ANSWER, FileStep.LOOK_THROUGH, null, FilePhrase.ANSWERED_SO.of(what), null);
    }
  }

  private boolean byFiles(TreeRoots roots, Visitor visitor) throws IOException {
    List<RemotePath> entries = roots.entries();
    List<RemoteAttributes> found = files.lookAll(entries);
    boolean any = false;
    for (int i = 0; i < entries.size(); i++) {
      RemoteAttributes is = found.get(i);
      if (is != null) {
        any = true;
        visitor.entry(scanned(roots, entries.get(i), is));
        if (is.isFolder()) {
          below(roots, entries.get(i), visitor);
        }
      }
    }
    if (!any) {
      // Says why, in the server's words.
      files.look(entries.get(0));
    }
    return false;
  }

  private void below(TreeRoots roots, RemotePath root, Visitor visitor) throws IOException {
    TreeWalk.Visitor each =
        new TreeWalk.Visitor() {
          @Override
          public void entry(RemoteEntry entry) throws IOException {
            visitor.entry(scanned(roots, entry.path(), entry.attributes()));
          }

          @Override
          public void unreadable(RemotePath folder, RemoteFailure why) throws IOException {
            visitor.unreadable(roots.below(folder));
          }
        };
    new TreeWalk(files, stop).lookingBeforeEntering().below(root, each);
  }

  private static ScannedEntry scanned(TreeRoots roots, RemotePath path, RemoteAttributes is) {
    Rights rights = new Rights(is.uid(), is.gid(), is.mode());
    return new ScannedEntry(roots.below(path), is.kind(), rights, 0, 0, false);
  }
}
