package zander.standin.shell.command;

import java.io.IOException;
import java.util.List;
import zander.standin.shell.process.Call;
import zander.standin.shell.process.Command;
import zander.standin.shell.process.LineEditor;
import zander.standin.shell.process.UsageError;
import zander.standin.world.Account;
import zander.standin.world.Caller;

/** {@code sudo}: becomes root for one command or a shell, after the account's own password. */
public final class SudoCommand {
  private static final int TRIES = 3;

  private SudoCommand() {}

  public static int run(Call call) throws IOException {
    List<String> words = call.arguments().subList(1, call.arguments().size());
    boolean fromInput = false;
    boolean never = false;
    boolean shell = false;
    boolean listing = false;
    String prompt = call.session().variables.get("SUDO_PROMPT");
    String account = "root";
    int at = 0;
    for (; at < words.size() && words.get(at).startsWith("-"); at++) {
      String option = words.get(at);
      if (option.equals("--")) {
        at++;
        break;
      }
      switch (option) {
        case "-S" -> fromInput = true;
        case "-n" -> never = true;
        case "-l" -> listing = true;
        case "-i", "-s" -> shell = true;
        case "-p" -> prompt = value(words, ++at);
        case "-u" -> account = value(words, ++at);
        default -> throw new UsageError("option " + option + " is not supported on this stand-in");
      }
    }
    List<String> command = words.subList(Math.min(at, words.size()), words.size());
    if (listing) {
      return list(call);
    }
    if (command.isEmpty() && !shell) {
      throw new UsageError("a command is missing", 1);
    }
    Caller caller =
        call.machine().accounts().user(account).map(call.machine().accounts()::caller).orElse(null);
    if (caller == null) {
      return call.complain("unknown user " + account);
    }
    if (!call.session().account.actsAs().equals(account)
        && !allowed(call, prompt, fromInput, never)) {
      return 1;
    }
    return as(caller, call, command.isEmpty() ? List.of("sh") : command);
  }

  private static String value(List<String> words, int at) {
    if (at >= words.size()) {
      throw new UsageError("an option has no value", 1);
    }
    return words.get(at);
  }

  private static boolean mayActAsAnybody(Call.Session session) {
    return session.account.actsAs().equals(Account.ANYBODY);
  }

  private static int list(Call call) throws IOException {
    Account own = call.session().account;
    if (own.actsAs().isEmpty()) {
      return call.complain("a password is required");
    }
    String rule =
        mayActAsAnybody(call.session()) ? "(ALL) ALL" : "(" + own.actsAs() + ") NOPASSWD: ALL";
    call.out()
        .print(
            "User "
                + own.name()
                + " may run the following commands on this machine:\n    "
                + rule
                + "\n");
    return 0;
  }

  private static boolean allowed(Call call, String prompt, boolean fromInput, boolean never)
      throws IOException {
    Call.Session session = call.session();
    if (session.caller.isRoot() || (session.sudoKnown && mayActAsAnybody(session))) {
      return true;
    }
    if (never || (!fromInput && session.terminal == null)) {
      call.complain("a password is required");
      return false;
    }
    for (int tries = 0; tries < TRIES; tries++) {
      String typed = ask(call, prompt, fromInput);
      if (typed == null) {
        break;
      }
      if (!typed.isEmpty() && typed.equals(session.account.password())) {
        if (!mayActAsAnybody(session)) {
          call.complain(session.account.name() + " is not in the sudoers file.");
          return false;
        }
        session.sudoKnown = true;
        return true;
      }
      call.complain("Sorry, try again.");
    }
    call.complain("incorrect password attempts");
    return false;
  }

  private static String ask(Call call, String prompt, boolean fromInput) throws IOException {
    if (fromInput) {
      call.errors().print(prompt == null ? "" : prompt);
      call.errors().flush();
      StringBuilder line = new StringBuilder();
      int c;
      while ((c = call.in().read()) >= 0 && c != '\n') {
        line.append((char) c);
      }
      return c < 0 && line.length() == 0 ? null : line.toString();
    }
    String usual = "[sudo] password for " + call.session().account.name() + ": ";
    call.out().print(prompt == null ? usual : prompt);
    call.out().flush();
    String typed = LineEditor.readHidden(call.terminal());
    call.out().print("\n");
    return typed;
  }

  private static int as(Caller caller, Call call, List<String> command) throws IOException {
    Call.Session session = call.session();
    Caller before = session.caller;
    session.caller = caller;
    try {
      Command found = call.command(command.get(0));
      if (found == null) {
        return call.complain(command.get(0) + ": command not found");
      }
      Call inner = new Call(session, command, call.in(), call.out(), call.errors());
      try {
        return found.run(inner);
      } finally {
        inner.flush();
        // Leaving root's shell ends that shell, not the login it was started from.
        session.exiting = false;
      }
    } finally {
      session.caller = before;
    }
  }
}
