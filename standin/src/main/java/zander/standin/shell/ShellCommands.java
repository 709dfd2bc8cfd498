package zander.standin.shell;

import java.io.IOException;
import java.util.List;
import java.util.Map;
import zander.standin.shell.process.Call;
import zander.standin.shell.process.Command;
import zander.standin.shell.process.Options;
import zander.standin.shell.process.UsageError;

/** Commands that run others in the same login. */
final class ShellCommands {
  private ShellCommands() {}

  static void addTo(Map<String, Command> all) {
    all.put("exec", ShellCommands::exec);
    all.put("eval", ShellCommands::eval);
    all.put("set", ShellCommands::set);
    all.put("sh", ShellCommands::shell);
    all.put("bash", ShellCommands::shell);
  }

  /** Only a shell or another command can take the place of the shell; redirections cannot. */
  private static int exec(Call call) throws IOException {
    if (call.arguments().size() < 2) {
      throw new UsageError("exec without a command is not supported on this stand-in");
    }
    List<String> rest = call.arguments().subList(1, call.arguments().size());
    Command command = Commands.find(rest.get(0));
    if (command == null) {
      return call.complain(rest.get(0) + ": not found");
    }
    int status = command.run(new Call(call.session(), rest, call.in(), call.out(), call.errors()));
    call.session().exiting = true;
    return status;
  }

  /** {@code set -C}: a redirection makes no file that is there (POSIX XCU 2.14). */
  private static int set(Call call) {
    if (!call.arguments().subList(1, call.arguments().size()).equals(List.of("-C"))) {
      throw new UsageError("only -C is supported on this stand-in");
    }
    call.session().keepsFiles = true;
    return 0;
  }

  /** Runs its words as a command line (POSIX XCU 2.14 {@code eval}). */
  private static int eval(Call call) {
    List<String> words = call.arguments().subList(1, call.arguments().size());
    return new Shell(call.session())
        .run(String.join(" ", words), call.in(), call.out(), call.errors());
  }

  private static int shell(Call call) throws IOException {
    Options options = call.options("li", "c");
    Shell shell = new Shell(call.session());
    if (options.value('c') != null) {
      return shell.run(options.value('c'), call.in(), call.out(), call.errors());
    }
    if (call.terminal() != null) {
      return shell.interact();
    }
    String lines =
        new String(call.in().readAllBytes(), java.nio.charset.StandardCharsets.ISO_8859_1);
    return shell.run(lines, java.io.InputStream.nullInputStream(), call.out(), call.errors());
  }
}
