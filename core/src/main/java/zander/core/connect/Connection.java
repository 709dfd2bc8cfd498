package zander.core.connect;

import java.io.Closeable;
import java.io.IOException;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.TimeUnit;
import java.util.function.Supplier;
import org.apache.sshd.client.session.ClientSession;
import org.jspecify.annotations.Nullable;
import zander.core.connect.address.ServerAddress;
import zander.core.connect.channel.ActFailure;
import zander.core.connect.channel.Elevation;
import zander.core.connect.channel.SessionPool;
import zander.core.connect.channel.WayUp;
import zander.core.connect.command.CommandRun;
import zander.core.connect.command.Commands;
import zander.core.connect.command.ExecResult;
import zander.core.connect.command.Pipe;
import zander.core.connect.command.ScriptRun;
import zander.core.connect.command.ServerTools;
import zander.core.connect.command.ShellSession;
import zander.core.connect.command.ShellWords;
import zander.core.connect.command.SshPipe;
import zander.core.connect.command.SshShell;
import zander.core.connect.command.SudoRules;
import zander.core.connect.report.SignInNote.Kind;
import zander.core.connect.report.SignInStep;
import zander.core.connect.signin.KeyOffer;
import zander.core.connect.signin.SignInAttempt;
import zander.core.files.AccountNames;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.files.sftp.wire.FolderGuard;
import zander.core.phrase.FileStep;
import zander.core.phrase.Phrase;
import zander.core.phrase.SignInPhrase;
import zander.core.trust.WireKey;
import zander.core.work.BlockingCalls;
import zander.core.work.Cancellation;

/**
 * One signed-in connection: the file service, commands and shells of a desk all go over it, without
 * asking again. Safe for several threads; everything but {@link #isOpen} waits.
 */
public final class Connection implements Closeable, Commands {
  /** What is not known by then follows while the desk is open already. */
  private static final Duration NAMES_PATIENCE = Duration.ofSeconds(2);

  private static final Duration ID_PATIENCE = Duration.ofSeconds(3);
  private final SessionPool lines;
  final ClientSession session;
  private final SignInAttempt attempt;
  private final AccountNames names;
  private final FolderGuard guard;
  private final RemoteFiles files;
  private final AccountFacts facts;
  private final RemoteFiles.Landing landing;
  private final MoreFiles moreFiles;
  private final Map<String, Object> learnt = new ConcurrentHashMap<>();
  private @Nullable ServerTools tools;
  private volatile @Nullable Duration leastDelay;
  private volatile @Nullable AccountIdentity whoAmI;

  Connection(SessionPool lines, @Nullable String landingPath) throws IOException {
    this.lines = lines;
    this.names = new AccountNames();
    this.session = lines.first();
    this.attempt = SignInAttempt.of(session);
    this.facts = new AccountFacts(lines, names);
    facts.askOnceFilesAreOpen();
    this.guard = new FolderGuard(() -> AccountIdentity.uidOf(facts.idLine()));
    FileServices services = new FileServices(lines, names, guard);
    this.moreFiles = new MoreFiles(() -> services.openMore(session));
    this.files = services.open(session);
    this.landing = files.land(landingPath, facts.namesFor(NAMES_PATIENCE));
    attempt.reach(SignInStep.SHELL);
    facts.await(ID_PATIENCE);
    switch (facts.shell()) {
      case RUNS -> attempt.note(Kind.FOUND, facts.idLine().strip());
      case NONE -> attempt.note(Kind.REFUSED, SignInPhrase.NO_SHELL.of(facts.whyNone()));
      default -> attempt.note(Kind.FOUND, SignInPhrase.SHELL_NOT_YET.of());
    }
    attempt.note(Kind.DONE, "");
  }

  /** The same sessions, as another account. */
  private Connection(Connection own, Elevation right, @Nullable String landingPath)
      throws IOException {
    this.lines = own.lines.actingBy(right);
    this.names = own.names;
    this.session = own.session;
    this.attempt = own.attempt;
    this.facts = new AccountFacts(lines, names);
    // Root is guarded from the first request on, also where nothing tells the number.
    boolean root = right.account().equals(AccountIdentity.ROOT);
    this.guard = new FolderGuard(() -> root ? 0 : AccountIdentity.uidOf(facts.idLine()));
    // It asks for the password, which what follows is begun with.
    FileServices services = new FileServices(lines, names, guard);
    this.moreFiles = new MoreFiles(() -> services.openMore(session));
    this.files = lines.withRoom(services::open);
    facts.hasShell();
    this.landing = files.land(landingPath, facts.namesFor(NAMES_PATIENCE));
  }

