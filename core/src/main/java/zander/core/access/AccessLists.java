package zander.core.access;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import zander.core.connect.command.Commands;
import zander.core.connect.command.Pipe;
import zander.core.connect.command.ShellWords;
import zander.core.files.AnswerBounds;
import zander.core.files.RemoteFailure;
import zander.core.files.RemotePath;
import zander.core.rights.AccessList;

/**
 * The access control lists of a folder, of what is in it and of what is above it, as the server's
 * {@code getfacl} tells them; SFTP does not.
 */
public final class AccessLists {
  /** Nothing is known. */
  static final AccessLists UNKNOWN = new AccessLists(false, Map.of());

  /** Those without a list are skipped (-s), numbers are not made to names (-n). */
  static final String GET = "getfacl -pns -- ";

  private static final String EACH = "for f in * .*; do printf './%s\\0' \"$f\"; done";

  private static final int NO_TOOL = 40;
  private static final int TOO_MANY = 41;
  private static final int OCTAL = 8;

  private final boolean known;
  private final Map<RemotePath, AccessList> lists;

  private AccessLists(boolean known, Map<RemotePath, AccessList> lists) {
    this.known = known;
    this.lists = lists;
  }

  /**
   * Asks the server in one script, where a session has room for it: nobody signs in once more, or
   * is asked, for notes. Waits.
   *
   * @throws RemoteFailure with {@code LINE_LOST}; whatever else goes wrong, nothing is known
   */
  static AccessLists ask(Commands commands, RemotePath folder, List<RemotePath> above)
      throws IOException {
    if (!commands.hasShell()) {
      return UNKNOWN;
    }
    try {
      Said said = run(commands, script(folder, above, GET + "./* ./.* 2>/dev/null"));
      if (said.exit == TOO_MANY) {
        said = run(commands, script(folder, above, EACH + " | xargs -0 " + GET + "2>/dev/null"));
      }
      return said.exit == 0 ? new AccessLists(true, parse(said.text, folder)) : UNKNOWN;
    } catch (RuntimeException e) {
      return UNKNOWN;
    } catch (IOException e) {
      if (e instanceof RemoteFailure lost && lost.reason() == RemoteFailure.Reason.LINE_LOST) {
        throw e;
      }
      return UNKNOWN;
    }
  }

  private record Said(int exit, byte[] text) {}

  private static Said run(Commands commands, String script) throws IOException {
    try (Pipe pipe = commands.pipe(script)) {
      pipe.in().close();
      byte[] text = pipe.out().readNBytes(AnswerBounds.SCRIPT);
      boolean whole = text.length < AnswerBounds.SCRIPT;
      return new Said(whole ? pipe.finish().exit() : NO_TOOL, text);
    }
  }

  private static String script(RemotePath folder, List<RemotePath> above, String within) {
    // From 126 on, the tool was not run (POSIX XCU 2.8.2): there is none, or that was too long.
    return GET
        + ShellWords.quoteAll(above)
        + " 2>/dev/null; test $? -lt 126 || exit "
        + NO_TOOL
        + "; cd -- "
        + ShellWords.quote(folder)
        + " || exit "
        + NO_TOOL
        + "; "
        + within
        + "; test $? -lt 126 || exit "
        + TOO_MANY
        + "; exit 0";
  }

  /** Names in it have their line ends and backslashes as octal numbers. */
  static Map<RemotePath, AccessList> parse(byte[] said, RemotePath folder) {
    Map<RemotePath, AccessList> lists = new HashMap<>();
    for (String about : new String(said, StandardCharsets.ISO_8859_1).split("\n\n")) {
      RemotePath path = null;
      Entries entries = new Entries();
      for (String line : about.split("\n")) {
        if (line.startsWith("# file: ")) {
          path = path(unescaped(line.substring(8)), folder);
        } else if (!line.startsWith("#") && !line.startsWith("default:")) {
          entries.add(line);
        }
      }
      if (path != null && entries.mask >= 0) {
        lists.put(path, entries.list());
      }
    }
    return lists;
  }

