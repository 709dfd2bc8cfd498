package zander.standin.shell.process;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import zander.standin.world.Account;
import zander.standin.world.Caller;
import zander.standin.world.Machine;
import zander.standin.world.PosixError;
import zander.standin.world.World;

/**
 * One run of a command: its arguments, its streams, and the process it runs in. Text is bytes, one
 * char a byte.
 */
public final class Call {
  private final Session session;
  private final List<String> arguments;
  private final InputStream in;
  private final PrintStream out;
  private final PrintStream errors;

  public Call(
      Session session,
      List<String> arguments,
      InputStream in,
      OutputStream out,
      OutputStream errors) {
    this.session = session;
    this.arguments = arguments;
    this.in = in;
    this.out = new PrintStream(out, false, StandardCharsets.ISO_8859_1);
    this.errors = new PrintStream(errors, false, StandardCharsets.ISO_8859_1);
  }

  /** What a login has: who it is, where it is, its variables and its terminal. */
  public static final class Session {
    public final Machine machine;
    public final Account account;
    public final Map<String, String> variables;
    public final Terminal terminal;

    /** Finds a command by its name; {@code null} when there is none. */
    public Function<String, Command> commands = name -> null;

    /** Starts the file service; {@code null} where there is none to start. */
    public FileService fileService;

    public Caller caller;
    public String folder;
    public int umask = 022;

    /** Whether a redirection may not write over a file that is there. */
    public boolean keepsFiles;

    public int lastStatus;
    public boolean exiting;
    public boolean sudoKnown;

    public Session(
        Machine machine, Account account, Map<String, String> variables, Terminal terminal) {
      this.machine = machine;
      this.account = account;
      this.variables = variables;
      this.terminal = terminal;
      this.caller = machine.accounts().caller(account);
      this.folder = account.home();
    }

    public Terminal terminal() {
      return terminal;
    }
  }

  public Session session() {
    return session;
  }

  public Machine machine() {
    return session.machine;
  }

  /** The command of that name, {@code null} if there is none. */
  public Command command(String name) {
    return session.commands.apply(name);
  }

  public World world() {
    return session.machine.world();
  }

  public Caller caller() {
    return session.caller;
  }

  public List<String> arguments() {
    return arguments;
  }

  /** The arguments after the name, by {@link Options}. */
  public Options options(String flags, String valued) {
    return Options.parse(arguments.subList(1, arguments.size()), flags, valued);
  }

  public InputStream in() {
    return in;
  }

  public PrintStream out() {
    return out;
  }

  public PrintStream errors() {
    return errors;
  }

  /** The terminal, or {@code null}. */
  public Terminal terminal() {
    return session.terminal;
  }

  /** An operand as an absolute path. */
  public String path(String operand) {
    return operand.startsWith("/") ? operand : at(session.folder, operand);
  }

  /** The path of a name in a folder. */
  public static String at(String folder, String name) {
    return folder.endsWith("/") ? folder + name : folder + "/" + name;
  }

  /** The whole content of a file. */
  public byte[] readFile(String path) throws IOException {
    if (world().stat(caller(), path).isFolder()) {
      throw new PosixError(PosixError.Errno.EISDIR);
    }
    var file = world().open(caller(), path, World.Open.READ);
    return file.read(0, Math.toIntExact(file.size()));
  }

  /** Says on the error stream what failed, and gives the exit status 1. */
  public int complain(String text) {
    errors.println(arguments.get(0) + ": " + text);
    errors.flush();
    return 1;
  }

  public int complain(String about, PosixError error) {
    return complain(about + ": " + error.getMessage());
  }

  public void flush() {
    out.flush();
    errors.flush();
  }

  /** Whether the person pressed Ctrl+C or closed the line. */
  public boolean isInterrupted() {
    return Thread.currentThread().isInterrupted();
  }
}
