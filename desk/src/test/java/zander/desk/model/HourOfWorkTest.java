package zander.desk.model;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.BooleanSupplier;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import zander.core.files.RemotePath;
import zander.core.transfer.progress.Progress;
import zander.core.transfer.rules.ConflictRule;
import zander.core.transfer.rules.TransferRules;
import zander.desk.file.FileModel;
import zander.desk.shell.ShellModel;
import zander.standin.server.Relay;
import zander.standin.world.Caller;
import zander.standin.world.OpenFile;
import zander.standin.world.World;

/**
 * An hour of work in some seconds, over a line that is cut at random moments: listing, editing,
 * saving, sending up, and a shell. All of it must end as it would have without the cuts.
 */
class HourOfWorkTest {
  private static final String TRIAL = "/home/warden/trial";
  private static final int ROUNDS = 6;
  private static final int CUTS = 14;

  @TempDir Path folder;
  private ModelDesk work;
  private Relay relay;

  @BeforeEach
  void start() throws Exception {
    work = new ModelDesk(folder);
    relay = work.relay;
  }

  @AfterEach
  void stop() throws Exception {
    work.close();
  }

  private <T> T on(ModelDesk.Work<T> some) throws Exception {
    return work.on(some);
  }

  private void until(String what, BooleanSupplier condition) throws Exception {
    work.until(what, condition);
  }

  private World world() {
    return work.demo.server("lab-box").machine().world();
  }

  private String content(String path) throws Exception {
    OpenFile file = world().open(Caller.ROOT, path, World.Open.READ);
    return new String(file.read(0, (int) file.size()), StandardCharsets.UTF_8);
  }

  @Test
  void endsAsWithoutTheCuts() throws Exception {
    Path local = Files.createDirectories(folder.resolve("home/up"));
    Map<String, String> expected = new TreeMap<>();
    DeskModel desk = work.openLabBox(TRIAL, local);
    on(
        () -> {
          desk.transfers().rules().change(TransferRules.of(ConflictRule.REPLACE));
          return null;
        });
    Random random = new Random(20261123);
    AtomicInteger cuts = new AtomicInteger();
    Thread cutter = cutter(desk, random, cuts);
    for (int round = 0; round < ROUNDS; round++) {
      edit(desk, "round " + round + "\n");
      sendUp(desk, local, round, expected);
      useShell(desk, round);
    }
    cutter.join(TimeUnit.SECONDS.toMillis(90));
    assertThat(cuts.get()).isEqualTo(CUTS);
    until("the line is back", () -> !desk.line().awayProperty().get());

    StringBuilder edited = new StringBuilder();
    for (int round = ROUNDS - 1; round >= 0; round--) {
      edited.append("round ").append(round).append('\n');
    }
    assertThat(content(TRIAL + "/index.html")).startsWith(edited + "<!doctype");
    for (Map.Entry<String, String> file : expected.entrySet()) {
      assertThat(content(TRIAL + "/" + file.getKey())).as(file.getKey()).isEqualTo(file.getValue());
    }
    for (String name : world().list(Caller.ROOT, TRIAL)) {
      assertThat(name).doesNotContain(".zander-");
      if (name.startsWith("tree-")) {
        assertThat(world().list(Caller.ROOT, TRIAL + "/" + name))
            .as(name)
            .allMatch(inside -> expected.containsKey(name + "/" + inside));
      }
    }
    for (int round = 0; round < ROUNDS; round++) {
      assertThat(world().stat(Caller.ROOT, TRIAL + "/shell-" + round).isFolder()).isTrue();
    }
  }

  /** Cuts after a random number of bytes, again and again, each time the line has come back. */
  private Thread cutter(DeskModel desk, Random random, AtomicInteger cuts) {
    Thread thread =
        new Thread(
            () -> {
              try {
                while (cuts.get() < CUTS) {
                  long bytes = relay.carried();
                  relay.cutAfter(2000 + random.nextInt(30_000));
                  until("the line is cut", () -> desk.line().awayProperty().get());
                  relay.heal();
                  cuts.incrementAndGet();
                  assertThat(relay.carried()).isGreaterThan(bytes);
                  until("the line is back", () -> !desk.line().awayProperty().get());
                }
              } catch (Exception | AssertionError e) {
                throw new IllegalStateException(e);
              }
            });
    thread.setDaemon(true);
    thread.start();
    return thread;
  }

  private void edit(DeskModel desk, String added) throws Exception {
    RemotePath path = RemotePath.of(TRIAL + "/index.html");
    until(
        "the file is open",
        () -> {
          boolean open = desk.currentProperty().get() instanceof FileModel;
          if (!open) {
            desk.openFile(path);
          }
          return open;
        });
    FileModel file = (FileModel) on(() -> desk.currentProperty().get());
    on(
        () -> {
          file.edited(added + file.text());
          return null;
        });
    until(
        "it is saved",
        () -> {
          if (file.isUnsaved() && !file.busyProperty().get() && !desk.line().awayProperty().get()) {
            file.save();
          }
          return !file.isUnsaved();
        });
    on(
        () -> {
          desk.close(file);
          return null;
        });
  }

  private void sendUp(DeskModel desk, Path local, int round, Map<String, String> expected)
      throws Exception {
    String name = "tree-" + round;
    Path tree = Files.createDirectories(local.resolve(name));
    for (int i = 0; i < 30; i++) {
      String text = ("file " + i + " of round " + round + "\n").repeat(1 + i * 5);
      Files.writeString(tree.resolve("f" + i), text);
      expected.put(name + "/f" + i, text);
    }
    until(
        "the folder is listed",
        () -> {
          desk.folder().refresh();
          return desk.folder().path() != null && desk.folder().path().text().equals(TRIAL);
        });
    on(
        () -> {
          desk.local().refresh();
          return null;
        });
    until(
        name + " is seen here",
        () -> desk.local().rows().stream().anyMatch(row -> row.node().name().equals(name)));
    on(
        () -> {
          desk.local()
              .select(
                  desk.local().rows().stream()
                      .filter(row -> row.node().name().equals(name))
                      .toList());
          desk.transfers().sendUp();
          return null;
        });
    until("it is over", () -> desk.transfers().current().isOver());
    Progress progress = on(() -> desk.transfers().current().progress());
    assertThat(progress.problems()).isEmpty();
    assertThat(progress.phase()).isEqualTo(Progress.Phase.DONE);
  }

  private void useShell(DeskModel desk, int round) throws Exception {
    String made = TRIAL + "/shell-" + round;
    on(
        () -> {
          desk.openShell();
          return null;
        });
    ShellModel shell = (ShellModel) on(() -> desk.sheets().get(desk.sheets().size() - 1));
    long[] typed = {0};
    until(
        "the command ran",
        () -> {
          if (!shell.endedProperty().get().isEmpty() && !desk.line().awayProperty().get()) {
            shell.start();
          }
          boolean prompts = shell.terminal().screenText().contains("$");
          if (prompts && System.nanoTime() - typed[0] > TimeUnit.SECONDS.toNanos(1)) {
            typed[0] = System.nanoTime();
            shell.terminal().type(("mkdir " + made + "\r").getBytes(StandardCharsets.UTF_8));
          }
          try {
            return world().stat(Caller.ROOT, made).isFolder();
          } catch (Exception e) {
            return false;
          }
        });
    on(
        () -> {
          desk.close(shell);
          return null;
        });
  }
}
