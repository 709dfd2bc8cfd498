package zander.core.facts;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;
import java.util.List;
import org.jspecify.annotations.Nullable;
import zander.core.connect.command.Commands;
import zander.core.connect.command.ExecResult;
import zander.core.connect.command.ShellWords;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteEntry;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.files.TreeWalk;
import zander.core.work.Cancellation;

/**
 * Tells whether a tree is as it was: by the names and kinds of all that is in it, and the sizes and
 * times of its files, in a few letters. By the server's own tools where it has them, so that no
 * list comes over the line; by the file service otherwise. Contents are not read: what is written
 * into has another time (POSIX, "File Times Update"). Times of folders do not count: they change
 * when something that was put into one is put back again.
 */
public final class TreeMark {
  private static final String BY_TOOLS = "t";
  private static final String BY_FILES = "f";

  private static final String TOOLS =
      "find . \\( -type d -printf 'd %P\\0' -o -printf '%y %s %T@ %P\\0' \\)"
          + " | LC_ALL=C sort -z | sha256sum\n";

  private final RemoteFiles files;
  private final Commands commands;

  public TreeMark(RemoteFiles files, Commands commands) {
    this.files = files;
    this.commands = commands;
  }

  /**
   * The mark of a folder with all that is in it, or {@code null} where a part of it cannot be read;
   * waits.
   */
  public @Nullable String of(RemotePath folder) throws IOException {
    try {
      String byTools = commands.byShellOrNull(() -> byTools(folder));
      return byTools == null ? byFiles(folder) : byTools;
    } catch (RemoteFailure e) {
      if (e.reason() == RemoteFailure.Reason.LINE_LOST) {
        throw e;
      }
      return null;
    }
  }

  /** Whether it has the mark still; false as well where that cannot be found out. */
  public boolean isStill(RemotePath folder, String mark) throws IOException {
    String now =
        mark.startsWith(BY_TOOLS) ? commands.byShellOrNull(() -> byTools(folder)) : byFiles(folder);
    return mark.equals(now);
  }

  /** {@code null} where the server's tools cannot do it, or something is in their way. */
  private @Nullable String byTools(RemotePath folder) throws IOException {
    ExecResult ran = commands.script(ShellWords.enter(folder, 20) + TOOLS);
    String said = new String(ran.out(), StandardCharsets.ISO_8859_1);
    boolean whole = ran.exit() == 0 && ran.errors().length == 0 && said.length() >= 64;
    return whole ? BY_TOOLS + said.substring(0, 64) : null;
  }

  /** The sum of what each entry gives, so that their order does not matter. */
  private @Nullable String byFiles(RemotePath folder) throws IOException {
    Sum sum = new Sum(folder.wire().length());
    sum.add("", files.lookAll(List.of(folder)).get(0));
    new TreeWalk(files, new Cancellation())
        .below(
            folder,
            new TreeWalk.Visitor() {
              @Override
              public void entry(RemoteEntry entry) {
                sum.add(entry.path().wire().substring(sum.root), entry.attributes());
              }

              @Override
              public void unreadable(RemotePath unread, RemoteFailure why) {
                sum.whole = false;
              }
            });
    return sum.whole ? BY_FILES + sum.text() : null;
  }

  private static final class Sum {
    private final int root;
    private final long[] parts = new long[4];
    private boolean whole = true;

    Sum(int root) {
      this.root = root;
    }

    void add(String path, RemoteAttributes is) {
      if (is == null) {
        whole = false;
        return;
      }
      String own =
          switch (is.kind()) {
            case FOLDER -> "";
            case FILE -> is.size() + " " + is.modified();
            default -> String.valueOf(is.modified());
          };
      String all = is.kind() + " " + own + " " + path;
      ByteBuffer digest =
          ByteBuffer.wrap(sha256().digest(all.getBytes(StandardCharsets.ISO_8859_1)));
      for (int i = 0; i < parts.length; i++) {
        parts[i] += digest.getLong();
      }
    }

    String text() {
      ByteBuffer all = ByteBuffer.allocate(4 * Long.BYTES);
      for (long part : parts) {
        all.putLong(part);
      }
      return HexFormat.of().formatHex(all.array());
    }

    private static MessageDigest sha256() {
      try {
        return MessageDigest.getInstance("SHA-256");
      } catch (NoSuchAlgorithmException e) {
        throw new IllegalStateException(e);
      }
    }
  }
}
