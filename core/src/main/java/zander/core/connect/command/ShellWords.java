package zander.core.connect.command;

import zander.core.files.RemotePath;
import zander.core.files.WireName;

/** Words for a POSIX shell on the server, in wire form: any byte survives, none is run. */
public final class ShellWords {
  private ShellWords() {}

  /** What no shell takes for anything but itself between quotes, single or double. */
  private static final String PLAIN = " #%()*+,-./:;<=>?@[]^_{|}~&";

  /**
   * A command that runs a script in {@code sh}, whatever the account's login shell is: only words
   * that all shells read alike are left to that one, and any byte survives.
   *
   * @param wireScript in wire form
   */
  static String command(String wireScript) {
    return "exec sh -c 'LC_ALL=C; " + encoded(wireScript) + "'";
  }

  /** The same for one that starts what a person types into: their locale stays as it is. */
  static String interactive(String wireScript) {
    return "exec sh -c '" + encoded(wireScript) + "'";
  }

  private static String encoded(String wireScript) {
    StringBuilder letters = new StringBuilder();
    for (char c : wireScript.toCharArray()) {
      boolean plain =
          (c >= '0' && c <= '9')
              || (c >= 'A' && c <= 'Z')
              || (c >= 'a' && c <= 'z')
              || PLAIN.indexOf(c) >= 0;
      if (plain) {
        letters.append(c);
      } else {
        // POSIX XCU printf, the conversion b.
        letters.append('\\').append(String.format("0%03o", (int) c));
      }
    }
    return "eval \"$(printf %b \"" + letters + "\")\"";
  }

  /** The word in single quotes (POSIX XCU 2.2.2). A path is absolute, so it is never an option. */
  public static String quote(RemotePath path) {
    return quoteWire(path.wire());
  }

  /**
   * Goes into a folder, which every name without a slash is then looked up in, whatever becomes of
   * its path; the script ends with the status when the path does not lead there.
   *
   * @param real without links
   */
  public static String enter(RemotePath real, int status) {
    // What a command writes loses the line ends at its end (POSIX XCU 2.6.3): the x keeps them.
    return "{ cd -P -- "
        + quote(real)
        + " && [ \"$(pwd -P; echo x)\" = "
        + quoteWire(real.wire() + "\nx")
        + " ]; } || exit "
        + status
        + "; ";
  }

  /** The same for text, in UTF-8. */
  public static String quote(String text) {
    return quoteWire(WireName.fromText(text));
  }

  /** The same for several paths, with spaces between. */
  public static String quoteAll(java.util.List<RemotePath> paths) {
    return paths.stream().map(ShellWords::quote).collect(java.util.stream.Collectors.joining(" "));
  }

  /** The same for a word in wire form, which may begin with a dash: put {@code --} before it. */
  public static String quoteWire(String wire) {
    return "'" + wire.replace("'", "'\\''") + "'";
  }
}
