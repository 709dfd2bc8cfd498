package zander.standin.shell;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Clock;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import zander.standin.shell.process.Call;
import zander.standin.world.Account;
import zander.standin.world.Accounts;
import zander.standin.world.Caller;
import zander.standin.world.Machine;
import zander.standin.world.World;

/** The system's own shell and tools decide what a line must print and how it must end. */
class ShellTest {
  @TempDir Path folder;
  private Machine machine;
  private Account warden;

  @BeforeEach
  void start() throws Exception {
    Accounts accounts = new Accounts();
    accounts.addGroup("root", 0);
    accounts.addGroup("warden", 1004);
    accounts.addGroup("web", 33);
    warden =
        new Account(
            "warden",
            1004,
            1004,
            List.of("web"),
            "/home/warden",
            "/bin/sh",
            "heron",
            Account.ANYBODY);
    accounts.add(new Account("root", 0, 0, List.of(), "/root", "/bin/sh", "", ""));
    accounts.add(warden);
    World world = new World(Clock.systemUTC());
    world.mkdir(Caller.ROOT, "/home", 0755);
    world.mkdir(Caller.ROOT, "/home/warden", 0755);
    world.chown(Caller.ROOT, "/home/warden", 1004, 1004, false);
    machine = new Machine("levels-web", world, accounts, Clock.systemUTC());
  }

  private record Outcome(int status, String output) {}

  private Outcome here(String line, String input) {
    Map<String, String> variables = new HashMap<>(Map.of("HOME", "/home/warden"));
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    int status =
        new Shell(new Call.Session(machine, warden, variables, null))
            .run(
                wire(line),
                new ByteArrayInputStream(input.getBytes(StandardCharsets.UTF_8)),
                out,
                out);
    return new Outcome(status, out.toString(StandardCharsets.UTF_8));
  }

  private static String wire(String text) {
    return new String(text.getBytes(StandardCharsets.UTF_8), StandardCharsets.ISO_8859_1);
  }

