package zander.standin.server;

import java.io.Closeable;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.security.KeyPair;
import java.security.PublicKey;
import java.time.Duration;
import java.util.List;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.ToIntFunction;
import org.apache.sshd.common.config.keys.AuthorizedKeyEntry;
import org.apache.sshd.common.config.keys.KeyUtils;
import org.apache.sshd.common.config.keys.PublicKeyEntryResolver;
import org.apache.sshd.common.keyprovider.KeyPairProvider;
import org.apache.sshd.common.session.Session;
import org.apache.sshd.common.session.SessionContext;
import org.apache.sshd.common.session.SessionListener;
import org.apache.sshd.core.CoreModuleProperties;
import org.apache.sshd.server.SshServer;
import org.apache.sshd.server.auth.keyboard.UserAuthKeyboardInteractiveFactory;
import org.apache.sshd.server.auth.pubkey.UserAuthPublicKeyFactory;
import org.apache.sshd.server.channel.ChannelSession;
import org.apache.sshd.server.channel.ChannelSessionFactory;
import org.apache.sshd.server.command.Command;
import org.apache.sshd.server.session.ServerSession;
import org.apache.sshd.server.subsystem.SubsystemFactory;
import zander.standin.world.Account;
import zander.standin.world.Caller;
import zander.standin.world.Machine;
import zander.standin.world.OpenFile;
import zander.standin.world.PosixError;
import zander.standin.world.World;

/** A made-up server on a port of the loopback: real SSH in front of a {@link Machine}. */
public final class StandinServer implements Closeable {
  private final Machine machine;
  private final Faults faults = new Faults();
  private final Forwarding forwarding = new Forwarding();
  private final SshServer server;
  private final AtomicInteger passwordsSeen = new AtomicInteger();

  private StandinServer(Machine machine, KeyPair hostKey) {
    this.machine = machine;
    this.server = SshServer.setUpDefaultServer();
    server.setHost("127.0.0.1");
    server.setPort(0);
    server.setKeyPairProvider(KeyPairProvider.wrap(hostKey));
    server.setPublickeyAuthenticator(this::mayEnterByKey);
    server.setPasswordAuthenticator(
        (name, password, session) -> {
          passwordsSeen.incrementAndGet();
          return mayEnterByPassword(name, password);
        });
    server.setKeyboardInteractiveAuthenticator(null);
    server.setChannelFactories(List.of(ChannelSessionFactory.INSTANCE, forwarding));
    server.setForwardingFilter(forwarding.filter());
    server.addSessionListener(
        new SessionListener() {
          @Override
          public void sessionEvent(Session session, Event event) {
            if (event == Event.Authenticated && faults.closesAfterSignIn()) {
              session.close(true);
            }
          }
        });
    server.setCommandFactory(this::execute);
    server.setShellFactory(channel -> new ShellService(machine, faults, account(channel), null));
    server.setSubsystemFactories(List.of(new Files()));
    CoreModuleProperties.TCP_NODELAY.set(server, true);
    CoreModuleProperties.IDLE_TIMEOUT.set(server, Duration.ZERO);
    CoreModuleProperties.NIO2_READ_TIMEOUT.set(server, Duration.ZERO);
  }

  /** Starts a server on a free port. */
  public static StandinServer start(Machine machine, KeyPair hostKey) throws IOException {
    StandinServer started = new StandinServer(machine, hostKey);
    started.server.start();
    return started;
  }

  public int port() {
    return server.getPort();
  }

  public Machine machine() {
    return machine;
  }

  public Faults faults() {
    return faults;
  }

  /** How many passwords any client has sent so far. */
  public int passwordsSeen() {
    return passwordsSeen.get();
  }

  /** Gives the server another host key from the next connection on. */
  public void setHostKey(KeyPair hostKey) {
    server.setKeyPairProvider(KeyPairProvider.wrap(hostKey));
  }

  /**
   * Leads clients on to other servers, as a jump host does.
   *
   * @param portOf the loopback port behind a made-up host name; -1 for names not known here
   */
  public void setForwarding(ToIntFunction<String> portOf) {
    forwarding.setNames(portOf);
  }

  /**
   * Takes no password by itself, but asks for it and for a one-time code, in one round
   * (keyboard-interactive).
   */
  public void setOneTimeCode(String code) {
    server.setPasswordAuthenticator(null);
    server.setKeyboardInteractiveAuthenticator(
        new CodeAsked(code, this::mayEnterByPassword, passwordsSeen::incrementAndGet));
    server.setUserAuthFactories(
        List.of(UserAuthPublicKeyFactory.INSTANCE, UserAuthKeyboardInteractiveFactory.INSTANCE));
  }

  /** Ends every connection at once; new ones are taken. */
  public void dropAll() {
    server.getActiveSessions().forEach(session -> session.close(true));
  }

  private Account account(ChannelSession channel) {
    return machine.accounts().user(channel.getSession().getUsername()).orElseThrow();
  }

  private Command execute(ChannelSession channel, String commandLine) throws IOException {
    if (commandLine.indexOf('\uFFFD') >= 0) {
      throw new IOException("this stand-in takes only commands in UTF-8");
    }
    byte[] bytes = commandLine.getBytes(StandardCharsets.UTF_8);
    String line = new String(bytes, StandardCharsets.ISO_8859_1);
    return new ShellService(machine, faults, account(channel), line);
  }

  private final class Files implements SubsystemFactory {
    @Override
    public String getName() {
      return "sftp";
    }

    @Override
    public Command createSubsystem(ChannelSession channel) throws IOException {
      if (!faults.fileService()) {
        throw new IOException("there is no file service here");
      }
      return new SftpService(machine, faults, account(channel));
    }
  }

  private boolean mayEnterByPassword(String name, String password) {
    return machine
        .accounts()
        .user(name)
        .filter(account -> !account.password().isEmpty() && account.password().equals(password))
        .isPresent();
  }

  /** By {@code authorized_keys} in the world, with the strictness of {@code sshd}: StrictModes. */
  private boolean mayEnterByKey(String name, PublicKey key, ServerSession session) {
    Account account = machine.accounts().user(name).orElse(null);
    if (account == null) {
      return false;
    }
    String folder = account.home() + "/.ssh";
    String file = folder + "/authorized_keys";
    try {
      for (String strict : List.of(account.home(), folder, file)) {
        var stat = machine.world().stat(Caller.ROOT, strict);
        boolean owned = stat.uid() == account.uid() || stat.uid() == 0;
        if (!owned || (stat.mode() & 022) != 0) {
          return false;
        }
      }
      OpenFile open = machine.world().open(Caller.ROOT, file, World.Open.READ);
      String lines = new String(open.read(0, (int) open.size()), StandardCharsets.UTF_8);
      for (String line : lines.split("\n")) {
        if (!line.isBlank() && !line.startsWith("#") && matches(session, line, key)) {
          return true;
        }
      }
      return false;
    } catch (PosixError e) {
      return false;
    }
  }

  private static boolean matches(SessionContext session, String line, PublicKey key) {
    try {
      PublicKey known =
          AuthorizedKeyEntry.parseAuthorizedKeyEntry(line)
              .resolvePublicKey(session, PublicKeyEntryResolver.IGNORING);
      return KeyUtils.compareKeys(known, key);
    } catch (IOException | java.security.GeneralSecurityException | RuntimeException e) {
      return false;
    }
  }

  @Override
  public void close() {
    try {
      server.stop(true);
    } catch (IOException e) {
      // The port goes with the process at the latest.
    }
  }
}
