package zander.suite.servers;

import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.List;
import java.util.concurrent.TimeUnit;
import zander.core.connect.Connection;
import zander.core.connect.Connector;
import zander.core.connect.address.ServerAddress;
import zander.core.connect.signin.SignInMethods;
import zander.core.trust.KnownHosts;
import zander.suite.SystemSshd;
import zander.suite.TestPrompts;

/** An SSH server that is not OpenSSH, on a free loopback port, for one test class. */
public final class OtherServer implements AutoCloseable {
  private static final String DROPBEAR = "/usr/sbin/dropbear";
  private static final String PROFTPD = "/usr/sbin/proftpd";

  private final Path folder;
  private final int port;
  private final Process process;
  private final TestAccount account;
  public final Connector connector;

  private interface Command {
    List<String> at(int port) throws Exception;
  }

  private OtherServer(Path folder, TestAccount account, Command command) throws Exception {
    this.folder = folder;
    this.account = account;
    try (ServerSocket free = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
      port = free.getLocalPort();
    }
    process =
        new ProcessBuilder(command.at(port))
            .redirectErrorStream(true)
            .redirectOutput(folder.resolve("server.log").toFile())
            .start();
    awaitPort();
    connector =
        new Connector(
            new KnownHosts(folder.resolve("known_hosts")),
            address ->
                List.of(new InetSocketAddress(InetAddress.getLoopbackAddress(), address.port())),
            null,
            java.time.Duration.ofSeconds(30));
  }

  /**
   * dropbear, as small systems have it: its window is 24 KiB, its file service a program.
   *
   * @param options more of its command line
   */
  public static OtherServer dropbear(Path folder, String account, String shell, String... options)
      throws Exception {
    prepare(folder);
    SystemSshd.run("dropbearkey", "-t", "ed25519", "-f", folder.resolve("hostkey").toString());
    TestAccount made =
        TestAccount.make(account, folder.resolve(account), shell, folder.resolve("userkey.pub"));
    return new OtherServer(
        folder,
        made,
        port -> {
          List<String> command =
              new java.util.ArrayList<>(
                  List.of(
                      DROPBEAR,
                      "-F",
                      "-E",
                      "-p",
                      "127.0.0.1:" + port,
                      "-r",
                      folder.resolve("hostkey").toString(),
                      "-P",
                      folder.resolve("pid").toString()));
          command.addAll(List.of(options));
          return command;
        });
  }

  /** An FTP server's SFTP part: no shell at all, and links are looked through. */
  public static OtherServer proftpd(Path folder, String account) throws Exception {
    prepare(folder);
    SystemSshd.run(
        "ssh-keygen", "-q", "-t", "rsa", "-m", "PEM", "-N", "", "-f", folder + "/hostkey");
    // It reads public keys in the form of RFC 4716 alone.
    Path keys = folder.resolve("authorized");
    Files.writeString(keys, SystemSshd.run("ssh-keygen", "-e", "-f", folder + "/userkey.pub"));
    TestAccount made =
        TestAccount.make(
            account, folder.resolve(account), "/usr/sbin/nologin", folder.resolve("userkey.pub"));
    return new OtherServer(
        folder,
        made,
        port -> {
          Path config = folder.resolve("proftpd.conf");
          Files.write(
              config,
              List.of(
                  "ServerName riverwatch",
                  "ServerType standalone",
                  "DefaultServer on",
                  "UseIPv6 off",
                  "UseReverseDNS off",
                  "DefaultAddress 127.0.0.1",
                  "SocketBindTight on",
                  "Port " + port,
                  "ModulePath /usr/lib/proftpd",
                  "LoadModule mod_sftp.c",
                  "User " + account,
                  "Group " + account,
                  "AuthOrder mod_auth_unix.c",
                  "RequireValidShell off",
                  "PidFile " + folder.resolve("pid"),
                  "ScoreboardFile " + folder.resolve("scoreboard"),
                  "DelayEngine off",
                  "WtmpLog off",
                  "TransferLog none",
                  "SystemLog " + folder.resolve("system.log"),
                  "AllowOverwrite on",
                  "<IfModule mod_sftp.c>",
                  "SFTPEngine on",
                  "SFTPLog " + folder.resolve("sftp.log"),
                  "SFTPHostKey " + folder.resolve("hostkey"),
                  "SFTPAuthMethods publickey",
                  "SFTPAuthorizedUserKeys file:" + keys,
                  "</IfModule>"));
          return List.of(PROFTPD, "-n", "-c", config.toString());
        });
  }

  private static void prepare(Path folder) throws Exception {
    Files.createDirectories(folder);
    Files.setPosixFilePermissions(folder, PosixFilePermissions.fromString("rwxr-xr-x"));
    SystemSshd.run("ssh-keygen", "-q", "-t", "ed25519", "-N", "", "-f", folder + "/userkey");
  }

  private void awaitPort() throws Exception {
    long deadline = System.nanoTime() + TimeUnit.SECONDS.toNanos(30);
    while (true) {
      try (Socket socket = new Socket()) {
        socket.connect(new InetSocketAddress(InetAddress.getLoopbackAddress(), port), 1000);
        return;
      } catch (IOException e) {
        if (!process.isAlive() || System.nanoTime() > deadline) {
          throw new IOException("it did not start: " + log(), e);
        }
        process.waitFor(20, TimeUnit.MILLISECONDS);
      }
    }
  }

  public String log() throws IOException {
    return Files.readString(folder.resolve("server.log"));
  }

  public int port() {
    return port;
  }

  public TestAccount account() {
    return account;
  }

  public Connection open() throws IOException {
    return openThrough(port);
  }

  /**
   * @param throughPort that of a line that leads here
   */
  public Connection openThrough(int throughPort) throws IOException {
    return connector.open(
        new ServerAddress(account.name(), "localhost", throughPort),
        SignInMethods.byKey(folder.resolve("userkey")),
        TestPrompts.accepting());
  }

  @Override
  public void close() throws Exception {
    connector.close();
    process.descendants().forEach(ProcessHandle::destroyForcibly);
    process.destroy();
    process.waitFor(10, TimeUnit.SECONDS);
    account.remove();
  }
}
