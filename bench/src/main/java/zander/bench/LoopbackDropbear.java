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

/** dropbear on a free loopback port, with an account of its own that goes with it. */
final class LoopbackDropbear implements AutoCloseable {
  static final String ACCOUNT = "zndbench";
  private static final Path BINARY = Path.of("/usr/sbin/dropbear");

  private final int port;
  private final Path key;
  private final Process process;

  LoopbackDropbear(Path folder) throws Exception {
    Path home = Files.createDirectories(folder.resolve(ACCOUNT));
    key = folder.resolve("dropbear-key");
    run("chmod", "755", folder.toString());
    runQuietly("userdel", ACCOUNT);
    run("useradd", "-M", "-d", home.toString(), "-p", "*", "-s", "/bin/sh", ACCOUNT);
    run("ssh-keygen", "-q", "-t", "ed25519", "-N", "", "-f", key.toString());
    Path ssh = Files.createDirectories(home.resolve(".ssh"));
    Files.copy(folder.resolve("dropbear-key.pub"), ssh.resolve("authorized_keys"));
    run("chmod", "-R", "go-rwx", ssh.toString());
    run("chown", "-R", ACCOUNT + ":", home.toString());
    Path host = folder.resolve("dropbear-host");
    run("dropbearkey", "-t", "ed25519", "-f", host.toString());
    try (ServerSocket free = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
      port = free.getLocalPort();
    }
    process =
        new ProcessBuilder(
                List.of(
                    BINARY.toString(),
                    "-F",
                    "-E",
                    "-p",
                    "127.0.0.1:" + port,
                    "-r",
                    host.toString(),
                    "-P",
                    folder.resolve("pid").toString()))
            .redirectErrorStream(true)
            .redirectOutput(folder.resolve("dropbear.log").toFile())
            .start();
    while (!answers()) {
      if (!process.isAlive()) {
        throw new IOException("dropbear did not start");
      }
      process.waitFor(20, TimeUnit.MILLISECONDS);
    }
  }

  static boolean isPossible() {
    return Files.isExecutable(BINARY);
  }

  private boolean answers() {
    try (Socket socket = new Socket()) {
      socket.connect(new InetSocketAddress(InetAddress.getLoopbackAddress(), port), 500);
      return true;
    } catch (IOException e) {
      return false;
    }
  }

  private static void run(String... command) throws Exception {
    if (runQuietly(command) != 0) {
      throw new IOException(String.join(" ", command) + " failed");
    }
  }

  private static int runQuietly(String... command) throws Exception {
    return new ProcessBuilder(command)
        .redirectErrorStream(true)
        .redirectOutput(ProcessBuilder.Redirect.DISCARD)
        .start()
        .waitFor();
  }

  int port() {
    return port;
  }

  Path key() {
    return key;
  }

  @Override
  public void close() throws Exception {
    process.descendants().forEach(ProcessHandle::destroyForcibly);
    process.destroy();
    process.waitFor(10, TimeUnit.SECONDS);
    runQuietly("userdel", ACCOUNT);
  }
}
