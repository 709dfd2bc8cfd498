package zander.core.change.effect;

import java.io.IOException;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import zander.core.change.save.StagedCheck;
import zander.core.connect.command.Commands;
import zander.core.connect.command.ShellWords;
import zander.core.connect.command.ShownOutput;
import zander.core.files.RemotePath;
import zander.core.files.WireName;
import zander.core.work.Cancellation;

/**
 * The command by which a program of the server takes a changed file in, such as {@code systemctl
 * reload nginx}, and how the program is some seconds later: one that reads a file it does not like
 * may end only then.
 *
 * @param command for {@code sh}; {@link StagedCheck#FILE} in it stands for the file
 */
public record EffectCommand(String command) {
  /** systemctl(1): the words that start a unit or make it read its files. */
  private static final Pattern BY_SYSTEMCTL =
      Pattern.compile(
          "\\bsystemctl\\s+(?:-\\S+\\s+)*"
              + "(?:start|reload|restart|try-restart|reload-or-restart|try-reload-or-restart)"
              + "\\s+(?:-\\S+\\s+)*([\\w@.:\\\\-]+)");

  /** service(8). */
  private static final Pattern BY_SERVICE =
      Pattern.compile("\\bservice\\s+([\\w@.-]+)\\s+(?:start|reload|restart|force-reload)\\b");

  private static final String LOOK =
      """
      i=0
      while s=$(systemctl is-active "$u"); [ "$s" = active ] || [ "$s" = reloading ] || [ "$s" = activating ]; do
        i=$((i + 1))
        [ $i -lt 4 ] || break
        sleep 1
      done
      printf '%s\\n' "$s"
      systemctl status --no-pager --full --lines=6 "$u" 2>&1 | tail -n 6
      [ "$s" = active ]
      """;

  /**
   * What came of it.
   *
   * @param said what the command wrote, and then the last lines of the unit's log; may be empty
   * @param unit the unit that was looked at; empty for none
   * @param state how it was at last, in systemd's words; empty for none
   */
  public record Effect(boolean worked, String said, String unit, String state) {}

  /** The unit of systemd that it is about, where it says so. */
  Optional<String> unit() {
    Matcher matcher = BY_SYSTEMCTL.matcher(command);
    if (matcher.find()) {
      return Optional.of(matcher.group(1));
    }
    matcher = BY_SERVICE.matcher(command);
    return matcher.find() ? Optional.of(matcher.group(1)) : Optional.empty();
  }

  /** As a script in wire form. */
  String script(RemotePath file) {
    return WireName.fromText(command).replace(StagedCheck.FILE, ShellWords.quote(file))
        + " < /dev/null\n";
  }

  /**
   * Runs it, and looks at its unit for three seconds; waits.
   *
   * @throws IOException when it could not be run, or its end is not known
   * @throws java.util.concurrent.CancellationException when it was stopped; the server may have
   *     done it
   */
  public Effect run(Commands commands, RemotePath file, Cancellation stop) throws IOException {
    ShownOutput ran = ShownOutput.of(commands, script(file), stop);
    String unit = unit().orElse("");
    if (ran.exit() != 0 || unit.isEmpty()) {
      return new Effect(ran.exit() == 0, ran.said(), "", "");
    }
    String ask =
        "command -v systemctl > /dev/null || exit 0\nu=" + ShellWords.quote(unit) + "\n" + LOOK;
    ShownOutput looked = ShownOutput.of(commands, ask, stop);
    String state = looked.said().lines().findFirst().orElse("");
    String log = looked.said().substring(state.length());
    return new Effect(looked.exit() == 0, (ran.said() + log).strip(), unit, state);
  }
}
