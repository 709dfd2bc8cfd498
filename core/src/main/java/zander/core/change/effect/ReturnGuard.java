package zander.core.change.effect;

import java.io.IOException;
import java.time.Duration;
import java.util.HexFormat;
import java.util.List;
import java.util.concurrent.locks.LockSupport;
import zander.core.change.place.HoldingFolder;
import zander.core.change.place.Renames;
import zander.core.change.place.TemporaryName;
import zander.core.change.save.AtomicSave;
import zander.core.change.save.FileVersion;
import zander.core.connect.command.Commands;
import zander.core.connect.command.ExecResult;
import zander.core.connect.command.ShellWords;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.files.WireName;
import zander.core.journal.ChangeKind;
import zander.core.journal.FileState;
import zander.core.journal.Journal;
import zander.core.journal.NewChange;
import zander.core.phrase.JournalPhrase;

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

  private static final Duration LOOK = Duration.ofMillis(250);

  /** What putting back, and the command after it, may take. */
  private static final Duration MOST_WORK = Duration.ofMinutes(1);

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
   * @throws GuardRefused when the server cannot do it; nothing is left then
   */
  public static ReturnGuard start(RemoteFiles files, Commands commands, Wanted wanted)
      throws IOException {
    if (files.othersMayTurn(wanted.file())) {
      throw new GuardRefused(GuardRefused.Reason.OTHERS_MAY_TURN, "");
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
    GuardRefused.Reason reason =
        switch (ran.exit()) {
          case NO_TOOLS -> GuardRefused.Reason.NO_TOOLS;
          case NO_COPY -> GuardRefused.Reason.NO_COPY;
          case NOT_STARTED -> GuardRefused.Reason.NOT_STARTED;
          default -> GuardRefused.Reason.FAILED;
        };
    throw new GuardRefused(
        reason, ran.errorText().lines().findFirst().map(WireName::toText).orElse(""));
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
   * Has the server keep the change, or let go a guard whose change was not made; waits. By the file
   * service, because a script may not be let run any more after the change.
   *
   * @param files of whom it was started by, over any line
   * @return false when it was taken back by then
   */
  public boolean keep(RemoteFiles files) throws IOException {
    return decide(files, "kept");
  }

  /**
   * Has the server take the change back now; waits until that is done.
   *
   * @return false when it was decided otherwise by then, or is not done within a minute
   */
  public boolean takeBack(RemoteFiles files) throws IOException {
    return decide(files, "now") && awaitEnd(files);
  }

  private boolean decide(RemoteFiles files, String how) throws IOException {
    try {
      files.rename(place.child("wait"), place.child(how));
      return true;
    } catch (RemoteFailure e) {
      if (e.reason() == Reason.NO_SUCH_FILE) {
        return false;
      }
      throw e;
    }
  }

  /** Whether it has done what it was to do, and is gone; waits for one look. */
  public boolean hasEnded(RemoteFiles files) throws IOException {
    return !Renames.exists(files, place);
  }

  /** Waits until it is gone, for a minute at most. */
  public boolean awaitEnd(RemoteFiles files) throws IOException {
    long deadline = System.nanoTime() + MOST_WORK.toNanos();
    while (!hasEnded(files)) {
      if (System.nanoTime() > deadline) {
        return false;
      }
      LockSupport.parkNanos(LOOK.toNanos());
    }
    return true;
  }

  /**
   * Writes down what the server has done by itself, so that the history tells it and it can be put
   * back like any other change.
   *
   * @param made the save that it has taken back
   * @param content what was saved
   * @param now what the server has
   */
  public static void note(Journal journal, AtomicSave.Saved made, byte[] content, FileVersion now)
      throws IOException {
    FileState is = FileState.of(now.attributes()).withDigest(now.digestText());
    journal
        .begin(
            NewChange.of(ChangeKind.SAVE, now.real())
                .states(
                    FileState.of(made.version().attributes())
                        .withDigest(made.version().digestText()),
                    is)
                .content(content)
                .undoes(made.entry())
                .note(JournalPhrase.PUT_BACK_BY_THE_SERVER))
        .done(is, List.of());
  }
}
