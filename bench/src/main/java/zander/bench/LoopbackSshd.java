package zander.bench;

import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.TimeUnit;
import zander.standin.demo.DemoKeys;

/** The system's own {@code sshd} on a free loopback port, for the account that runs this. */
final class LoopbackSshd implements AutoCloseable {
  private static final Path BINARY = Path.of("/usr/sbin/sshd");

  private final int port;
  private final Path key;
  private final Process process;

  LoopbackSshd(Path folder) throws Exception {
    key = folder.resolve("key");
    DemoKeys.writePrivate(DemoKeys.pair("bench host"), "host", folder.resolve("host"));
    DemoKeys.writePrivate(DemoKeys.pair("bench user"), "user", key);
    Path keys = folder.resolve("authorized");
    Files.writeString(keys, DemoKeys.publicLine(DemoKeys.pair("bench user"), "user"));
    try (ServerSocket free = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
      port = free.getLocalPort();
    }
    Path config = folder.resolve("sshd_config");
    Files.write(
        config,
        List.of(
            "Port " + port,
            "ListenAddress 127.0.0.1",
            "HostKey " + folder.resolve("host"),
            "AuthorizedKeysFile " + keys,
            "StrictModes no",
            "UsePAM no",
            "PermitRootLogin yes",
            "PidFile none",
            // What this account's own start files do is not to be measured with every command.
            "SetEnv HOME=" + folder,
            "Subsystem sftp internal-sftp"));
    Files.createDirectories(Path.of("/run/sshd"));
    process =
        new ProcessBuilder(BINARY.toString(), "-D", "-e", "-f", config.toString())
            .redirectErrorStream(true)
            .redirectOutput(folder.resolve("log").toFile())
            .start();
    while (!answers()) {
      if (!process.isAlive()) {
        throw new IOException("sshd did not start");
      }
      process.waitFor(20, TimeUnit.MILLISECONDS);
    }
  }

  static boolean isPossible() {
    return Files.isExecutable(BINARY) && "root".equals(System.getProperty("user.name"));
  }

  private boolean answers() {
    try (Socket socket = new Socket()) {
      socket.connect(new InetSocketAddress(InetAddress.getLoopbackAddress(), port), 500);
      return true;
    } catch (IOException e) {
      return false;
    }
  }

  int port() {
    return port;
  }

  Path key() {
    return key;
  }

  @Override
  public void close() {
    process.destroy();
  }
}
