package zander.core.facts;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;
import org.jspecify.annotations.Nullable;
import zander.core.connect.command.Commands;
import zander.core.connect.command.ExecResult;
import zander.core.connect.command.ShellWords;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.work.Cancellation;

/** SHA-256 of files: computed by the server where it can, read back otherwise. */
public final class Checksums {
  private final RemoteFiles files;
  private final Commands commands;

  public Checksums(RemoteFiles files, Commands commands) {
    this.files = files;
    this.commands = commands;
  }

  /**
   * @param digest 64 hexadecimal digits
   * @param byServer whether the content did not come here
   */
  public record Checksum(String digest, boolean byServer) {}

  /**
   * @throws java.util.concurrent.CancellationException when it was stopped
   */
  public Checksum of(RemotePath file, Cancellation stop) throws IOException {
    String digest = commands.byShellOrNull(() -> byServer(file, stop));
    return digest != null ? new Checksum(digest, true) : new Checksum(readBack(file, stop), false);
  }

  /** {@code null} when the server has no fitting tool, or cannot read the file. */
  private @Nullable String byServer(RemotePath file, Cancellation stop) throws IOException {
    // By redirection, because a tool that is given a name writes some names in a way of its own.
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    ExecResult result =
        commands.stream("sha256sum < " + ShellWords.quote(file), out::writeBytes, stop);
    String text = out.toString(StandardCharsets.US_ASCII);
    return result.exit() == 0 && text.matches("(?s)[0-9a-f]{64} .*") ? text.substring(0, 64) : null;
  }

  private String readBack(RemotePath file, Cancellation stop) throws IOException {
    try (InputStream in = files.read(file)) {
      MessageDigest digest = MessageDigest.getInstance("SHA-256");
      byte[] buffer = new byte[256 * 1024];
      for (int count; (count = in.read(buffer)) >= 0; ) {
        stop.throwIfStopped();
        digest.update(buffer, 0, count);
      }
      return HexFormat.of().formatHex(digest.digest());
    } catch (NoSuchAlgorithmException e) {
      throw new IllegalStateException(e);
    }
  }
}
