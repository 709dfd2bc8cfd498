package zander.core.connect;

import java.io.ByteArrayOutputStream;
import java.io.Closeable;
import java.io.IOException;
import java.time.Duration;
import java.util.EnumSet;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.TimeUnit;
import org.apache.sshd.client.channel.ChannelExec;
import org.apache.sshd.client.channel.ClientChannelEvent;
import org.apache.sshd.client.session.ClientSession;
import org.apache.sshd.common.channel.PtyChannelConfiguration;
import org.apache.sshd.common.future.CloseFuture;
import org.apache.sshd.sftp.client.SftpClientFactory;
import org.apache.sshd.sftp.client.SftpVersionSelector;
import zander.core.files.AccountNames;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.files.SftpFiles;
import zander.core.files.WireName;
import zander.core.work.BlockingCalls;

/**
 * One signed-in connection: the file service, commands and shells of a desk all go over it, without
 * asking again. Safe for several threads; everything but {@link #isOpen} waits.
 */
public final class Connection implements Closeable {
  /** A command that never ends must not keep the desk from opening. */
  private static final Duration FACTS_PATIENCE = Duration.ofSeconds(20);

  private final ClientSession session;
  private final ServerAddress address;
  private final HostKey hostKey;
  private final String keyType;
  private final AccountNames names = new AccountNames();
  private final RemoteFiles files;
  private final WhoAmI whoAmI;

  private Connection(ClientSession session, ServerAddress address, HostKey hostKey, String keyType)
      throws IOException {
    this.session = session;
    this.address = address;
    this.hostKey = hostKey;
    this.keyType = keyType;
    // Who we are is asked by a command while the file service starts: one wait, not two.
    CompletableFuture<String> facts =
        CompletableFuture.supplyAsync(this::askFacts)
            .completeOnTimeout("", FACTS_PATIENCE.toSeconds(), TimeUnit.SECONDS);
    this.files =
        new SftpFiles(
            SftpClientFactory.instance()
                .createSftpClient(session, SftpVersionSelector.fixedVersionSelector(3)),
            names);
    RemotePath home = files.realPath(".");
    this.whoAmI = WhoAmI.ofId(address.account(), facts.join(), home);
  }

  static Connection over(
      ClientSession session, ServerAddress address, HostKey hostKey, String keyType)
      throws IOException {
    return new Connection(session, address, hostKey, keyType);
  }

  /** The line of {@code id}; learns the names of accounts and groups on the way. */
  private String askFacts() {
    try {
      ExecResult result = run("id; echo ---; getent passwd; echo ---; getent group", new byte[0]);
      String[] parts = result.outText().split("(?m)^---\n", -1);
      if (parts.length == 3) {
        names.learnPasswd(parts[1]);
        names.learnGroupFile(parts[2]);
        return parts[0];
      }
    } catch (IOException e) {
      // An account without a shell is fine: names come with the listings then.
    }
    return "";
  }

  public ServerAddress address() {
    return address;
  }

  public HostKey hostKey() {
    return hostKey;
  }

  /** The type of key that was offered, {@code ed25519}; empty after a password. */
  public String keyType() {
    return keyType;
  }

  public RemoteFiles files() {
    return files;
  }

  public WhoAmI whoAmI() {
    return whoAmI;
  }

  public boolean isOpen() {
    return session.isOpen();
  }

  /** Runs once the connection has ended, for whatever reason, on a thread of the library. */
  public void onEnd(Runnable listener) {
    session.addCloseFutureListener((CloseFuture closed) -> listener.run());
  }

  /** The time of one round trip over the line, by a request the server must answer. */
  public Duration delay() throws IOException {
    BlockingCalls.check("measuring the delay");
    long start = System.nanoTime();
    files.realPath(".");
    return Duration.ofNanos(System.nanoTime() - start);
  }

  /**
   * Runs a command without a terminal and waits for its end.
   *
   * @param wireCommand for the account's shell, in wire form; quote with {@link ShellWords}
   */
  public ExecResult run(String wireCommand, byte[] input) throws IOException {
    BlockingCalls.check("a command");
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    ByteArrayOutputStream errors = new ByteArrayOutputStream();
    try (ChannelExec channel = session.createExecChannel(WireName.bytes(wireCommand), null, null)) {
      channel.setIn(new java.io.ByteArrayInputStream(input));
      channel.setOut(out);
      channel.setErr(errors);
      channel.open().verify(CoreTimes.OPENING);
      channel.waitFor(EnumSet.of(ClientChannelEvent.CLOSED), Duration.ZERO);
      Integer exit = channel.getExitStatus();
      return new ExecResult(exit == null ? -1 : exit, out.toByteArray(), errors.toByteArray());
    }
  }

  /** Starts the account's login shell with a terminal, in a folder. */
  public ShellSession openShell(RemotePath folder, int columns, int rows) throws IOException {
    BlockingCalls.check("opening a shell");
    PtyChannelConfiguration pty = new PtyChannelConfiguration();
    pty.setPtyType("xterm-256color");
    pty.setPtyColumns(columns);
    pty.setPtyLines(rows);
    // An exec request with a terminal, because a shell request cannot say in which folder.
    String command = "cd -- " + ShellWords.quote(folder) + "; exec \"${SHELL:-/bin/sh}\" -l";
    ChannelExec channel =
        session.createExecChannel(
            WireName.bytes(command), pty, java.util.Map.of("COLORTERM", "truecolor"));
    channel.setUsePty(true);
    channel.setRedirectErrorStream(true);
    channel.open().verify(CoreTimes.OPENING);
    return new SshShell(channel);
  }

  @Override
  public void close() {
    session.close(false);
  }
}
