package zander.core.change.save;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import zander.core.connect.command.Commands;
import zander.core.connect.command.Pipe;
import zander.core.connect.command.ShellWords;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemotePath;

/**
 * What a file has that SFTP does not tell: other names, a mount on it, an ACL, extended attributes,
 * flags; and what this account may do about it. A server without a shell, or without the tool for
 * one of them, leaves it at what is most usual.
 *
 * @param links how many hard links there are to it; 0 where it is not known
 * @param mounted whether something is mounted on it, so that no other file can take its name
 * @param extended whether it has an ACL, extended attributes or a label that a new file may lack
 * @param capable whether it has file capabilities, which every write into it takes away
 * @param flagged whether it has flags of its file system that a new file lacks
 * @param writable whether this account may write into it
 * @param folderWritable whether this account may make a file beside it
 * @param account the account's number; -1 where it is not known
 * @param groups the numbers of its groups
 */
public record FileMetadata(
    int links,
    boolean mounted,
    boolean extended,
    boolean capable,
    boolean flagged,
    boolean writable,
    boolean folderWritable,
    int account,
    Set<Integer> groups) {

  /** Nothing is known. */
  static final FileMetadata UNKNOWN =
      new FileMetadata(0, false, false, false, false, true, true, -1, Set.of());

  /** Flags that say how a file is kept, not what it is to be (chattr(1)). */
  private static final String INHERENT = "-eEIhNVF";

  private static final int ROOT = 0;

  /** Bytes of an answer; names of attributes are short. */
  private static final int MOST = 256 * 1024;

  /** Asks the server; waits. */
  static FileMetadata ask(Commands commands, RemotePath real) throws IOException {
    return commands.byShellOr(
        () -> of(commands.script(script(real)).out()), () -> FileMetadata.UNKNOWN);
  }

  /**
   * The same where a session has room for it; nobody signs in once more, or is asked, for what only
   * warns.
   */
  static FileMetadata askIfRoom(Commands commands, RemotePath real) throws IOException {
    if (!commands.hasShell()) {
      return UNKNOWN;
    }
    try (Pipe pipe = commands.pipe(script(real))) {
      pipe.in().close();
      return of(pipe.out().readNBytes(MOST));
    }
  }

  private static String script(RemotePath real) {
    // The fifth field of mountinfo is where it is mounted (proc(5)).
    return "f="
        + ShellWords.quote(real)
        + "; d="
        + ShellWords.quote(real.parent())
        + "; echo links $(stat -c %h -- \"$f\" 2>/dev/null)"
        + "; echo mounted $(cut -d ' ' -f 5 /proc/self/mountinfo 2>/dev/null | grep -cxF -- "
        + ShellWords.quoteWire(inMountinfo(real))
        + "); echo mark $(ls -ld -- \"$f\" 2>/dev/null | cut -c 11)"
        + "; echo flags $(lsattr -d -- \"$f\" 2>/dev/null | cut -d ' ' -f 1)"
        + "; test -w \"$f\"; echo writable $?"
        + "; test -w \"$d\"; echo beside $?"
        + "; echo account $(id -u); echo groups $(id -G)"
        // The last: whoever named them is not to answer for another line.
        + "; echo attributes $(getfattr -h -m - --absolute-names -- \"$f\" 2>/dev/null"
        + " | grep -v '^#')\n";
  }

  private static String inMountinfo(RemotePath path) {
    return path.wire()
        .replace("\\", "\\134")
        .replace(" ", "\\040")
        .replace("\t", "\\011")
        .replace("\n", "\\012");
  }

  /** Reads the script's answers; a line that is missing or odd says nothing. */
  static FileMetadata of(byte[] answers) {
    List<String> lines = new String(answers, StandardCharsets.ISO_8859_1).lines().toList();
    String attributes = answer(lines, "attributes");
    String mark = answer(lines, "mark");
    Set<Integer> groups = new TreeSet<>();
    Arrays.stream(answer(lines, "groups").split(" "))
        .map(FileMetadata::number)
        .filter(one -> one >= 0)
        .forEach(groups::add);
    return new FileMetadata(
        Math.max(0, number(answer(lines, "links"))),
        number(answer(lines, "mounted")) > 0,
        !attributes.isEmpty() || mark.equals("+") || mark.equals("."),
        attributes.contains("security.capability"),
        answer(lines, "flags").chars().anyMatch(flag -> INHERENT.indexOf(flag) < 0),
        !answer(lines, "writable").equals("1"),
        !answer(lines, "beside").equals("1"),
        number(answer(lines, "account")),
        groups);
  }

  private static String answer(List<String> lines, String about) {
    return lines.stream()
        .filter(line -> line.startsWith(about + " "))
        .map(line -> line.substring(about.length()).strip())
        .findFirst()
        .orElse("");
  }

  private static int number(String text) {
    try {
      return Integer.parseUnsignedInt(text);
    } catch (NumberFormatException e) {
      return -1;
    }
  }

  /** Whether this account can give a new file the owner and group of this one, as far as known. */
  boolean mayOwn(RemoteAttributes file) {
    return account < 0
        || account == ROOT
        || (account == file.uid() && (groups.isEmpty() || groups.contains(file.gid())));
  }

  /** Whether a new file in its place would not be what this one is. */
  boolean mustStay(RemoteAttributes file) {
    return links > 1 || mounted || flagged || !folderWritable || !mayOwn(file);
  }

  /** The same, once it is known that nothing can be made beside it. */
  FileMetadata withoutFolder() {
    return new FileMetadata(
        links, mounted, extended, capable, flagged, true, false, account, groups);
  }

  /** Whether it can neither be written into nor be replaced, as far as known. */
  public boolean isReadOnly() {
    return !writable && (!folderWritable || links > 1 || mounted);
  }
}
