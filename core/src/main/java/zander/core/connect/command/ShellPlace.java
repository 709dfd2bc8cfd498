package zander.core.connect.command;

import java.io.IOException;
import java.security.SecureRandom;
import java.util.HexFormat;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import zander.core.files.RemotePath;
import zander.core.files.WireName;

/**
 * What a shell's process has in its environment: the language of this computer, and a mark, by
 * which the process is found again among all others to say which folder it is in.
 */
public final class ShellPlace {
  private static final String MARK = "ZANDER_SHELL";
  private static final SecureRandom RANDOM = new SecureRandom();
  private static final String UTF_8 = "C.UTF-8";

  private ShellPlace() {}

  /**
   * What programs in the terminal are told (RFC 4254, section 6.4; a server takes what it allows):
   * its colours, and the language here, in the only coding that the terminal knows.
   *
   * @param here the environment of this program
   */
  static Map<String, String> environment(Map<String, String> here) {
    Map<String, String> told = new TreeMap<>();
    told.put("LANG", UTF_8);
    here.forEach(
        (name, value) -> {
          boolean locale = name.equals("LANG") || name.startsWith("LC_");
          if (locale && value.toUpperCase(Locale.ROOT).replace("-", "").endsWith("UTF8")) {
            told.put(name, value);
          }
        });
    told.put("COLORTERM", "truecolor");
    return told;
  }

  /** A mark that no other process has. */
  static String newMark() {
    byte[] bytes = new byte[8];
    RANDOM.nextBytes(bytes);
    return HexFormat.of().formatHex(bytes);
  }

  /** What gives it to the shell that is started behind. */
  static String marking(String mark) {
    return MARK + "=" + mark + "; export " + MARK + "; ";
  }

  /** The path that a script printed; null for none. */
  static @Nullable RemotePath path(ExecResult result) {
    String wire = WireName.fromBytes(result.out());
    boolean found = wire.startsWith("/") && wire.endsWith("\n");
    return found ? RemotePath.ofWire(wire.substring(0, wire.length() - 1)) : null;
  }

  /**
   * The folder that a shell is in, by the server's list of processes (Linux, proc(5)).
   *
   * @return null where that cannot be known: another system, or a shell of another account
   */
  public static @Nullable RemotePath of(Commands commands, String mark) throws IOException {
    if (mark.isEmpty() || !commands.hasShell()) {
      return null;
    }
    return path(commands.script(withProcess(mark, "readlink \"/proc/$p/cwd\"")));
  }

  /** A script that does something with the process of a shell, whose number is in {@code $p}. */
  static String withProcess(String mark, String action) {
    // Its children have the mark too: it is the one whose parent has not.
    return ("m=' '; for f in $(grep -lzx '%1$s=%2$s' /proc/[0-9]*/environ 2>/dev/null); do"
            + " p=${f%%/environ}; m=\"$m${p#/proc/} \"; done; for p in $m; do"
            + " q=$(sed -n 's/^PPid:[^0-9]*//p' \"/proc/$p/status\" 2>/dev/null);"
            + " case \"$m\" in *\" $q \"*) ;; *) %3$s; exit;; esac; done")
        .formatted(MARK, mark, action);
  }
}
