package zander.bench;

import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.EnumSet;
import java.util.List;
import java.util.stream.Stream;
import org.apache.commons.compress.archivers.tar.TarArchiveEntry;
import org.apache.commons.compress.archivers.tar.TarArchiveOutputStream;
import org.apache.sshd.client.SshClient;
import org.apache.sshd.client.channel.ChannelExec;
import org.apache.sshd.client.channel.ClientChannelEvent;
import org.apache.sshd.client.keyverifier.AcceptAllServerKeyVerifier;
import org.apache.sshd.client.session.ClientSession;
import org.apache.sshd.common.cipher.BuiltinCiphers;
import org.apache.sshd.common.keyprovider.FileKeyPairProvider;
import org.apache.sshd.core.CoreModuleProperties;
import org.apache.sshd.sftp.client.SftpClient;
import org.apache.sshd.sftp.client.SftpClientFactory;

/**
 * The SSH library by itself, set up as well as it goes: what Zander's own way is measured against.
 */
final class LibraryLine implements AutoCloseable {
  private static final Duration PATIENCE = Duration.ofSeconds(30);

  private final SshClient client;
  private final ClientSession session;

  LibraryLine(int port, Path key) throws IOException {
    client = SshClient.setUpDefaultClient();
    client.setServerKeyVerifier(AcceptAllServerKeyVerifier.INSTANCE);
    client.setKeyIdentityProvider(new FileKeyPairProvider(key));
    client.setCipherFactories(List.of(BuiltinCiphers.aes128gcm));
    CoreModuleProperties.TCP_NODELAY.set(client, true);
    CoreModuleProperties.WINDOW_SIZE.set(client, 16L << 20);
    client.start();
    session = client.connect("root", "127.0.0.1", port).verify(PATIENCE).getSession();
    session.auth().verify(PATIENCE);
  }

  SftpClient files() throws IOException {
    return SftpClientFactory.instance().createSftpClient(session);
  }

  /** Takes what a command writes. */
  interface Taking {
    void from(InputStream in) throws IOException;
  }

  /** Seconds to bring a command's output into a file here. */
  double down(String command, Path into) throws IOException {
    return down(
        command,
        in -> {
          try (OutputStream out = Files.newOutputStream(into)) {
            copy(in, out);
          }
        });
  }

  double down(String command, Taking taking) throws IOException {
    long start = System.nanoTime();
    try (ChannelExec channel = session.createExecChannel(command)) {
      channel.open().verify(PATIENCE);
      taking.from(channel.getInvertedOut());
      channel.waitFor(EnumSet.of(ClientChannelEvent.CLOSED), Duration.ZERO);
    }
    return since(start);
  }

  /** As Zander copies: in parts of 255 KiB. */
  static void copy(InputStream in, OutputStream out) throws IOException {
    byte[] buffer = new byte[255 * 1024];
    for (int count; (count = in.read(buffer)) >= 0; ) {
      out.write(buffer, 0, count);
    }
  }

  interface Feed {
    void into(OutputStream out) throws IOException;
  }

  /** Seconds to feed a command and see it end. */
  double up(String command, Feed feed) throws IOException {
    long start = System.nanoTime();
    try (ChannelExec channel = session.createExecChannel(command)) {
      channel.open().verify(PATIENCE);
      try (OutputStream out = channel.getInvertedIn()) {
        feed.into(out);
      }
      channel.waitFor(EnumSet.of(ClientChannelEvent.CLOSED), Duration.ZERO);
      if (!Integer.valueOf(0).equals(channel.getExitStatus())) {
        throw new IOException(command + " ended with " + channel.getExitStatus());
      }
    }
    return since(start);
  }

  /** Writes the files of one folder as a tar stream. */
  static void tar(Path folder, OutputStream out) throws IOException {
    try (TarArchiveOutputStream tar =
            new TarArchiveOutputStream(new BufferedOutputStream(out, 65536));
        Stream<Path> files = Files.list(folder)) {
      for (Path file : files.toList()) {
        byte[] content = Files.readAllBytes(file);
        TarArchiveEntry entry = new TarArchiveEntry(file.getFileName().toString());
        entry.setSize(content.length);
        tar.putArchiveEntry(entry);
        tar.write(content);
        tar.closeArchiveEntry();
      }
    }
  }

  static double since(long start) {
    return (System.nanoTime() - start) / 1e9;
  }

  @Override
  public void close() {
    client.stop();
  }
}
