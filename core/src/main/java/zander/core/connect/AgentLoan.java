package zander.core.connect;

import static java.util.Objects.requireNonNull;

import java.io.Closeable;
import java.io.IOException;
import org.apache.sshd.client.session.ClientSession;
import org.apache.sshd.common.AttributeRepository;
import org.jspecify.annotations.Nullable;
import zander.core.connect.address.ServerAddress;
import zander.core.connect.channel.SessionPool;
import zander.core.connect.command.Commands;
import zander.core.connect.command.Pipe;
import zander.core.connect.command.ServerTools;
import zander.core.connect.command.ShellWords;
import zander.core.connect.command.SshPipe;
import zander.core.phrase.LoanPhrase;
import zander.core.phrase.Phrase;
import zander.core.trust.WireKey;
import zander.core.work.BlockingCalls;

/**
 * A session of its own with one server, from which that server may sign in at one other with the
 * key that let us in there. The key stays here; what may be signed with it, {@link SingleHostAgent}
 * says. When this is closed, so is the session, and the server has nothing left of it. Safe for
 * several threads; all methods but {@link #close} wait.
 */
public final class AgentLoan implements Closeable {
  static final AttributeRepository.AttributeKey<SingleHostAgent> LENT =
      new AttributeRepository.AttributeKey<>();

  /** Its {@code ssh} tells an agent which server a session is with (release notes of 8.9). */
  private static final int MAJOR = 8;

  private static final int MINOR = 9;

  /** A name that no server has: the key below counts, not what the name leads to. */
  private static final String ALIAS = "zander-goal";

  private final Connection goal;
  private final SingleHostAgent key;
  private final ClientSession session;
  private final SessionPool lines;

  private AgentLoan(Connection goal, SingleHostAgent key, ClientSession session) {
    this.goal = goal;
    this.key = key;
    this.session = session;
    this.lines =
        new SessionPool(
            session,
            () -> {
              throw new IOException("the session that a key was lent to is closed");
            });
  }

  /** {@link Connection#whyNotLend}. */
  static @Nullable Phrase whyNot(Connection borrower, Connection goal, String name, String goalName)
      throws IOException {
    if (borrower.actsAs() != null || goal.actsAs() != null) {
      return LoanPhrase.ACTS_AS_ANOTHER.of();
    }
    if (goal.taken() == null) {
      return LoanPhrase.NO_KEY_TAKEN.of(goalName);
    }
    WireKey host = goal.hostKey();
    if (host == null || host.type().contains("-cert-")) {
      return LoanPhrase.NO_PLAIN_HOST_KEY.of(goalName);
    }
    if (!borrower.hasShell() || !goal.hasShell()) {
      return LoanPhrase.NO_SHELL.of();
    }
    String said = borrower.script("ssh -V 2>&1 </dev/null").outText();
    if (!said.contains("OpenSSH")) {
      return LoanPhrase.NO_OPENSSH.of(name);
    }
    return ServerTools.isFrom(said.replace("OpenSSH_", ""), MAJOR, MINOR)
        ? null
        : LoanPhrase.OLD_OPENSSH.of(name);
  }

  static AgentLoan open(SessionPool borrower, Connection goal) throws IOException {
    BlockingCalls.check("lending a key");
    SingleHostAgent key =
        new SingleHostAgent(
            requireNonNull(goal.taken(), "see whyNot"), goal.address().account(), hostKey(goal));
    ClientSession session = borrower.apart();
    session.setAttribute(LENT, key);
    return new AgentLoan(goal, key, session);
  }

  /**
   * The command that runs another on the goal, for a script of {@link #pipe}.
   *
   * @param folder a shell word that names a folder with the file that {@link #knownHost} fills
   * @param command in wire form, for the goal's {@code sh}
   */
  public String command(String folder, String command) {
    ServerAddress at = goal.address();
    return "ssh -F /dev/null -T -i /dev/null"
        + " -o BatchMode=yes -o LogLevel=ERROR -o PreferredAuthentications=publickey"
        + " -o StrictHostKeyChecking=yes -o GlobalKnownHostsFile=/dev/null"
        + (" -o UserKnownHostsFile=" + folder + "/known -o HostKeyAlias=" + ALIAS)
        + " -o UpdateHostKeys=no -o HostKeyAlgorithms="
        + algorithms(hostKey(goal).type())
        + " -o ForwardAgent=no -o ClearAllForwardings=yes -o ControlPath=none"
        + " -o ConnectTimeout=15 -o ServerAliveInterval=10 -o ServerAliveCountMax=3"
        + (" -p " + at.port() + " -l " + ShellWords.quote(at.account()))
        + (" -- " + ShellWords.quote(at.host()) + " ")
        + ShellWords.quoteWire(
            "exec sh -c " + ShellWords.quoteWire("LC_ALL=C; export LC_ALL; " + command));
  }

  private static WireKey hostKey(Connection goal) {
    return requireNonNull(goal.hostKey(), "see whyNot");
  }

  private static String algorithms(String type) {
    return type.equals("ssh-rsa") ? "rsa-sha2-512,rsa-sha2-256" : type;
  }

  /** A command that writes the goal's host key, as sshd(8) describes the format, to a file. */
  public String knownHost(String folder) {
    WireKey host = hostKey(goal);
    return "printf '%s\\n' "
        + ShellWords.quote(ALIAS + " " + host.type() + " " + host.base64())
        + (" > " + folder + "/known");
  }

  /** Starts a script as {@link Commands#pipe} does; its {@code ssh} finds the key. */
  public Pipe pipe(String wireScript) throws IOException {
    BlockingCalls.check("a command");
    return SshPipe.open(lines, wireScript, true);
  }

  public boolean isOpen() {
    return session.isOpen();
  }

  @Override
  public void close() {
    key.end();
    lines.close();
  }
}
