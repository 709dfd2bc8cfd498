package zander.bench;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import zander.core.connect.Connection;
import zander.core.connect.command.ShellSession;
import zander.core.files.RemotePath;
import zander.core.term.Terminal;
import zander.core.term.screen.Scrollback;

/**
 * How long a key in a shell takes to come back over a line of 40 ms, alone and beside another shell
 * on the same connection that pours without an end, in one run.
 */
public final class ShellEcho {
  private static final long DELAY = 40;
  private static final int KEYS = 60;

  private ShellEcho() {}

  /** A shell whose output goes to a terminal. */
  private static final class Side implements AutoCloseable {
    private final Terminal terminal =
        new Terminal(100, 30, new Scrollback(100_000, 40L << 20), new int[259], answer -> {});
    private final ShellSession shell;

    Side(Connection connection) throws IOException {
      shell = connection.openShell(RemotePath.of("/"), 100, 30);
      Thread reading = new Thread(this::read);
      reading.setDaemon(true);
      reading.start();
    }

    private void read() {
      byte[] buffer = new byte[32 * 1024];
      try {
        for (int count; (count = shell.output().read(buffer)) >= 0; ) {
          terminal.feed(buffer, 0, count);
        }
      } catch (IOException e) {
        throw new UncheckedIOException(e);
      }
    }

    void type(String text) throws IOException {
      shell.type(text.getBytes(StandardCharsets.UTF_8));
    }

    void awaitText(String text) {
      while (!shows(text)) {
        Thread.onSpinWait();
      }
    }

    private boolean shows(String text) {
      return terminal.look(
          screen -> {
            for (int y = 0; y < screen.rows(); y++) {
              if (screen.row(y).text().contains(text)) {
                return true;
              }
            }
            return false;
          });
    }

    /** The median, in milliseconds. */
    double echo() throws IOException {
      long[] took = new long[KEYS];
      for (int i = 0; i < KEYS; i++) {
        long before = terminal.version();
        long start = System.nanoTime();
        type("x");
        while (terminal.version() == before) {
          Thread.onSpinWait();
        }
        took[i] = System.nanoTime() - start;
      }
      Arrays.sort(took);
      type("\025");
      return took[KEYS / 2] / 1e6;
    }

    @Override
    public void close() {
      shell.close();
    }
  }

  public static void main(String[] arguments) throws Exception {
    if (!LoopbackSshd.isPossible()) {
      System.out.println("shells are measured as root, with openssh-server");
      return;
    }
    Path folder = Files.createTempDirectory("zander-bench");
    try (LoopbackSshd sshd = new LoopbackSshd(folder);
        FarSession far = new FarSession(sshd, DELAY, folder.resolve("known"));
        Side quiet = new Side(far.connection());
        Side flooded = new Side(far.connection())) {
      quiet.type("PS1='ready'; clear\r");
      quiet.awaitText("ready");
      double alone = quiet.echo();
      flooded.type("while :; do printf '%s\\n' '\033[1;32mgauge\033[0m of the river'; done\r");
      flooded.awaitText("river");
      double beside = quiet.echo();
      System.out.printf(
          "a key comes back in %.1f ms, beside a flood in %.1f ms: %.2f times%n",
          alone, beside, beside / alone);
    }
    System.exit(0);
  }
}
