package zander.bench;

import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import org.apache.sshd.sftp.client.SftpClient;
import zander.core.change.save.AtomicSave;
import zander.core.change.save.FileVersion;
import zander.core.connect.Connection;
import zander.core.files.RemotePath;
import zander.core.journal.Journal;

/**
 * Opening and saving a file of 4 KB on the system's own {@code sshd}, beside the library's plain
 * reading and writing of it, over the same delayed lines in one run. The slope over the delay tells
 * how many times the line is waited for.
 */
public final class SaveTrips {
  private static final long[] DELAYS = {0, 40, 150};
  private static final int TIMES = 9;

  private SaveTrips() {}

  interface Work {
    void run() throws Exception;
  }

  public static void main(String[] arguments) throws Exception {
    if (!LoopbackSshd.isPossible()) {
      System.out.println("saves are measured as root, with openssh-server");
      return;
    }
    Path folder = Files.createTempDirectory("zander-bench");
    double[][] seconds = new double[5][DELAYS.length];
    try (LoopbackSshd sshd = new LoopbackSshd(folder)) {
      for (int i = 0; i < DELAYS.length; i++) {
        measure(sshd, folder, DELAYS[i], i, seconds);
      }
    }
    System.out.printf(
        "%-44s %10s %10s %10s %12s%n",
        "a file of 4 KB, seconds", "loopback", "40 ms", "150 ms", "round trips");
    print("Zander opens it", seconds[0]);
    print("the library reads it", seconds[1]);
    print("Zander saves it, by a new file", seconds[2]);
    print("Zander saves it, into the same file", seconds[3]);
    print("the library writes it", seconds[4]);
    System.out.printf(
        "a save takes %.2f times of the library's plain write at 40 ms, %.2f times at 150 ms%n",
        seconds[2][1] / seconds[4][1], seconds[2][2] / seconds[4][2]);
  }

  private static void measure(
      LoopbackSshd sshd, Path folder, long delay, int column, double[][] seconds) throws Exception {
    Path work = Files.createDirectory(folder.resolve("at-" + delay));
    Path plain = Files.write(work.resolve("site.conf"), new byte[4096]);
    Path twoNames = Files.write(work.resolve("levels.conf"), new byte[4096]);
    Files.createLink(work.resolve("elsewhere.conf"), twoNames);
    try (FarSession far = new FarSession(sshd, delay, folder.resolve("known-" + delay));
        LibraryLine library = new LibraryLine(far.port(), sshd.key());
        SftpClient files = library.files()) {
      Connection connection = far.connection();
      AtomicSave saver = new AtomicSave(connection.files(), connection, Journal.NONE);
      RemotePath path = RemotePath.of(plain.toString());
      seconds[0][column] = median(() -> saver.open(path, 1 << 20));
      seconds[1][column] =
          median(
              () -> {
                try (var in = files.read(plain.toString())) {
                  in.readAllBytes();
                }
              });
      seconds[2][column] = median(saving(saver, path, false));
      seconds[3][column] = median(saving(saver, RemotePath.of(twoNames.toString()), true));
      byte[] content = new byte[4096];
      seconds[4][column] =
          median(
              () -> {
                try (OutputStream out = files.write(plain.toString())) {
                  out.write(content);
                }
              });
    }
  }

  private static Work saving(AtomicSave saver, RemotePath path, boolean same) throws Exception {
    FileVersion[] version = {saver.open(path, 1 << 20).version()};
    return () -> {
      AtomicSave.Saved saved = saver.save(version[0], new byte[4096], List.of());
      if (saved.inPlace() != same) {
        throw new IllegalStateException("saved in another way than is measured");
      }
      version[0] = saved.version();
    };
  }

  private static double median(Work work) throws Exception {
    work.run();
    work.run();
    double[] taken = new double[TIMES];
    for (int n = 0; n < TIMES; n++) {
      long start = System.nanoTime();
      work.run();
      taken[n] = LibraryLine.since(start);
    }
    Arrays.sort(taken);
    return taken[TIMES / 2];
  }

  private static void print(String name, double[] seconds) {
    double trips = (seconds[2] - seconds[0]) / (DELAYS[2] / 1000.0);
    System.out.printf(
        "%-44s %10.3f %10.3f %10.3f %12.1f%n", name, seconds[0], seconds[1], seconds[2], trips);
  }
}
