package zander.suite;

import static java.nio.charset.StandardCharsets.UTF_8;

import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;
import java.util.stream.Collectors;
import zander.core.connect.Connection;
import zander.core.connect.Connector;
import zander.core.connect.address.ServerAddress;
import zander.core.connect.signin.SignInMethods;
import zander.core.trust.KnownHosts;
import zander.standin.demo.DemoKeys;

/**
 * The system's own {@code sshd} on a free loopback port, with keys and accounts made for one test
 * class and removed after it. Needs root, because a server changes accounts.
 */
public final class SystemSshd implements AutoCloseable {
  public static final Path BINARY = Path.of("/usr/sbin/sshd");

  private static final int NO_SUCH_ACCOUNT = 6;

  /** One in a Match block stands instead of those before it, not beside them. */
  private static final String SET_ENV = "SetEnv ";

  private final Path folder;
  private final int port;
  private final String mounts;
  private Process process;
  private final List<String> accounts = new ArrayList<>();
  public final Connector connector;

  public SystemSshd(Path folder, List<String> wantedAccounts, List<String> moreConfig)
      throws Exception {
    this(folder, wantedAccounts, moreConfig, "");
  }

  /**
   * @param mounts commands that change what is mounted where, for this server alone; empty for none
   */
  public SystemSshd(
      Path folder, List<String> wantedAccounts, List<String> moreConfig, String mounts)
      throws Exception {
    this.folder = folder;
    this.mounts = mounts;
    Files.setPosixFilePermissions(folder, PosixFilePermissions.fromString("rwxr-xr-x"));
    for (String account : wantedAccounts) {
      // A run that was killed may have left it.
      removeAccount(account);
      // '*' is no password at all; the '!' of a locked account would be refused.
      run(
          "useradd",
          "-M",
          "-d",
          folder.resolve(account).toString(),
          "-p",
          "*",
          "-s",
          "/bin/sh",
          account);
      accounts.add(account);
      Files.createDirectories(folder.resolve(account));
      run("chown", account + ":", folder.resolve(account).toString());
    }
    DemoKeys.writePrivate(DemoKeys.pair("suite host"), "host", folder.resolve("hostkey"));
    DemoKeys.writePrivate(DemoKeys.pair("suite user"), "user", keyFile());
    Path keys = folder.resolve("authorized");
    Files.writeString(keys, DemoKeys.publicLine(DemoKeys.pair("suite user"), "user"));
    try (ServerSocket free = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
      port = free.getLocalPort();
    }
    // A Match block reaches to the end of the file, so a test's own come last.
    List<String> plain = moreConfig.stream().takeWhile(line -> !line.startsWith("Match ")).toList();
    List<String> config = new ArrayList<>(plain);
    config.addAll(
        List.of(
            "Port " + port,
            "ListenAddress 127.0.0.1",
            "HostKey " + folder.resolve("hostkey"),
            "AuthorizedKeysFile " + keys,
            "StrictModes no",
            "UsePAM no",
            "PasswordAuthentication no",
            "PermitRootLogin yes",
            "PidFile none",
            "MaxStartups 200",
            "MaxSessions 50",
            // One of a test's own stands instead: sshd refuses to have two.
            moreConfig.stream().anyMatch(line -> line.startsWith("Subsystem "))
                ? ""
                : "Subsystem sftp internal-sftp",
            // The tests are not to run, or to cut off, what the machine's own root has it start.
            "Match User root",
            "SetEnv HOME="
                + Files.createDirectories(folder.resolve("root-home"))
                + moreConfig.stream()
                    .filter(line -> line.startsWith(SET_ENV))
                    .map(line -> line.substring(SET_ENV.length() - 1))
                    .collect(Collectors.joining())));
    config.addAll(moreConfig.subList(plain.size(), moreConfig.size()));
    Path configFile = folder.resolve("sshd_config");
    Files.write(configFile, config);
    Files.createDirectories(Path.of("/run/sshd"));
    launch();
    connector = connector(folder.resolve("known_hosts"));
  }

  private void launch() throws Exception {
    List<String> command = new ArrayList<>();
    if (!mounts.isEmpty()) {
      // What is mounted in this namespace is seen by nobody else (unshare(1)).
      command.addAll(
          List.of("unshare", "-m", "sh", "-e", "-c", mounts + "; exec \"$@\"", "namespace"));
    }
    command.addAll(
        List.of(BINARY.toString(), "-D", "-e", "-f", folder.resolve("sshd_config").toString()));
    process =
        new ProcessBuilder(command)
            .redirectErrorStream(true)
            .redirectOutput(ProcessBuilder.Redirect.appendTo(folder.resolve("sshd.log").toFile()))
            .start();
    awaitPort();
    // What was looked for by must be over: a server may allow one connection at a time.
    long deadline = System.nanoTime() + TimeUnit.SECONDS.toNanos(10);
    while (sessionCount() > 0 && System.nanoTime() < deadline) {
      process.waitFor(5, TimeUnit.MILLISECONDS);
    }
  }

