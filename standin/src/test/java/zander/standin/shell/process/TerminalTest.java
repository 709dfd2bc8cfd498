package zander.standin.shell.process;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.io.PipedInputStream;
import java.io.PipedOutputStream;
import java.time.Clock;
import java.util.HashMap;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import zander.standin.shell.Shell;
import zander.standin.world.Account;
import zander.standin.world.Accounts;
import zander.standin.world.Caller;
import zander.standin.world.Machine;
import zander.standin.world.World;

/** The interactive shell, typed at as a person does. */
class TerminalTest {
  private final PipedOutputStream keys = new PipedOutputStream();
  private final Screen screen = new Screen();
  private CompletableFuture<Integer> ended;

  /** Keeps what is printed and wakes who waits for it. */
  private static final class Screen extends OutputStream {
    private final ByteArrayOutputStream bytes = new ByteArrayOutputStream();

    @Override
    public synchronized void write(int b) {
      bytes.write(b);
      notifyAll();
    }

    synchronized String text() {
      return bytes.toString(UTF_8).replaceAll("\033\\[[0-9;?]*[A-Za-z]", "");
    }

    synchronized void await(String words) throws InterruptedException {
      long deadline = System.nanoTime() + TimeUnit.SECONDS.toNanos(20);
      while (!text().contains(words)) {
        long left = TimeUnit.NANOSECONDS.toMillis(deadline - System.nanoTime());
        assertThat(left).as("waited for '%s', saw: %s", words, text()).isPositive();
        wait(left);
      }
    }
  }

  @BeforeEach
  void start() throws IOException {
    Accounts accounts = new Accounts();
    accounts.addGroup("warden", 1004);
    Account warden =
        new Account(
            "warden", 1004, 1004, List.of(), "/home/warden", "/bin/sh", "heron", Account.ANYBODY);
    accounts.add(warden);
    accounts.add(new Account("root", 0, 0, List.of(), "/root", "/bin/sh", "", ""));
    World world = new World(Clock.systemUTC());
    world.mkdir(Caller.ROOT, "/home", 0755);
    world.mkdir(Caller.ROOT, "/home/warden", 0755);
    world.chown(Caller.ROOT, "/home/warden", 1004, 1004, false);
    Machine machine = new Machine("lab-box", world, accounts, Clock.systemUTC());
    Terminal terminal = new Terminal(new PipedInputStream(keys), screen, 80, 24);
    Shell shell = new Shell(new Call.Session(machine, warden, new HashMap<>(), terminal));
    ended =
        CompletableFuture.supplyAsync(
            () -> {
              try {
                return shell.interact();
              } catch (IOException e) {
                throw new IllegalStateException(e);
              }
            });
  }

  private void type(String text) throws IOException {
    keys.write(text.getBytes(UTF_8));
    keys.flush();
  }

  @Test
  void editsLinesAndRemembersThem() throws Exception {
    screen.await("warden@lab-box:~$ ");
    type("echo wrold\033[D\033[D\033[D\177\033[Cr\r");
    screen.await("\r\nworld\r\n");
    type("\033[A\025echo second\r");
    screen.await("\r\nsecond\r\n");
    type("\033[A\033[A again\r");
    screen.await("\r\nworld again\r\n");
    type("exit 7\r");
    assertThat(ended.get(20, TimeUnit.SECONDS)).isEqualTo(7);
  }

  @Test
  void controlCEndsWhatRunsAndControlDTheShell() throws Exception {
    type("echo start > log; tail -f log\r");
    screen.await("start\r\n");
    type("\003");
    screen.await("^C");
    type("echo after\r");
    screen.await("\r\nafter\r\n");
    type("\004");
    assertThat(ended.get(20, TimeUnit.SECONDS)).isNotNull();
  }

  @Test
  void aPasswordIsNotShown() throws Exception {
    type("sudo whoami\r");
    screen.await("[sudo] password for warden: ");
    type("heron\r");
    screen.await("\r\nroot\r\n");
    assertThat(screen.text()).doesNotContain("heron");
    type("sudo -i\r");
    screen.await("root@lab-box");
    type("exit\r");
    type("whoami\r");
    screen.await("\r\nwarden\r\n");
  }
}
