package zander.core.page;

import java.io.IOException;
import java.net.Socket;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Locale;
import java.util.stream.Stream;

/** Whose program is at the other end of a connection of the loopback, by proc(5). */
final class LoopbackPeer {
  private LoopbackPeer() {}

  /**
   * Whether it is of the account that runs this process. Where the system does not tell it, it is
   * not.
   */
  static boolean isOfThisAccount(Socket near) throws IOException {
    Object mine = Files.getAttribute(Path.of("/proc/self"), "unix:uid");
    String local = String.format(Locale.ROOT, ":%04X", near.getPort());
    String remote = String.format(Locale.ROOT, ":%04X", near.getLocalPort());
    for (String table : new String[] {"/proc/net/tcp", "/proc/net/tcp6"}) {
      if (!Files.isReadable(Path.of(table))) {
        continue;
      }
      try (Stream<String> lines = Files.lines(Path.of(table))) {
        boolean ours =
            lines
                .map(line -> line.strip().split("\\s+"))
                .anyMatch(
                    fields ->
                        fields.length > 7
                            && fields[1].endsWith(local)
                            && fields[2].endsWith(remote)
                            && fields[7].equals(String.valueOf(mine)));
        if (ours) {
          return true;
        }
      }
    }
    return false;
  }
}
