package zander.core.connect.command;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * What a server's own tools can do, as far as transfers use them.
 *
 * @param unpacks whether its {@code tar} unpacks a stream and says of what it cannot unpack (GNU's)
 * @param packs whether it packs exactly the names it is given, ended by NUL, while they come
 *     (GNU's; not relied on before version 1.29, because old ones read all names first)
 * @param streams whether {@code cat}, {@code dd} and the like are there
 * @param sums whether {@code sha256sum} answers with names ended by NUL
 * @param compresses whether {@code gzip} is there, and a {@code head} that takes just so many bytes
 * @param holes whether {@code dd} leaves holes for zeros (GNU's does)
 */
public record ServerTools(
    boolean unpacks,
    boolean packs,
    boolean streams,
    boolean sums,
    boolean holes,
    boolean compresses) {
  public static final ServerTools NONE = new ServerTools(false, false, false, false, false, false);

  private static final Pattern VERSION = Pattern.compile("\\b(\\d{1,4})\\.(\\d{1,4})");

  private static final String ASK =
      """
      echo 'tar  ' $(tar --version 2>/dev/null </dev/null | head -n 1)
      echo 'dd  ' $(dd --version 2>/dev/null </dev/null | head -n 1)
      echo 'gzip ' $(command -v gzip) $(echo abc | head -c 2)
      echo 'cat ' $(command -v cat) $(command -v dd)
      echo 'sums ' $(sha256sum -z /dev/null 2>/dev/null | tr '\\0' '!')
      """;

  /** Asks the server; waits. An account without a shell has none. */
  public static ServerTools ask(Commands commands) throws IOException {
    ExecResult result = commands.byShellOrNull(() -> commands.script(ASK));
    if (result == null) {
      return NONE;
    }
    List<String> lines = new String(result.out(), StandardCharsets.ISO_8859_1).lines().toList();
    String tar = line(lines, "tar ");
    boolean gnuTar = tar.contains("GNU tar");
    boolean streams = line(lines, "cat ").split(" +").length >= 3;
    return new ServerTools(
        streams && gnuTar,
        streams && gnuTar && isFrom(tar, 1, 29),
        streams,
        line(lines, "sums ").contains("!"),
        line(lines, "dd ").contains("coreutils"),
        line(lines, "gzip ").contains("/gzip ab"));
  }

  /** Whether a program's own words give this version or a later one. */
  public static boolean isFrom(String said, int major, int minor) {
    Matcher version = VERSION.matcher(said);
    if (!version.find()) {
      return false;
    }
    int is = Integer.parseInt(version.group(1));
    return is > major || (is == major && Integer.parseInt(version.group(2)) >= minor);
  }

  private static String line(List<String> lines, String start) {
    return lines.stream().filter(line -> line.startsWith(start)).findFirst().orElse("");
  }
}
