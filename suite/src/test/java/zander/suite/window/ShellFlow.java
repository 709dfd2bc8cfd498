package zander.suite.window;

import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.concurrent.atomic.AtomicBoolean;
import zander.core.connect.Connection;
import zander.core.connect.command.ShellSession;
import zander.core.files.RemotePath;
import zander.desk.model.DeskModel;
import zander.desk.shell.ShellModel;
import zander.suite.SystemSshd;

/**
 * A flood in a shell of the window, over the system's own {@code sshd}: beside reading the same and
 * throwing it away, how long the window stands still in it, and how long a key takes to come back
 * in another shell meanwhile. In one run.
 */
public final class ShellFlow {
  private static final String ACCOUNT = "zndflow";
  private static final int LINES = 600_000;
  private static final int KEYS = 100;
  private static final int ROUNDS = 3;
  private static final String END = "po''ured";

  private final RemotePath folder;
  private final Connection line;

  private ShellFlow(RemotePath folder, Connection line) {
    this.folder = folder;
    this.line = line;
  }

  public static void main(String[] arguments) throws Exception {
    if (!SystemSshd.isPossible()) {
      System.out.println("shells are measured as root, with openssh-server");
      return;
    }
    Path folder = Files.createTempDirectory("zander-flow");
    try (SystemSshd server = new SystemSshd(folder, List.of(ACCOUNT), List.of());
        OffscreenWindow window = new OffscreenWindow(folder.resolve("here"), server)) {
      StringBuilder text = new StringBuilder();
      for (int i = 0; i < LINES; i++) {
        text.append("-rw-r--r-- 1 web web ").append(i).append(" \033[01;3").append(i % 8);
        text.append("mgauge-").append(i).append(".html\033[0m  of the river at the weir\n");
      }
      Path there = folder.resolve(ACCOUNT);
      Files.writeString(there.resolve("flood"), text, StandardCharsets.UTF_8);
      SystemSshd.run("chown", "-R", ACCOUNT + ":", there.toString());
      DeskModel desk = window.open("levels-web", ACCOUNT, server.port(), there, window.home());
      try (Connection line = server.open(ACCOUNT)) {
        new ShellFlow(RemotePath.of(there.toString()), line).measure(window, desk, text.length());
      }
    }
    System.exit(0);
  }

  private static ShellModel open(OffscreenWindow window, DeskModel desk) throws Exception {
    window.run(desk::openShell);
    ShellModel shell = window.on(() -> desk.shells().frontProperty().get());
    window.until("it prompts", () -> shell.terminal().screenText().contains("$"));
    return shell;
  }

  private void measure(OffscreenWindow window, DeskModel desk, long bytes) throws Exception {
    double thrown = Double.MAX_VALUE;
    double shown = Double.MAX_VALUE;
    long[] stands = {};
    for (int i = 0; i < ROUNDS; i++) {
      thrown = Math.min(thrown, thrownAway());
      ShellModel shell = open(window, desk);
      AtomicBoolean over = new AtomicBoolean();
      long[][] seen = new long[1][];
      Thread looking = new Thread(() -> seen[0] = stands(window, over));
      looking.start();
      long start = System.nanoTime();
      type(shell, "clear; cat flood; echo " + END + "\r");
      window.until("it has poured", () -> shell.terminal().screenText().contains("\npoured"));
      shown = Math.min(shown, (System.nanoTime() - start) / 1e9);
      over.set(true);
      looking.join();
      stands = seen[0];
      window.run(() -> desk.close(shell));
    }
    System.out.printf("%-52s %8.2f s%n", bytes / 1_000_000 + " MB thrown away", thrown);
    System.out.printf("%-52s %8.2f s, %.1f times%n", "shown", shown, shown / thrown);
    System.out.printf(
        "%-52s %8.1f ms, at most %.1f ms%n",
        "the interface thread stands still, 99th of " + stands.length,
        stands[stands.length * 99 / 100] / 1e6,
        stands[stands.length - 1] / 1e6);
    ShellModel quiet = open(window, desk);
    double alone = echo(quiet);
    ShellModel flooded = open(window, desk);
    window.run(() -> desk.shells().frontProperty().set(quiet));
    type(flooded, "while :; do cat flood; done\r");
    double beside = echo(quiet);
    type(flooded, "\003");
    System.out.printf(
        "%-52s %8.2f ms, %.2f times of %.2f ms%n",
        "a key comes back, beside a flood", beside, beside / alone, alone);
  }

  /** The same through a shell's channel that nobody looks at; in seconds. */
  private double thrownAway() throws Exception {
    try (ShellSession shell = line.openShell(folder, 100, 30)) {
      long start = System.nanoTime();
      shell.type(("cat flood; echo " + END + "\r").getBytes(StandardCharsets.UTF_8));
      InputStream output = shell.output();
      byte[] buffer = new byte[32 * 1024];
      String last = "";
      while (!last.contains("\npoured")) {
        int count = output.read(buffer);
        int from = Math.max(0, count - 200);
        last = last + new String(buffer, from, count - from, StandardCharsets.UTF_8);
        last = last.substring(Math.max(0, last.length() - 400));
      }
      return (System.nanoTime() - start) / 1e9;
    }
  }

  /** How long the interface thread took to come to a piece of work, each time; ascending. */
  private static long[] stands(OffscreenWindow window, AtomicBoolean over) {
    long[] all = new long[200_000];
    int count = 0;
    try {
      while (!over.get() && count < all.length) {
        long asked = System.nanoTime();
        window.on(() -> "");
        all[count++] = System.nanoTime() - asked;
      }
    } catch (Exception e) {
      throw new IllegalStateException(e);
    }
    long[] seen = Arrays.copyOf(all, count);
    Arrays.sort(seen);
    return seen;
  }

  /** The median of keys, in milliseconds. */
  private static double echo(ShellModel shell) throws Exception {
    long[] took = new long[KEYS];
    for (int i = 0; i < KEYS; i++) {
      long before = shell.terminal().version();
      long start = System.nanoTime();
      type(shell, "x");
      while (shell.terminal().version() == before) {
        Thread.onSpinWait();
      }
      took[i] = System.nanoTime() - start;
    }
    Arrays.sort(took);
    return took[KEYS / 2] / 1e6;
  }

  private static void type(ShellModel shell, String text) {
    shell.terminal().type(text.getBytes(StandardCharsets.UTF_8));
  }
}
