package zander.core.change.save;

import java.io.IOException;
import zander.core.connect.command.Commands;
import zander.core.connect.command.ExecResult;
import zander.core.connect.command.ShellWords;
import zander.core.files.FileKind;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.files.RemoteWriter;
import zander.core.phrase.FilePhrase;
import zander.core.phrase.FileStep;
import zander.core.phrase.Phrase;

/**
 * Writes new content into a file that stays the same: its owner, its other names, its ACL and what
 * is mounted on it are not touched. The content lies complete on the server before, so that a break
 * at any byte can be mended from it, by {@link Recovery}. Room for what the file grows by is taken
 * first: until then a full disk leaves it as it was.
 *
 * <p>The server's own tools do it where there is a shell, through handles: the file written into is
 * the one whose content was expected, wherever its name leads by now.
 */
public final class InPlaceWrite {
  /** What became of it. */
  public enum Result {
    WRITTEN,
    /** The file is not what was expected; nothing was written. */
    CHANGED,
    /** It broke while it was written: some of it is old, some new. */
    HALF
  }

  private static final int NO_TOOLS = 20;
  private static final int NOT_WRITABLE = 21;
  private static final int CHANGED = 22;
  private static final int NOT_STAGED = 23;
  private static final int NO_ROOM = 24;
  private static final int HALF = 25;

  private static final String TOOLS =
      // A line that is lost does not end what was begun.
      """
      trap '' HUP PIPE
      sum() { sha256sum < "$1" | cut -c 1-64; }
      test -d /proc/$$/fd && command -v sha256sum >/dev/null || exit 20
      true 3<> "$f" || exit 21
      true 4< "$n" || exit 23
      exec 3<> "$f" 4< "$n"
      o=/proc/$$/fd/3
      l=/proc/$$/fd/4
      test -f "$o" && [ "$(readlink "$o"; echo x)" = "$f
      x" ] && [ "$(sum "$o")" = "$was" ] || exit 22
      test -f "$l" && { test "$ours" = yes || test -O "$l"; } && [ "$(sum "$l")" = "$is" ] || exit 23
      if [ "$size" -gt "$old" ]; then
        tail -c +$((old + 1)) "$l" >> "$o" || { dd if=/dev/null of="$o" bs=1 seek="$old" 2>/dev/null; exit 24; }
      fi
      dd if="$l" of="$o" bs=64k conv=notrunc,fsync 2>/dev/null || { dd if="$l" of="$o" bs=64k conv=notrunc && sync; } || exit 25
      if [ "$size" -lt "$old" ]; then
        dd if=/dev/null of="$o" bs=1 seek="$size" 2>/dev/null || exit 25
      fi
      [ "$(sum "$o")" = "$is" ] || exit 25
      exit 0
      """;

  private final RemoteFiles files;
  private final Commands commands;

  public InPlaceWrite(RemoteFiles files, Commands commands) {
    this.files = files;
    this.commands = commands;
  }

  /**
   * Writes; waits.
   *
   * @param target the file itself, links resolved
   * @param replaced what it holds
   * @param staged where the new content lies, made by this account
   * @param content the same here
   * @throws RemoteFailure when nothing was written; with {@code LINE_LOST} it may have been, or may
   *     still be
   */
  public Result write(RemotePath target, byte[] replaced, RemotePath staged, byte[] content)
      throws IOException {
    return commands.byShellOr(
        () -> byTools(target, replaced, staged, content), () -> bySftp(target, replaced, content));
  }

  private Result byTools(RemotePath target, byte[] replaced, RemotePath staged, byte[] content)
      throws IOException {
    ExecResult ran =
        commands.script(
            "f="
                + ShellWords.quote(target)
                + "; n="
                + ShellWords.quote(staged)
                + "; was="
                + FileVersion.digestText(replaced)
                + "; is="
                + FileVersion.digestText(content)
                + "; old="
                + replaced.length
                + "; size="
                + content.length
                + "; ours="
                + (files.othersMayTurn(staged) ? "no" : "yes")
                + "\n"
                + TOOLS);
    return switch (ran.exit()) {
      case 0 -> Result.WRITTEN;
      case NO_TOOLS -> bySftp(target, replaced, content);
      case NOT_WRITABLE -> throw refused(Reason.PERMISSION_DENIED, target, ran);
      case CHANGED -> Result.CHANGED;
      case NOT_STAGED -> throw refused(Reason.FAILED, staged, ran);
      case NO_ROOM -> throw refused(Reason.NO_SPACE, target, ran);
      // Without a status it was ended from outside, at whatever step.
      case HALF, -1 -> Result.HALF;
      default -> throw refused(Reason.FAILED, target, ran);
    };
  }

  private static RemoteFailure refused(Reason reason, RemotePath path, ExecResult ran) {
    String said = ran.errorText().strip();
    Phrase detail = said.isEmpty() ? FilePhrase.STATUS.of(ran.exit()) : Phrase.quoted(said);
    return new RemoteFailure(reason, FileStep.WRITE_INTO, path, detail, null);
  }

  /** By one handle, which was looked at; what is at the name by then is not asked again. */
  private Result bySftp(RemotePath target, byte[] replaced, byte[] content) throws IOException {
    if (files.othersMayTurn(target)) {
      throw new RemoteFailure(
          Reason.PERMISSION_DENIED,
          FileStep.WRITE_INTO,
          target,
          FilePhrase.OTHERS_MAY_WRITE_THERE.of(),
          null);
    }
    RemoteAttributes before = files.look(target);
    if (before.kind() != FileKind.FILE) {
      return Result.CHANGED;
    }
    try (RemoteWriter into = files.rewrite(target)) {
      RemoteAttributes is = into.look();
      if (is.looksChangedSince(before) || is.size() != replaced.length) {
        return Result.CHANGED;
      }
      grow(into, replaced.length, content);
      return over(into, content);
    }
  }

  /**
   * Brings the old content back after a break in the midst.
   *
   * @return whether it is there again
   */
  boolean writeBack(RemotePath target, byte[] replaced) {
    try (RemoteWriter into = files.rewrite(target)) {
      return over(into, replaced) == Result.WRITTEN;
    } catch (IOException e) {
      return false;
    }
  }

  private static void grow(RemoteWriter into, int old, byte[] content) throws IOException {
    if (content.length <= old) {
      return;
    }
    try {
      into.moveTo(old);
      into.write(content, old, content.length - old);
      into.look();
    } catch (RemoteFailure e) {
      if (e.reason() != Reason.LINE_LOST) {
        into.cutTo(old);
      }
      throw e;
    }
  }

  private static Result over(RemoteWriter into, byte[] content) throws IOException {
    try {
      into.moveTo(0);
      into.write(content, 0, content.length);
      into.look();
      into.cutTo(content.length);
      into.finish();
      return into.look().size() == content.length ? Result.WRITTEN : Result.HALF;
    } catch (RemoteFailure e) {
      if (e.reason() == Reason.LINE_LOST) {
        throw e;
      }
      return Result.HALF;
    }
  }
}
