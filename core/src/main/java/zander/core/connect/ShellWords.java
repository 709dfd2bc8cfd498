package zander.core.connect;

import zander.core.files.RemotePath;
import zander.core.files.WireName;

/** Words for a POSIX shell on the server, in wire form: any byte survives, none is run. */
public final class ShellWords {
  private ShellWords() {}

  /** The word in single quotes (POSIX XCU 2.2.2). A path is absolute, so it is never an option. */
  public static String quote(RemotePath path) {
    return quoteWire(path.wire());
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
