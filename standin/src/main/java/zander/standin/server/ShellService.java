package zander.standin.server;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.util.HashMap;
import java.util.Map;
import org.apache.sshd.server.Environment;
import org.apache.sshd.server.Signal;
import zander.standin.shell.Shell;
import zander.standin.shell.process.Call;
import zander.standin.shell.process.Terminal;
import zander.standin.world.Account;
import zander.standin.world.Machine;

/** Runs one command line, or a shell, for a channel: with a terminal where one was asked for. */
final class ShellService extends ChannelService {
  private final Machine machine;
  private final Faults faults;
  private final Account account;
  private final String line;

  /**
   * @param line what to run; {@code null} for a shell
   */
  ShellService(Machine machine, Faults faults, Account account, String line) {
    this.machine = machine;
    this.faults = faults;
    this.account = account;
    this.line = line;
  }

  @Override
  protected Runnable prepare(Environment environment) {
    Map<String, String> variables = new HashMap<>();
    variables.put("HOME", account.home());
    variables.put("USER", account.name());
    variables.put("SHELL", account.shell());
    variables.put("PATH", "/usr/bin:/bin");
    Terminal terminal = null;
    if (environment.getEnv().containsKey(Environment.ENV_TERM)) {
      terminal = terminal(environment);
      variables.put("TERM", environment.getEnv().get(Environment.ENV_TERM));
    }
    Call.Session session = new Call.Session(machine, account, variables, terminal);
    session.fileService =
        (caller, home, from, to) ->
            SftpService.serve(new SftpRequests(machine, faults, caller, home), faults, from, to);
    return () -> run(session);
  }

  private Terminal terminal(Environment environment) {
    Terminal terminal =
        new Terminal(
            in,
            out,
            size(environment, Environment.ENV_COLUMNS, 80),
            size(environment, Environment.ENV_LINES, 24));
    environment.addSignalListener(
        (channel, signal) ->
            terminal.resized(
                size(environment, Environment.ENV_COLUMNS, 80),
                size(environment, Environment.ENV_LINES, 24)),
        Signal.WINCH);
    return terminal;
  }

  private static int size(Environment environment, String name, int otherwise) {
    String value = environment.getEnv().get(name);
    return value == null || !value.matches("[1-9][0-9]{0,3}") ? otherwise : Integer.parseInt(value);
  }

  private void run(Call.Session session) {
    int status;
    try {
      Shell shell = new Shell(session);
      if (!account.mayHaveShell()) {
        errors.write("This account is not for signing in.\n".getBytes(StandardCharsets.US_ASCII));
        status = 1;
      } else if (line == null) {
        status = shell.interact();
      } else if (session.terminal() == null) {
        status = shell.run(line, in, out, errors);
      } else {
        OutputStream terminal = session.terminal().out();
        status = shell.run(line, InputStream.nullInputStream(), terminal, terminal);
      }
      out.flush();
      errors.flush();
    } catch (IOException | RuntimeException e) {
      status = 1;
    }
    exit.onExit(status);
  }
}
