package zander.core.change.effect;

import java.io.IOException;
import java.time.Duration;
import java.util.HexFormat;
import java.util.List;
import zander.core.change.place.HoldingFolder;
import zander.core.change.place.TemporaryName;
import zander.core.change.save.FileVersion;
import zander.core.connect.command.Commands;
import zander.core.connect.command.ExecResult;
import zander.core.connect.command.ShellWords;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;

/**
 * A change that the server takes back by itself unless it is told to keep it: for what can lock out
 * whoever makes it. Before the change, a copy of the file and a small script are laid into a closed
 * folder on the server, and the script is started so that no line and no program of ours keeps it
 * alive. When the time is over it puts the copy in the file's place, if that holds the new content
 * and nothing else, and runs the command that makes it take effect. Whatever happens, the folder is
 * gone in the end.
 *
 * <p>Who decides is settled by a rename: {@code wait} becomes {@code kept}, or {@code now}, and
 * only one can do it (POSIX rename).
 */
public final class ReturnGuard {
  private static final int NO_TOOLS = 20;
  private static final int NO_COPY = 21;
  private static final int NOT_STARTED = 22;

  private static final String BEFORE =
      """
      umask 077
      cd / || exit 20
      for t in sha256sum cp mv dd find sleep; do command -v $t > /dev/null || exit 20; done
      cp -a -- "$f" "$d/before" && [ "$(sha256sum < "$f")" = "$(sha256sum < "$d/before")" ] || exit 21
      : > "$d/wait" && printf %s "$script" > "$d/return" || exit 21
      if [ -d /run/systemd/system ] && [ "$(id -u)" = 0 ] && command -v systemd-run > /dev/null; then
        systemd-run --quiet --collect -- /bin/sh "$d/return" > /dev/null 2>&1 < /dev/null || s=no
      else
        s=no
      fi
      if [ "$s" = no ]; then
        # Not both: what is run in the end would inherit that SIGHUP is ignored.
        n=nohup
        command -v setsid > /dev/null && n=setsid
        $n sh "$d/return" < /dev/null > /dev/null 2>&1 &
      fi
      i=0
      until [ -e "$d/runs" ]; do
        i=$((i + 1))
        [ $i -le 100 ] || exit 22
        sleep 0.1 2> /dev/null || sleep 1
      done
      """;

  private static final String RETURN =
      """
      cd /
      : > "$d/runs"
      i=0
      while [ -e "$d/wait" ] && [ $i -lt "$seconds" ]; do
        sleep 1
        i=$((i + 1))
      done
      mv -- "$d/wait" "$d/now" 2> /dev/null
      if [ -e "$d/now" ] && [ "$(sha256sum < "$f" | cut -c 1-64)" = "$is" ]; then
        old=$(wc -c < "$d/before")
        # Other names of it, another owner, and what is mounted on it, stay only where it is written into.
        { { [ "$(id -u)" = 0 ] || { [ -O "$f" ] && [ -G "$f" ]; }; } && [ -z "$(find "$f" -prune -links +1)" ] && cp -a -- "$d/before" "$t" && sync && mv -f -- "$t" "$f"; } || {
          rm -f -- "$t"
          dd if="$d/before" of="$f" bs=64k conv=notrunc && dd if=/dev/null of="$f" bs=1 seek="$old"
        }
        sh -c "$effect"
      fi
      rm -rf -- "$d"
      """;

  private final RemotePath place;
  private final long began = System.nanoTime();
  private final Duration time;

  private ReturnGuard(RemotePath place, Duration time) {
    this.place = place;
    this.time = time;
  }

  /**
   * What is to be guarded.
   *
   * @param file links resolved
   * @param after the new content
   * @param effect run when the version before is back
   * @param time until it returns, at least a second
   */
  public record Wanted(RemotePath file, byte[] after, EffectCommand effect, Duration time) {}

  /**
   * Starts it; waits. The change is made after it.
   *
   * @throws RemoteFailure when the server cannot do it; nothing is left then
   */
  public static ReturnGuard start(RemoteFiles files, Commands commands, Wanted wanted)
      throws IOException {
    if (files.othersMayTurn(wanted.file())) {
      throw cannot(wanted, Reason.PERMISSION_DENIED, "others may write to a folder on its path");
    }
    RemotePath place = new HoldingFolder(files, files.realPath(".")).placeInHome();
    ExecResult ran;
    try {
      ran = commands.script(before(place, wanted));
    } catch (IOException e) {
      if (!(e instanceof RemoteFailure lost && lost.reason() == Reason.LINE_LOST)) {
        files.removeFolders(List.of(place));
      }
      throw e;
    }
    if (ran.exit() == 0) {
      return new ReturnGuard(place, wanted.time());
    }
    commands.script("rm -rf -- " + ShellWords.quote(place) + "\n");
    throw cannot(
        wanted,
        Reason.FAILED,
        switch (ran.exit()) {
          case NO_TOOLS -> "it does not have the programs for it";
          case NO_COPY -> "no copy of the file could be made: " + ran.errorText().strip();
          case NOT_STARTED -> "nothing that goes on by itself could be started";
          default -> ran.errorText().strip();
        });
  }

  private static RemoteFailure cannot(Wanted wanted, Reason reason, String why) {
    return new RemoteFailure(reason, "guard", wanted.file(), why, null);
  }

  private static String before(RemotePath place, Wanted wanted) {
    String names = "d=" + ShellWords.quote(place) + "\nf=" + ShellWords.quote(wanted.file()) + "\n";
    String is = HexFormat.of().formatHex(FileVersion.digestOf(wanted.after()));
    String script =
        names
            + "t="
            + ShellWords.quote(TemporaryName.beside(wanted.file()))
            + "\nis="
            + is
            + "\nseconds="
            + Math.max(1, wanted.time().toSeconds())
            + "\neffect="
            + ShellWords.quoteWire(wanted.effect().script(wanted.file()))
            + "\n"
            + RETURN;
    return names + "script=" + ShellWords.quoteWire(script) + "\n" + BEFORE;
  }

  /** How long it is until the server takes the change back; never negative. */
  public Duration left() {
    Duration left = time.minusNanos(System.nanoTime() - began);
    return left.isNegative() ? Duration.ZERO : left;
  }

  /**
   * Has the server keep the change, or let go a guard whose change was not made; waits.
   *
   * @param commands of whom it was started by, over any line
   * @return false when it was taken back by then
   */
  public boolean keep(Commands commands) throws IOException {
    return decide(commands, "kept");
  }

  /**
   * Has the server take the change back now; waits until that is done.
   *
   * @return false when it was decided otherwise by then
   */
  public boolean takeBack(Commands commands) throws IOException {
    return decide(commands, "now") && awaitEnd(commands);
  }

  private boolean decide(Commands commands, String how) throws IOException {
    String d = ShellWords.quote(place);
    return commands.script("mv -- " + d + "/wait " + d + "/" + how + " 2> /dev/null\n").exit() == 0;
  }

  /** Whether it has done what it was to do, and is gone; waits for one look. */
  public boolean hasEnded(Commands commands) throws IOException {
    return commands.script("[ ! -e " + ShellWords.quote(place) + " ]\n").exit() == 0;
  }

  /** Waits until it is gone, for half a minute at most after its time. */
  public boolean awaitEnd(Commands commands) throws IOException {
    String script =
        "i=0; while [ -e "
            + ShellWords.quote(place)
            + " ]; do i=$((i + 1)); [ $i -lt 30 ] || exit 1; sleep 1; done\n";
    return commands.script(script).exit() == 0;
  }
}