  /**
   * The number of its process, which stays when it reads its files again for a SIGHUP (sshd(8)).
   */
  public long processId() {
    return process.pid();
  }

  /** Starts it anew, so that it reads its files again. */
  public void restart() throws Exception {
    process.destroy();
    process.waitFor(10, TimeUnit.SECONDS);
    launch();
  }

  /** Kills the processes of all that is signed in; the server itself goes on. */
  public void killSessions() {
    process.descendants().forEach(ProcessHandle::destroyForcibly);
  }

  /** How many processes serve somebody. */
  public long sessionCount() {
    return process.descendants().count();
  }

  /** Whether this machine can run the suite; asked in an assumption, so that it is told. */
  public static boolean isPossible() {
    return Files.isExecutable(BINARY) && "root".equals(System.getProperty("user.name"));
  }

  private void awaitPort() throws Exception {
    long deadline = System.nanoTime() + TimeUnit.SECONDS.toNanos(30);
    while (true) {
      try (Socket socket = new Socket()) {
        socket.connect(new InetSocketAddress(InetAddress.getLoopbackAddress(), port), 1000);
        return;
      } catch (IOException e) {
        if (!process.isAlive() || System.nanoTime() > deadline) {
          throw new IOException(
              "sshd did not start: " + Files.readString(folder.resolve("sshd.log")), e);
        }
        process.waitFor(20, TimeUnit.MILLISECONDS);
      }
    }
  }

  public static String run(String... command) throws IOException, InterruptedException {
    Process process = new ProcessBuilder(command).redirectErrorStream(true).start();
    String output = new String(process.getInputStream().readAllBytes(), UTF_8);
    if (process.waitFor() != 0) {
      throw new IOException(String.join(" ", command) + ": " + output);
    }
    return output;
  }

  public int port() {
    return port;
  }

  public Path keyFile() {
    return folder.resolve("userkey");
  }

  public Path folder() {
    return folder;
  }

  /** Gives an account a password, as the system keeps it. */
  public static void setPassword(String account, String password) throws Exception {
    String hash = run("perl", "-e", "print crypt($ARGV[0], '$6$riverwatch$')", password);
    run("usermod", "-p", hash, account);
  }

  /** What the server wrote into its log. */
  public String log() throws IOException {
    return Files.readString(folder.resolve("sshd.log"));
  }

  public ServerAddress address(String account) {
    return new ServerAddress(account, "localhost", port);
  }

  /** Makes a key pair with the system's own tool and lets every account in by it. */
  public Path newKey(String name, String... options) throws IOException, InterruptedException {
    Path key = folder.resolve(name);
    List<String> command = new ArrayList<>(List.of("ssh-keygen", "-q", "-f", key.toString()));
    command.addAll(List.of(options));
    run(command.toArray(String[]::new));
    Files.writeString(
        folder.resolve("authorized"),
        Files.readString(folder.resolve(name + ".pub")),
        StandardOpenOption.APPEND);
    return key;
  }

  public Connection open(String account) throws IOException {
    return openThrough(account, port);
  }

  public Connection openThrough(String account, int throughPort) throws IOException {
    return connector.open(
        new ServerAddress(account, "localhost", throughPort),
        SignInMethods.byKey(keyFile()),
        TestPrompts.accepting());
  }

  /** From another program, which has of this server only what it was told. */
  static Connection openFromOutside(int port, Path knownHosts, Path key) throws IOException {
    return connector(knownHosts)
        .open(
            new ServerAddress("root", "localhost", port),
            SignInMethods.byKey(key),
            TestPrompts.accepting());
  }

  private static Connector connector(Path knownHosts) {
    return new Connector(
        new KnownHosts(knownHosts),
        address -> List.of(new InetSocketAddress(InetAddress.getLoopbackAddress(), address.port())),
        null,
        java.time.Duration.ofSeconds(30));
  }

  @Override
  public void close() throws Exception {
    connector.close();
    process.destroy();
    process.waitFor(10, TimeUnit.SECONDS);
    for (String account : accounts) {
      removeAccount(account);
    }
  }

  /** Tries until the account's last sessions have ended; an account that is not there is fine. */
  public static void removeAccount(String account) throws IOException, InterruptedException {
    for (int tries = 0; tries < 100; tries++) {
      Process removal = new ProcessBuilder("userdel", account).redirectErrorStream(true).start();
      removal.getInputStream().readAllBytes();
      int status = removal.waitFor();
      if (status == 0 || status == NO_SUCH_ACCOUNT) {
        return;
      }
      TimeUnit.MILLISECONDS.sleep(20);
    }
  }
}
