package zander.suite;

import zander.core.connect.command.Commands;
import zander.core.connect.command.ExecResult;
import zander.core.connect.command.Pipe;
import zander.core.connect.command.ServerTools;
import zander.core.work.Cancellation;

/** Commands as an account without a shell has them. */
final class NoShell implements Commands {
  @Override
  public boolean hasShell() {
    return false;
  }

  @Override
  public ExecResult stream(String script, Output output, Cancellation stop) {
    throw new AssertionError("ran a command: " + script);
  }

  @Override
  public ExecResult script(String wireScript) {
    throw new AssertionError("ran a command: " + wireScript);
  }

  @Override
  public Pipe pipe(String wireScript) {
    throw new AssertionError("ran a command: " + wireScript);
  }

  @Override
  public ServerTools tools() {
    return ServerTools.NONE;
  }
}