  private Outcome onTheSystem(String line) throws Exception {
    Process process =
        new ProcessBuilder("sh", "-c", line)
            .directory(folder.toFile())
            .redirectError(ProcessBuilder.Redirect.DISCARD)
            .redirectInput(Path.of("/dev/null").toFile())
            .start();
    String output;
    try (InputStream in = process.getInputStream()) {
      output = new String(in.readAllBytes(), StandardCharsets.UTF_8);
    }
    return new Outcome(process.waitFor(), output);
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "echo a  b 'c  d' \"e  f\" g\\ h",
        "echo 'it'\\''s'; echo \"a\\\"b\"",
        "x=5; echo \"$x\" '$x' ${x}y ${none:-other}",
        "echo $(echo inner; echo two) \"$(printf 'a\\nb\\n\\n')\"",
        "false; echo $?; true && echo yes || echo no; ! true; echo $?",
        "false && echo no; false || echo yes",
        "printf '%s-%d|' a 1 b 2; printf '\\101\\n'",
        "mkdir -p a/b/c && touch a/b/one a/two && find a | sort_ 2>/dev/null; find a -type f",
        "mkdir d; touch d/x.css d/y.css d/z.js; cd d; echo *.css; echo *.none; echo ?.js '[x]*' [xy]*",
        "printf 'b\\na\\nc' > f; cat f; wc -c < f; head -n 2 f; tail -n 1 f; echo; wc -l < f",
        "echo one > f; echo two >> f; cat f; grep -n o f; grep -c zzz f; echo $?",
        "printf 'x.y\\nxay\\n' > f; grep x.y f; grep -F x.y f; grep -E 'x(a|b)y' f; grep -v a f",
        "echo hi > f; cp f g; mv g h; cat h; ls; rm f h; ls; rm f; echo $?",
        "mkdir d; echo x > d/f; cp -r d e; cat e/f; rm -r d; ls; rmdir e; echo $?; cat e/f",
        "echo x > f; ln -s f l; cat l; readlink l; rm f; cat l; echo $?; ls",
        "echo x > f; ln f g; echo y >> g; cat f; stat -c '%h %s' f",
        "touch f; chmod 640 f; stat -c %a f; chmod u+x,go= f; stat -c '%a %A' f; chmod -R a+rX f; stat -c %a f",
        "umask 027; touch f; mkdir d; stat -c %a f d; umask",
        "echo level > f; sha256sum f; printf '' | sha256sum",
        "mkdir -p t/in; echo 1 > t/in/f; chmod 750 t/in; tar cf a.tar t; rm -r t; tar xf a.tar; cat t/in/f; stat -c %a t/in; tar tf a.tar",
        "mkdir t; echo 1 > t/f; tar czf - t | tar tzf -",
        "cd /nowhere || echo no; cd /; pwd",
        "printf 'a:b:c\\nplain\\n::\\n' > f; cut -d : -f 2 f; cut -d: -f1,3- f; cut -s -d : -f -2 f",
        "printf 'level\\n\\nab' | cut -c 2-4,1",
        "umask 022; touch f; ls -ld f | cut -c 1-10; getfacl -cpE f; getfacl -ps f",
        "false; test $? -lt 126 && echo less; [ 3 -ge 4 ]; echo $?; test a = a && test a != b; echo $?",
        "echo a > 'odd name'; cat odd\\ name; ls; echo b > '-dash'; cat ./-dash; rm -- -dash",
        "echo ünit > ünit; cat ü*; ls",
        "cat none 2>/dev/null; echo $?; nosuchcommand 2>/dev/null; echo $?",
        "echo to-errors >&2; echo both 2>&1",
        "echo a | cat | tee f | cat; cat f",
        "echo x > f; chmod 000 f; chmod 400 f; stat -c '%F %a %n' f",
      })
  void saysWhatTheSystemSays(String line) throws Exception {
    Outcome real = onTheSystem(line);
    Outcome ours = here(line, "");
    assertThat(withoutErrors(ours.output)).as(line).isEqualTo(real.output);
    assertThat(ours.status).as(line).isEqualTo(real.status);
  }

  /** Complaints go to the same stream here; the system's were dropped. */
  private static String withoutErrors(String output) {
    return output
        .replaceAll("(?m)^(sh|cd|cat|rm|rmdir|grep|mv|cp): .*\n", "")
        .replaceAll("(?m)^to-errors\n", "");
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "for i in a b; do echo $i; done",
        "if true; then echo x; fi",
        "(echo sub)",
        "echo `echo x`",
        "cat <<END",
        "sleep 1 &",
        "ls -Z",
        "find . -newer f",
        "date +%s",
        "stat -c %B .",
        "grep 'a\\+b' f",
        "chmod +q f",
        "${x%y}"
      })
  void refusesWhatItDoesNotHave(String line) {
    Outcome outcome = here("touch f; " + line, "");
    assertThat(outcome.status).as(line + ": " + outcome.output).isNotZero();
    assertThat(outcome.output).isNotBlank();
  }

  @Test
  void becomesRootOnlyWithThePassword() {
    assertThat(here("sudo -S id -u", "wrong\nheron\n").output)
        .contains("try again")
        .endsWith("0\n");
    assertThat(here("sudo -S id -u", "a\nb\nc\nheron\n").status).isEqualTo(1);
    assertThat(here("sudo id", "").output).contains("a password is required");
    assertThat(here("sudo -n true", "").status).isEqualTo(1);
    Outcome made = here("sudo -S touch /made; echo x > /made", "heron\n");
    assertThat(made.output).contains("Permission denied");
    assertThat(here("stat -c %U /made", "").output).isEqualTo("root\n");
  }

  @Test
  void enforcesOwnersAndModes() {
    assertThat(here("touch /f", "").output).contains("Permission denied");
    assertThat(here("chown root f; touch f; chown root f", "").output)
        .contains("Operation not permitted");
    assertThat(here("touch g; chgrp web g; stat -c %G g", "").output).isEqualTo("web\n");
    assertThat(here("mkdir d; touch d/f; chmod 600 d; cat d/f", "").output)
        .contains("Permission denied");
    assertThat(here("chmod 300 d; ls d", "").output).contains("Permission denied");
    assertThat(
            here(
                    "mkdir s; chmod 2775 s; chgrp web s; chmod 2775 s; touch s/in; mkdir s/sub; stat -c '%G %a' s/in s/sub",
                    "")
                .output)
        .isEqualTo("web 644\nweb 2755\n");
    assertThat(here("ln -s round round; cat round", "").output).contains("Too many levels");
  }
}
