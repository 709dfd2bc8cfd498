package zander.core.connect.command;

import java.io.IOException;
import java.io.OutputStream;
import java.util.List;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import zander.core.connect.channel.Elevation;
import zander.core.connect.channel.StartTalk;
import zander.core.files.WireName;
import zander.core.files.sftp.channel.ServiceStart;
import zander.core.files.sftp.channel.ServiceTranslator;

/** Commands that are run as another account, by a program of the server's. */
public final class ElevatedCommand {
  /**
   * Where OpenSSH's file service is on the systems there are; the server's own configuration may
   * name another place, which only root may read everywhere.
   */
  private static final List<String> SERVICES =
      List.of(
          "/usr/lib/openssh/sftp-server",
          "/usr/libexec/openssh/sftp-server",
          "/usr/lib/ssh/sftp-server",
          "/usr/libexec/sftp-server",
          "/usr/lib/sftp-server");

  private static final String FIND_SERVICE =
      // What it calls its folder is taken for the account's home.
      "cd ~ 2>/dev/null || cd /; "
          + SERVICES.stream().map(ElevatedCommand::orNext).collect(Collectors.joining())
          + "f=$(sed -n 's/^[[:space:]]*[Ss]ubsystem[[:space:]][[:space:]]*sftp[[:space:]][[:space:]]*"
          + "\\(\\/[^[:space:]]*\\).*/\\1/p' /etc/ssh/sshd_config); "
          + orNext("$f")
          + "echo 'sftp-server: not found' >&2; exit 127";

  /** Where it is known, the other one would take the terminal away from what is run (su(1)). */
  private static final String SU_WITH_TERMINAL =
      "\"$(case \"$(su --help 2>&1)\" in *session-command*) echo --session-command;;"
          + " *) echo -c;; esac)\"";

  private static String orNext(String service) {
    return "test -x \"" + service + "\" && exec \"" + service + "\"; ";
  }

  private ElevatedCommand() {}

  /**
   * A command for the account's login shell.
   *
   * @param wireScript run by {@code sh} as the other account, in wire form
   */
  static String of(StartTalk talk, String wireScript) {
    // sudo may have put another terminal between, or a program have changed this one.
    String raw = talk.isInTerminal() ? "stty raw -echo; " : "";
    String inner =
        "LC_ALL=C; export LC_ALL; " + raw + "echo " + talk.startMark() + " >&2; " + wireScript;
    return ShellWords.command(
        "export LC_ALL; echo " + talk.upMark() + " >&2; " + up(talk, "-S ", "-c", inner));
  }

  /** The same with a terminal that a person types into: their locale stays as it is. */
  static String interactive(StartTalk talk, String wireScript) {
    String inner = "echo " + talk.startMark() + "; " + wireScript;
    return ShellWords.interactive(
        "echo " + talk.upMark() + "; " + up(talk, "", SU_WITH_TERMINAL, inner));
  }

  /**
   * @param fromInput what tells {@code sudo} to read the password from its input
   * @param suOption what tells {@code su} to run a command
   */
  private static String up(StartTalk talk, String fromInput, String suOption, String inner) {
    String account = ShellWords.quote(talk.account());
    String shell = " -- sh -c " + ShellWords.quoteWire(inner);
    return switch (talk.way()) {
      // Not by -p: that would stand for every question of PAM, and the password go to all of them.
      case SUDO ->
          "SUDO_PROMPT="
              + talk.promptMark()
              + "; export SUDO_PROMPT; exec sudo "
              + fromInput
              + "-u "
              + account
              + shell;
      case DOAS -> "exec doas -u " + account + shell;
      // By the account's own shell, whatever that is: -s is not heard for one that may not sign in.
      case SU ->
          "exec su "
              + account
              + " "
              + suOption
              + " "
              + ShellWords.quoteWire(ShellWords.interactive(inner));
    };
  }

  /** The file service of the other account. */
  public static ServiceStart fileService(Elevation elevation) {
    return new Start(elevation.talk(), FIND_SERVICE, null);
  }

  /**
   * What stands for it where the server has none.
   *
   * @param translator made once for each
   */
  public static ServiceStart scripts(
      Elevation elevation, Function<ServiceTranslator.Answers, ServiceTranslator> translator) {
    return new Start(elevation.talk(), "cd ~ 2>/dev/null || cd /; exec sh", translator);
  }

  /**
   * @param translator {@code null} for a service that speaks for itself
   */
  private record Start(
      StartTalk talk,
      String script,
      @Nullable Function<ServiceTranslator.Answers, ServiceTranslator> translator)
      implements ServiceStart {
    @Override
    public byte[] command(Runnable closing) throws IOException {
      talk.begin(closing);
      return WireName.bytes(of(talk, script));
    }

    @Override
    public @Nullable ServiceTranslator translator(ServiceTranslator.Answers answers) {
      return translator == null ? null : translator.apply(answers);
    }

    @Override
    public boolean wantsTerminal() {
      return talk.isInTerminal();
    }

    @Override
    public OutputStream errors(OutputStream rest) {
      return talk.errors(rest);
    }

    @Override
    public void await(OutputStream in) throws IOException {
      talk.await(
          line -> {
            in.write(line);
            in.flush();
          });
    }

    @Override
    public void ended() {
      talk.end();
    }
  }
}
