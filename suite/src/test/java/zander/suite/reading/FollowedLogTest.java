package zander.suite.reading;

import static java.nio.charset.StandardCharsets.US_ASCII;
import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;

import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.io.RandomAccessFile;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import zander.core.connect.Connection;
import zander.core.files.RemotePath;
import zander.core.reading.FileLine;
import zander.core.reading.FollowedFile;
import zander.core.reading.FollowedFile.Growth;
import zander.core.reading.FollowedFile.Turn;
import zander.core.reading.PagedFile;
import zander.suite.SystemSshd;

/**
 * A log on the system's own {@code sshd} that grows faster than anybody reads, and is moved.
 *
 * <p>Judged: no line lost of a log on a server's disk that gets 20,000 a second, and is moved twice
 * | the writer | some seconds ({@code follow.seconds})
 */
@Timeout(300)
class FollowedLogTest {
  /** A minute of it with {@code -Dfollow.seconds=60}. */
  private static final int SECONDS = Integer.getInteger("follow.seconds", 6);

  private static final int LINES_A_SECOND = 20_000;

  /** Writes a second, and looks a second. */
  private static final int STEPS = 10;

  private static final long LARGE = 4L << 30;

  @TempDir static Path folder;
  private static SystemSshd sshd;
  private static Connection connection;

  @BeforeAll
  static void start() throws Exception {
    Assumptions.assumeTrue(SystemSshd.isPossible(), "needs openssh-server, and to be root");
    sshd = new SystemSshd(folder, List.of("zndfollow"), List.of());
    connection = sshd.open("zndfollow");
  }

  @AfterAll
  static void stop() throws Exception {
    if (connection != null) {
      connection.close();
    }
    if (sshd != null) {
      sshd.close();
    }
  }

  private static String line(int number) {
    return "2026-11-28 17:40:12 weir-09 reading " + number + " level 1.42 m of the river\n";
  }

  /** Writes for the time given, in whole lines, and has its log moved away twice. */
  private static int write(Path log) throws Exception {
    int number = 0;
    int all = SECONDS * STEPS;
    Semaphore due = new Semaphore(0);
    try (ScheduledClock clock = new ScheduledClock(due)) {
      OutputStream out = new BufferedOutputStream(Files.newOutputStream(log), 1 << 16);
      for (int step = 1; step <= all; step++) {
        due.acquire();
        for (int i = 0; i < LINES_A_SECOND / STEPS; i++) {
          out.write(line(number++).getBytes(US_ASCII));
        }
        if (step == all / 3 || step == 2 * all / 3) {
          Files.move(log, log.resolveSibling("levels.log." + step));
          // A service goes on with the file that it has until it is told.
          out.write(line(number++).getBytes(US_ASCII));
          out.close();
          out = new BufferedOutputStream(Files.newOutputStream(log), 1 << 16);
        }
      }
      out.close();
    }
    return number;
  }

  /** Gives leave so many times a second. */
  private static final class ScheduledClock implements AutoCloseable {
    private final ScheduledExecutorService clock = Executors.newSingleThreadScheduledExecutor();

    ScheduledClock(Semaphore due) {
      int pause = 1000 / STEPS;
      clock.scheduleAtFixedRate(due::release, pause, pause, TimeUnit.MILLISECONDS);
    }

    @Override
    public void close() {
      clock.shutdownNow();
    }
  }

  @Test
  void noLineIsLostAndAllAreInTheirOrder() throws Exception {
    Path log = folder.resolve("zndfollow/levels.log");
    Files.write(log, new byte[0]);
    RemotePath path = RemotePath.of(log.toString());
    PagedFile file = PagedFile.open(connection.files(), path);
    Semaphore due = new Semaphore(0);
    int next = 0;
    int replaced = 0;
    long before = usedMemory();
    try (ScheduledClock clock = new ScheduledClock(due);
        FollowedFile followed = FollowedFile.from(connection.files(), file, 0)) {
      CompletableFuture<Integer> written =
          CompletableFuture.supplyAsync(
              () -> {
                try {
                  return write(log);
                } catch (Exception e) {
                  throw new IllegalStateException(e);
                }
              });
      while (!written.isDone() || next < written.get()) {
        due.acquire();
        List<Growth> grown = followed.look();
        for (Growth growth : grown) {
          replaced += growth.turn() == Turn.REPLACED ? 1 : 0;
          assertThat(growth.turn()).isIn(Turn.GREW, Turn.REPLACED, Turn.GONE);
          for (FileLine line : growth.lines()) {
            assertThat(line.text() + "\n").isEqualTo(line(next++));
          }
        }
        due.drainPermits();
      }
      assertThat(next).isEqualTo(written.get()).isGreaterThan(SECONDS * LINES_A_SECOND);
      // What was there before can still be read back into, over both moves.
      PagedFile second = followed.fileBefore(followed.file());
      PagedFile first = followed.fileBefore(second);
      assertThat(first.after(0).get(0).text() + "\n").isEqualTo(line(0));
      assertThat(second.last()).isNotEmpty();
      assertThat(usedMemory() - before).isLessThan(32L << 20);
    }
    assertThat(replaced).isEqualTo(2);
  }

  /** What is still held, without what is only not collected yet. */
  private static long usedMemory() {
    System.gc();
    Runtime runtime = Runtime.getRuntime();
    return runtime.totalMemory() - runtime.freeMemory();
  }

  @Test
  void aFileOfFourGigabytesIsReadAnywhereInLittleMemory() throws Exception {
    Path log = folder.resolve("zndfollow/large.log");
    List<Long> places = new ArrayList<>();
    try (RandomAccessFile file = new RandomAccessFile(log.toFile(), "rw")) {
      for (long at = 0; at < LARGE; at += LARGE / 8) {
        // What lies between is a hole: a line of no characters at all, gigabytes long.
        file.seek(at);
        file.write(("\nmark " + at + " of the river\n").getBytes(UTF_8));
        places.add(at + 1);
      }
    }
    PagedFile file = PagedFile.open(connection.files(), RemotePath.of(log.toString()));
    for (long place : places) {
      assertThat(file.lineAt(place + 3)).isEqualTo(place);
      assertThat(file.after(place).get(0).text())
          .isEqualTo("mark " + (place - 1) + " of the river");
    }
    long last = places.get(places.size() - 1);
    assertThat(file.last()).last().extracting(FileLine::from).isEqualTo(last);
    file.close();
  }

  @Test
  void aClosedFileIsClosedOnTheServerToo() throws IOException {
    Path log = folder.resolve("zndfollow/closed.log");
    Files.write(log, List.of("one"));
    RemotePath path = RemotePath.of(log.toString());
    // Far more than the server lets be open at once.
    for (int i = 0; i < 1500; i++) {
      PagedFile file = PagedFile.open(connection.files(), path);
      assertThat(file.size()).isEqualTo(4);
      file.close();
    }
  }
}
