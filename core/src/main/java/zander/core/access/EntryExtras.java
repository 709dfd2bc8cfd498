package zander.core.access;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import org.jspecify.annotations.Nullable;
import zander.core.connect.command.Commands;
import zander.core.connect.command.ShellWords;
import zander.core.files.RemotePath;

/**
 * What else a server's tools tell of one entry: what it has beside owner, mode and list, and what
 * decides over new entries in it.
 *
 * @param capabilities of a program, as getcap(8) writes them; empty for none, or none that are seen
 * @param label of SELinux; empty where there is none
 * @param umask of this account's shell; -1 where it is not known
 * @param defaults the list that new entries get; {@code null} for none
 */
public record EntryExtras(
    String capabilities, String label, int umask, @Nullable DefaultList defaults) {
  public static final EntryExtras NOTHING = new EntryExtras("", "", -1, null);

  private static final String PART = "zander-part";
  private static final int PARTS = 4;
  private static final int LONGEST = 300;

  /**
   * Asks in one script, where there is a shell; waits.
   *
   * @param path a file or a folder, no link
   */
  public static EntryExtras of(Commands commands, RemotePath path) throws IOException {
    return commands.byShellOr(() -> ask(commands, path), () -> NOTHING);
  }

  private static EntryExtras ask(Commands commands, RemotePath path) throws IOException {
    String name = ShellWords.quote(path);
    String next = "; printf '\\n" + PART + "\\n'; ";
    String script =
        "umask"
            + next
            + "getfacl -cdnp -- "
            + name
            + " 2>/dev/null"
            + next
            + "stat -c %C -- "
            + name
            + " 2>/dev/null"
            + next
            + "PATH=$PATH:/usr/sbin:/sbin getcap "
            + name
            + " 2>/dev/null; exit 0";
    String said = new String(commands.script(script).out(), StandardCharsets.ISO_8859_1);
    String[] parts = said.split("(?m)^" + PART + "$", PARTS);
    if (parts.length < PARTS) {
      return NOTHING;
    }
    String umask = parts[0].strip();
    return new EntryExtras(
        capabilities(parts[3].strip(), path),
        label(parts[2].strip()),
        umask.matches("[0-7]{1,4}") ? Integer.parseInt(umask, 8) & 0777 : -1,
        DefaultList.parse(withPrefix(parts[1])));
  }

  /** With -d alone, getfacl leaves the word away. */
  private static String withPrefix(String lines) {
    StringBuilder all = new StringBuilder();
    lines
        .lines()
        .filter(line -> !line.isBlank())
        .forEach(
            line -> all.append(line.startsWith("default:") ? "" : "default:").append(line + "\n"));
    return all.toString();
  }

  /** {@code /usr/bin/ping cap_net_raw=ep}; older ones have {@code =} in between. */
  private static String capabilities(String line, RemotePath path) {
    if (!line.startsWith(path.wire() + " ") || line.length() > path.wire().length() + LONGEST) {
      return "";
    }
    String rest = line.substring(path.wire().length() + 1).strip();
    return shown(rest.startsWith("= ") ? rest.substring(2) : rest);
  }

  private static String label(String said) {
    return said.equals("?") || said.length() > LONGEST ? "" : shown(said);
  }

  /** They are shown: nothing else than what such words are made of. */
  private static String shown(String word) {
    return word.matches("[\\w:.,=+ -]*") ? word : "";
  }
}