  /**
   * Acts as another account over the same sessions: all that goes over the connection returned is
   * done as it. Closing that ends the right, not the sessions; they end with this. Waits, also for
   * the person who is asked for a password.
   *
   * @param landingPath the folder to begin in
   * @throws ActFailure when the server does not let it
   */
  public Connection actAs(Elevation right, @Nullable String landingPath) throws IOException {
    BlockingCalls.check("acting as another account");
    while (true) {
      try {
        return new Connection(this, right, landingPath);
      } catch (IOException e) {
        if (e instanceof ActFailure act && right.mayTryAgain(act)) {
          continue;
        }
        right.close();
        throw orLost(SudoRules.explained(e, this, address().account(), right));
      }
    }
  }

  /** Whom all this is done as, where that is not the account that signed in; {@code null} else. */
  public @Nullable String actsAs() {
    return lines.elevation() == null ? null : lines.elevation().account();
  }

  /** By which of the server's programs that is; {@code null} where nobody else is acted as. */
  public @Nullable WayUp wayUp() {
    return lines.elevation() == null ? null : lines.elevation().way();
  }

  public ServerAddress address() {
    return attempt.address();
  }

  /** What the server said to whoever signs in (RFC 4252, section 5.4); empty for nothing. */
  public String banner() {
    return attempt.banner();
  }

  public @Nullable WireKey hostKey() {
    return attempt.trust().shown();
  }

  /** The type of key that let us in, {@code ed25519}; empty after a password. */
  public String keyType() {
    return attempt.taken() == null ? "" : attempt.taken().key().shortType();
  }

  /** Which key let us in: the file's name, or where it is held; {@code null} after a password. */
  public @Nullable Phrase keyName() {
    return attempt.taken() == null ? null : attempt.taken().name();
  }

  @Nullable KeyOffer taken() {
    return attempt.taken();
  }

  /**
   * Why this server cannot be lent the key of another, for people; {@code null} when it can. Asks
   * it what it has; waits.
   *
   * @param name what people know this server by
   * @param goalName the same for the other
   */
  public @Nullable Phrase whyNotLend(Connection goal, String name, String goalName)
      throws IOException {
    return AgentLoan.whyNot(this, goal, name, goalName);
  }

  /** Lends this server the key of another for signing in there; signs in here once more for it. */
  public AgentLoan lend(Connection goal) throws IOException {
    try {
      return AgentLoan.open(lines, goal);
    } catch (IOException e) {
      throw orLost(e);
    }
  }

  public RemoteFiles files() {
    return files;
  }

  /** As far as is known by now: the numbers may come a while after the connection. */
  public AccountIdentity whoAmI() {
    AccountIdentity now = whoAmI;
    if (now == null || now.uid() < 0) {
      String account = actsAs() == null ? attempt.address().account() : actsAs();
      now = AccountIdentity.ofId(account, facts.idLine(), landing.home());
      whoAmI = now;
    }
    return now;
  }

  /** The folder that was read on arrival. */
  public RemoteFiles.Landing landing() {
    return landing;
  }

  public boolean isOpen() {
    return session.isOpen();
  }

  /**
   * What was learnt of this line, by whoever wants to know it again: made at the first call with a
   * name, and kept for as long as the connection lives.
   */
  public <T> T learnt(String name, Class<T> type, Supplier<T> make) {
    return type.cast(learnt.computeIfAbsent(name, first -> make.get()));
  }

  /** How many sessions are open: more than one where the server limits channels. */
  public int lineCount() {
    return lines.count();
  }

  /** Runs once the connection has ended, for whatever reason, on a thread of the library. */
  public void onEnd(Runnable listener) {
    session.addCloseFutureListener(
        closed -> {
          lines.drop();
          listener.run();
        });
  }

  /** The time of one round trip over the line, by a request the server must answer. */
  public Duration delay() throws IOException {
    BlockingCalls.check("measuring the delay");
    long start = System.nanoTime();
    files.realPath(".");
    Duration delay = Duration.ofNanos(System.nanoTime() - start);
    Duration least = leastDelay;
    leastDelay = least == null || delay.compareTo(least) < 0 ? delay : least;
    return delay;
  }

