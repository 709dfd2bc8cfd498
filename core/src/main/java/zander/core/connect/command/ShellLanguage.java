package zander.core.connect.command;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.Locale;

/**
 * How programs in a shell write text: in the coding of the language that is set there (POSIX, XBD
 * chapter 7, and {@code locale}). A terminal knows UTF-8 alone.
 */
public final class ShellLanguage {
  private static final int MOST = 1024;

  /**
   * The shell's variables first, since {@code locale} by itself would say how this script writes;
   * then, because a start file may set others, what a login shell ends up with.
   */
  private static final String ASK =
      "set -- $(tr '\\0' '\\n' <\"/proc/$p/environ\" | sed -n"
          + " 's/^\\(LC_ALL\\|LC_CTYPE\\|LANG\\)=\\([A-Za-z0-9_.@-]*\\)$/\\1=\\2/p');"
          + " unset LC_ALL LC_CTYPE LANG;"
          + " c=$(env \"$@\" locale charmap 2>/dev/null); case \"$c\" in ''|UTF-8) ;; *)"
          + " c=$(env \"$@\" \"${SHELL:-/bin/sh}\" -lc 'locale charmap' </dev/null 2>/dev/null"
          + " | tail -n 1);; esac; printf '%s\\n' \"$c\"";

  private ShellLanguage() {}

  /**
   * The coding in which programs write, as the server names it. Asks where the session has room for
   * it, and waits.
   *
   * @param mark of a shell that runs
   * @return empty for UTF-8, and where it cannot be known
   */
  public static String otherCoding(Commands commands, String mark) throws IOException {
    if (mark.isEmpty() || !commands.hasShell()) {
      return "";
    }
    try (Pipe pipe = commands.pipe(ShellPlace.withProcess(mark, ASK))) {
      pipe.in().close();
      String said = new String(pipe.out().readNBytes(MOST), StandardCharsets.US_ASCII).strip();
      boolean utf8 = said.toUpperCase(Locale.ROOT).replace("-", "").equals("UTF8");
      return utf8 || !said.matches("[A-Za-z0-9][A-Za-z0-9_.:()+-]*") ? "" : said;
    }
  }
}
