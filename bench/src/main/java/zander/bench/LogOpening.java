package zander.bench;

import java.io.RandomAccessFile;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import zander.core.connect.Connection;
import zander.core.files.RemotePath;
import zander.core.reading.FollowedFile;
import zander.core.reading.PagedFile;

/**
 * Opening a log of 2 GB at its end on the system's own {@code sshd}, and one look for what has
 * come, over delayed lines in one run. The slope over the delay tells how many times the line is
 * waited for.
 */
public final class LogOpening {
  private static final long[] DELAYS = {0, 40, 150};
  private static final int TIMES = 9;
  private static final long LENGTH = 2L << 30;

  private LogOpening() {}

  public static void main(String[] arguments) throws Exception {
    if (!LoopbackSshd.isPossible()) {
      System.out.println("opening of logs is measured as root, with openssh-server");
      return;
    }
    Path folder = Files.createTempDirectory("zander-bench");
    Path log = folder.resolve("levels.log");
    byte[] end =
        "2026-11-28 17:40:12 weir-09 level 1.42 m\n"
            .repeat(50_000)
            .getBytes(StandardCharsets.UTF_8);
    try (RandomAccessFile file = new RandomAccessFile(log.toFile(), "rw")) {
      file.seek(LENGTH - end.length);
      file.write(end);
    }
    double[][] seconds = new double[2][DELAYS.length];
    try (LoopbackSshd sshd = new LoopbackSshd(folder)) {
      for (int i = 0; i < DELAYS.length; i++) {
        measure(sshd, folder, log, i, seconds);
      }
    } finally {
      Files.delete(log);
    }
    System.out.printf(
        "%-44s %10s %10s %10s %12s%n",
        "a log of 2 GB, seconds", "loopback", "40 ms", "150 ms", "round trips");
    print("open it and read its last lines", seconds[0]);
    print("look for what has come to it", seconds[1]);
  }

  private static void measure(
      LoopbackSshd sshd, Path folder, Path log, int column, double[][] seconds) throws Exception {
    try (FarSession far = new FarSession(sshd, DELAYS[column], folder.resolve("known-" + column))) {
      Connection connection = far.connection();
      RemotePath path = RemotePath.of(log.toString());
      double[] opening = new double[TIMES];
      double[] looking = new double[TIMES];
      for (int i = -2; i < TIMES; i++) {
        long start = System.nanoTime();
        PagedFile file = PagedFile.open(connection.files(), path);
        if (file.last().isEmpty()) {
          throw new IllegalStateException("nothing was read");
        }
        long opened = System.nanoTime();
        FollowedFile followed = FollowedFile.from(connection.files(), file, LENGTH);
        // The first look reads what it is to know the file by.
        followed.look();
        long first = System.nanoTime();
        followed.look();
        long looked = System.nanoTime();
        followed.close();
        if (i >= 0) {
          opening[i] = (opened - start) / 1e9;
          looking[i] = (looked - first) / 1e9;
        }
      }
      Arrays.sort(opening);
      Arrays.sort(looking);
      seconds[0][column] = opening[TIMES / 2];
      seconds[1][column] = looking[TIMES / 2];
    }
  }

  private static void print(String what, double[] seconds) {
    int last = DELAYS.length - 1;
    double trips = (seconds[last] - seconds[0]) / (DELAYS[last] / 1000.0);
    System.out.printf(
        "%-44s %10.3f %10.3f %10.3f %12.1f%n", what, seconds[0], seconds[1], seconds[2], trips);
  }
}
