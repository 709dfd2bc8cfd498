package zander.core.connect.command;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import zander.core.connect.channel.ActFailure;
import zander.core.connect.channel.Elevation;
import zander.core.connect.channel.WayUp;
import zander.core.work.VisibleText;

/** What a server's rules let an account run as another, in {@code sudo}'s own words. */
public final class SudoRules {
  private static final String HEAD = "may run the following commands";

  /** More are for its administrator. */
  private static final int MOST = 5;

  private SudoRules() {}

  /**
   * Adds to a refusal what is allowed, and the line that would allow the rest; waits.
   *
   * @param own runs as the account itself
   * @param account the account itself
   * @param right what was refused
   */
  public static IOException explained(
      IOException failure, Commands own, String account, Elevation right) {
    if (right.way() == WayUp.SUDO
        && failure instanceof ActFailure act
        && act.reason() == ActFailure.Reason.NOT_ALLOWED) {
      return act.with(allowed(own), account + " ALL=(" + right.account() + ") ALL");
    }
    return failure;
  }

  /** Asks nobody for a password; where sudo wants one for it, nothing is known. */
  private static List<String> allowed(Commands own) {
    try {
      return read(
          own.byShellOr(() -> own.script("sudo -n -l 2>/dev/null").out(), () -> new byte[0]));
    } catch (IOException e) {
      return List.of();
    }
  }

  /** Reads {@code sudo -l} in the C locale: indented lines after a head. */
  static List<String> read(byte[] said) {
    List<String> commands = new ArrayList<>();
    boolean listed = false;
    for (String line : new String(said, StandardCharsets.UTF_8).lines().toList()) {
      if (listed && line.startsWith(" ") && commands.size() < MOST) {
        commands.add(VisibleText.of(line.strip()));
      }
      listed |= line.contains(HEAD);
    }
    return commands;
  }
}
