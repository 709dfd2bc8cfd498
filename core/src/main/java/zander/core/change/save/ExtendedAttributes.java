package zander.core.change.save;

import java.io.IOException;
import zander.core.connect.command.Commands;
import zander.core.connect.command.ShellWords;
import zander.core.files.RemotePath;

/**
 * What is attached to a file besides owner, group and mode: its ACL, extended attributes, label and
 * capabilities. The server's own tools give them to a new file and compare both afterwards.
 */
final class ExtendedAttributes {
  private static final String COPY =
      """
      cp --attributes-only --preserve=all -- "$f" "$n" 2>/dev/null || exit 31
      touch -c -- "$n"
      list() {
        ls -ld -- "$1" | cut -c 1-11
        getfacl -cpE -- "$1" 2>/dev/null
        getfattr -h -d -m - -e hex --absolute-names -- "$1" 2>/dev/null | sed 1d
      }
      [ "$(list "$f")" = "$(list "$n")" ] || exit 32
      sync -- "$n" 2>/dev/null
      exit 0
      """;

  private ExtendedAttributes() {}

  /**
   * Gives them to another file; waits. Not for where others can turn the paths.
   *
   * @return whether it has them all by now, as far as the server's tools see
   */
  static boolean copy(Commands commands, RemotePath from, RemotePath to) throws IOException {
    return commands.byShellOr(
        () ->
            commands
                    .script(
                        "f=" + ShellWords.quote(from) + "; n=" + ShellWords.quote(to) + "\n" + COPY)
                    .exit()
                == 0,
        () -> false);
  }
}