  /**
   * The lines of each entry's list, without remarks, by its path from where {@code getfacl} ran.
   *
   * @param said what {@code getfacl -pn} wrote, in wire form
   */
  public static Map<String, String> texts(String said) {
    Map<String, String> texts = new HashMap<>();
    for (String about : said.split("\n\n")) {
      String path = null;
      StringBuilder text = new StringBuilder();
      for (String line : about.split("\n")) {
        if (line.startsWith("# file: ")) {
          String name = unescaped(line.substring(8));
          path = name.startsWith("./") ? name.substring(2) : name.equals(".") ? "" : name;
        } else if (line.startsWith("# flags: ")) {
          // A remark to setfacl(1), and what another account's setfacl may take away.
          text.append(line).append('\n');
        } else if (!line.startsWith("#") && !line.isBlank()) {
          // What the mask leaves is said behind it, which setfacl(1) takes for a remark.
          text.append(line.split("\t", 2)[0]).append('\n');
        }
      }
      if (path != null) {
        texts.put(path, text.toString());
      }
    }
    return texts;
  }

  /**
   * What a line of a list allows, as letters.
   *
   * @param start what it begins with
   * @return {@code null} where there is none
   */
  public static @Nullable String line(String text, String start) {
    return text.lines()
        .filter(line -> line.startsWith(start) && line.length() >= start.length() + 3)
        .map(line -> line.substring(start.length(), start.length() + 3))
        .findFirst()
        .orElse(null);
  }

  private static @Nullable RemotePath path(String name, RemotePath folder) {
    if (name.startsWith("/")) {
      return RemotePath.ofWire(name);
    }
    String own = name.startsWith("./") ? name.substring(2) : name;
    return own.equals(".") || own.equals("..") ? null : folder.child(own);
  }

  private static String unescaped(String name) {
    StringBuilder plain = new StringBuilder();
    for (int i = 0; i < name.length(); i++) {
      char c = name.charAt(i);
      if (c == '\\' && name.startsWith("\\", i + 1)) {
        plain.append(c);
        i++;
      } else if (c == '\\' && name.substring(i + 1).matches("(?s)[0-3][0-7][0-7].*")) {
        plain.append((char) Integer.parseInt(name.substring(i + 1, i + 4), OCTAL));
        i += 3;
      } else {
        plain.append(c);
      }
    }
    return plain.toString();
  }

  /** The lines of one file. */
  private static final class Entries {
    final Map<Integer, Integer> users = new HashMap<>();
    final Map<Integer, Integer> groups = new HashMap<>();
    int owningGroup;
    int mask = -1;

    void add(String line) {
      String[] fields = line.split("[:\t]");
      if (fields.length < 3 || fields[2].length() < 3) {
        return;
      }
      int bits = bits(fields[2]);
      switch (fields[0] + (fields[1].isEmpty() ? "" : ":")) {
        case "user:" -> users.put(Integer.parseUnsignedInt(fields[1]), bits);
        case "group:" -> groups.put(Integer.parseUnsignedInt(fields[1]), bits);
        case "group" -> owningGroup = bits;
        case "mask" -> mask = bits;
        default -> {
          // The owner's and others' are those of the mode.
        }
      }
    }

    private static int bits(String letters) {
      return (letters.charAt(0) == 'r' ? 4 : 0)
          | (letters.charAt(1) == 'w' ? 2 : 0)
          | (letters.charAt(2) == 'x' ? 1 : 0);
    }

    AccessList list() {
      return new AccessList(owningGroup, users, groups, mask);
    }
  }

  /** Whether the server told all there are. */
  boolean areKnown() {
    return known;
  }

  /** {@code null} for none. */
  @Nullable AccessList of(RemotePath path) {
    return lists.get(path);
  }
}