  /** The least that {@link #delay} has told so far; asks when it never did. */
  public Duration leastDelay() throws IOException {
    return leastDelay == null ? delay() : leastDelay;
  }

  /**
   * Gives the line up at once when the server does not answer in time: after the computer slept, or
   * when the network changed.
   *
   * @return whether it still lives
   */
  public boolean prove(Duration patience) {
    BlockingCalls.check("proving the line");
    CompletableFuture<Boolean> answered =
        CompletableFuture.supplyAsync(
            () -> {
              try {
                delay();
                return true;
              } catch (IOException e) {
                return false;
              }
            });
    boolean lives =
        answered.completeOnTimeout(false, patience.toMillis(), TimeUnit.MILLISECONDS).join();
    if (!lives) {
      drop();
    }
    return lives;
  }

  /** A number that changes with everything that the server sends. Does not wait. */
  public int arrivals() {
    return lines.arrivals();
  }

  /** This computer's end of the line; {@code null} when it is gone. */
  public java.net.@Nullable InetAddress localEnd() {
    return session.getIoSession() != null
            && session.getIoSession().getLocalAddress() instanceof java.net.InetSocketAddress here
        ? here.getAddress()
        : null;
  }

  /** Ends the connection without waiting for the server. */
  public void drop() {
    lines.drop();
  }

  /**
   * Runs a command without a terminal and waits for its end.
   *
   * @param wireCommand for the account's shell, in wire form; quote with {@link ShellWords}
   */
  public ExecResult run(String wireCommand, byte[] input) throws IOException {
    BlockingCalls.check("a command");
    if (actsAs() != null) {
      throw new IllegalStateException("a command as another account is a script");
    }
    return CommandRun.run(lines, wireCommand, input);
  }

  @Override
  public boolean hasShell() {
    return facts.hasShell();
  }

  @Override
  public boolean mayHaveShell() {
    return facts.shell() != AccountFacts.Shell.NONE;
  }

  @Override
  public @Nullable Phrase whyNoShell() {
    return facts.why();
  }

  @Override
  public ExecResult stream(String wireScript, Output output, Cancellation stop) throws IOException {
    BlockingCalls.check("a command");
    try {
      return new ScriptRun(wireScript, output, lines.elevation()).run(lines, stop);
    } catch (IOException e) {
      throw orLost(e);
    } finally {
      guard.moved();
    }
  }

  @Override
  public Pipe pipe(String wireScript) throws IOException {
    BlockingCalls.check("a command");
    try {
      return SshPipe.open(lines, wireScript);
    } catch (IOException e) {
      throw orLost(e);
    }
  }

  /** A command that could not be started or ended because the line is gone says so. */
  private IOException orLost(IOException e) {
    return e instanceof RemoteFailure || session.isOpen()
        ? e
        : new RemoteFailure(RemoteFailure.Reason.LINE_LOST, FileStep.RUN_A_COMMAND, null, "", e);
  }

  @Override
  public synchronized ServerTools tools() throws IOException {
    if (tools == null) {
      tools = ServerTools.ask(this);
    }
    return tools;
  }

  /**
   * Further channels of the file service, for what should not stand in the way of the first. They
   * stay open for as long as the connection, and are shared.
   *
   * @return as many as the server has room for, at most as many as asked
   */
  public List<RemoteFiles> moreFiles(int most) {
    return moreFiles.atMost(most);
  }

  /**
   * Starts the account's login shell with a terminal, in a folder.
   *
   * @throws RemoteFailure with {@code NO_SHELL} when the server gives no terminal or no shell
   */
  public ShellSession openShell(RemotePath folder, int columns, int rows) throws IOException {
    return openShell(folder, columns, rows, "");
  }

  /**
   * The same in a session that the server keeps when the line is lost, begun or gone on with.
   *
   * @param keptAs the name of the session of tmux: letters, digits and hyphens; empty for none
   */
  public ShellSession openShell(RemotePath folder, int columns, int rows, String keptAs)
      throws IOException {
    BlockingCalls.check("opening a shell");
    try {
      return SshShell.open(lines, folder, columns, rows, keptAs, mayHaveShell());
    } catch (IOException e) {
      throw orLost(e);
    }
  }

  @Override
  public void close() {
    lines.close();
  }
}
