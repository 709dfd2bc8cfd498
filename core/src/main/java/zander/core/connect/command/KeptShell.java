package zander.core.connect.command;

import java.io.IOException;
import org.jspecify.annotations.Nullable;
import zander.core.files.RemotePath;

/** A shell that the server keeps when the line is lost, in a session of its tmux(1). */
public final class KeptShell {
  /** What stands in a command as it is. */
  private static final String NAME = "[A-Za-z0-9-]{1,40}";

  private KeptShell() {}

  /**
   * Goes on with a session, or begins it. It is seen as the shell in it would be, and its wheel
   * scrolls.
   */
  static String command(String name) {
    return "exec tmux -u new-session -A -s "
        + known(name)
        + " \\; set-option status off \\; set-option mouse on";
  }

  private static String known(String name) {
    if (!name.matches(NAME)) {
      throw new IllegalArgumentException("no name of a session: " + name);
    }
    return name;
  }

  /** Whether the server can keep one. */
  public static boolean isPossible(Commands commands) throws IOException {
    return commands.hasShell() && commands.script("command -v tmux").exit() == 0;
  }

  /**
   * The folder that it is in.
   *
   * @return null where that cannot be known
   */
  public static @Nullable RemotePath folder(Commands commands, String name) throws IOException {
    String ask = "tmux -u display-message -p -t =%s: '#{pane_current_path}'";
    return ShellPlace.path(commands.script(ask.formatted(known(name))));
  }
}
