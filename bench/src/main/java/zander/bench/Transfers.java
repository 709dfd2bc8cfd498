package zander.bench;

import java.io.IOException;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Random;
import java.util.concurrent.ThreadLocalRandom;
import org.apache.commons.compress.archivers.tar.TarArchiveEntry;
import org.apache.commons.compress.archivers.tar.TarArchiveInputStream;
import org.apache.sshd.sftp.client.SftpClient;
import zander.core.connect.Connection;
import zander.core.connect.Connector;
import zander.core.connect.address.ServerAddress;
import zander.core.connect.signin.SignInMethods;
import zander.core.files.RemotePath;
import zander.core.journal.Journal;
import zander.core.transfer.Transfer;
import zander.core.transfer.endpoint.Source;
import zander.core.transfer.endpoint.Target;
import zander.core.transfer.local.LocalEndpoint;
import zander.core.transfer.progress.Progress;
import zander.core.transfer.remote.RemoteEndpoint;
import zander.core.transfer.rules.ConflictRule;
import zander.core.transfer.server.SharedConnectionChannels;
import zander.core.trust.KnownHosts;
import zander.core.work.Cancellation;

/**
 * Transfers against the system's own {@code sshd}, over the loopback and over a line with 40 ms
 * round trip: many small files against one at a time and against a bare tar stream, a large file
 * against a bare stream and the library's own calls, and opening a file meanwhile. Every ratio is
 * of two times of this run. Needs root, as the suite against {@code sshd} does.
 */
public final class Transfers {
  private static final int SMALL_FILES = 3000;
  private static final int ONE_AT_A_TIME = 40;
  private static final long ROUND_TRIP = 40;
  private static final int WARMING = 8;
  private static final int ROUNDS = 5;

  private final Path folder;
  private final LoopbackSshd sshd;
  private final Path small;
  private final Path large;
  private final long largeSize;
  private int count;

  private Transfers(Path folder, LoopbackSshd sshd, long largeSize) throws IOException {
    this.folder = folder;
    this.sshd = sshd;
    this.largeSize = largeSize;
    this.small = Files.createDirectories(folder.resolve("here/small"));
    this.large = folder.resolve("here/large");
    Random random = new Random(7);
    byte[] content = new byte[2048];
    for (int i = 0; i < SMALL_FILES; i++) {
      random.nextBytes(content);
      Files.write(small.resolve("reading-" + i), content);
    }
    byte[] block = new byte[1 << 20];
    try (OutputStream out = Files.newOutputStream(large)) {
      for (long left = largeSize; left > 0; left -= block.length) {
        random.nextBytes(block);
        out.write(block);
      }
    }
  }

  /**
   * @param arguments the large file's size in MiB; 1024 if there is none
   */
  public static void main(String[] arguments) throws Exception {
    if (!LoopbackSshd.isPossible()) {
      System.out.println("Transfers: needs openssh-server, and to be root");
      return;
    }
    long size = (arguments.length > 0 ? Long.parseLong(arguments[0]) : 1024) << 20;
    Path folder = Files.createTempDirectory("zander-bench");
    try (LoopbackSshd sshd = new LoopbackSshd(folder)) {
      Transfers bench = new Transfers(folder, sshd, size);
      bench.warmUp();
      try (DelayedLine far = new DelayedLine(sshd.port(), ROUND_TRIP)) {
        bench.smallFiles(far.port());
        bench.largeFileFar(far.port());
        bench.openingMeanwhile(far.port());
      }
      bench.largeFileNear();
    } finally {
      remove(folder);
    }
  }

  private static void remove(Path tree) throws Exception {
    new ProcessBuilder("rm", "-rf", tree.toString()).inheritIO().start().waitFor();
  }

  /** A program's first megabytes run at a tenth of the rate, until the cipher is compiled. */
  private void warmUp() throws Exception {
    try (LibraryLine library = new LibraryLine(sshd.port(), sshd.key())) {
      library.up("cat > /dev/null", this::feedLarge);
      bareDown(library);
    }
    try (Connection connection = connect(sshd.port())) {
      Path here = small.getParent();
      for (boolean filesAlone : new boolean[] {false, true}) {
        for (int i = 0; i < WARMING; i++) {
          transfer(new LocalEndpoint(here), side(connection, fresh(), filesAlone), "small");
          transfer(
              side(connection, here, filesAlone).withFolders(),
              new LocalEndpoint(fresh()),
              "small");
        }
      }
    }
  }

  private interface Measured {
    double seconds() throws Exception;
  }

  /**
   * The least time of each, taken in turns, so that an hour's bad minutes meet all of them; what is
   * left is what the machine's other work does not explain.
   */
  private double[] best(Measured... measured) throws Exception {
    double[] best = new double[measured.length];
    java.util.Arrays.fill(best, Double.MAX_VALUE);
    for (int round = 0; round < ROUNDS; round++) {
      for (int i = 0; i < measured.length; i++) {
        best[i] = Math.min(best[i], measured[i].seconds());
        // All that arrives in a run would fill a disk.
        remove(folder.resolve("there"));
      }
    }
    return best;
  }

  private Path fresh() throws IOException {
    return Files.createDirectories(folder.resolve("there/" + ++count));
  }

  private Connection connect(int port) throws Exception {
    Connector connector =
        new Connector(
            new KnownHosts(folder.resolve("known")),
            address -> List.of(new InetSocketAddress(InetAddress.getLoopbackAddress(), port)));
    Connection connection =
        connector.open(
            new ServerAddress("root", "localhost", port),
            SignInMethods.byKey(sshd.key()),
            FirstSlice.TRUSTING);
    // As a desk does, long before anything is transferred.
    connection.delay();
    return connection;
  }

  private static RemoteEndpoint side(Connection connection, Path path, boolean filesAlone) {
    RemoteEndpoint side =
        new RemoteEndpoint(
            new SharedConnectionChannels(() -> connection),
            RemotePath.of(path.toString()),
            Journal.NONE,
            connection.whoAmI().home());
    return filesAlone ? side.byFilesAlone() : side;
  }

  private static double transfer(Source source, Target target, String name) throws IOException {
    long start = System.nanoTime();
    Progress progress =
        new Transfer(source, target, ConflictRule.ASK, question -> null, new Cancellation())
            .run(List.of(name));
    if (!progress.problems().isEmpty() || progress.skipped() > 0) {
      throw new IllegalStateException("the transfer failed: " + progress);
    }
    return LibraryLine.since(start);
  }

  private void smallFiles(int port) throws Exception {
    Path here = small.getParent();
    try (LibraryLine library = new LibraryLine(port, sshd.key());
        Connection connection = connect(port)) {
      double each = oneAtATime(library) / ONE_AT_A_TIME;
      double all = each * SMALL_FILES;
      System.out.printf(
          "%,d files of 2 KiB over 40 ms, sent up; one at a time %.0f ms each, %.0f s for all%n",
          SMALL_FILES, each * 1000, all);
      double[] up =
          best(
              () ->
                  library.up("cd " + fresh() + " && tar -xf -", out -> LibraryLine.tar(small, out)),
              () -> transfer(new LocalEndpoint(here), side(connection, fresh(), false), "small"),
              () -> transfer(new LocalEndpoint(here), side(connection, fresh(), true), "small"));
      row("bare tar stream up", all, up[0], up[0]);
      row("Zander, account with a shell", all, up[1], up[0]);
      row("Zander, by SFTP alone", all, up[2], up[0]);
      double[] down =
          best(
              () -> untar(library),
              () ->
                  transfer(
                      side(connection, here, false).withFolders(),
                      new LocalEndpoint(fresh()),
                      "small"),
              () -> transfer(side(connection, here, true), new LocalEndpoint(fresh()), "small"));
      row("bare tar stream down", all, down[0], down[0]);
      row("Zander, account with a shell", all, down[1], down[0]);
      row("Zander, by SFTP alone", all, down[2], down[0]);
    }
  }

  private double untar(LibraryLine library) throws IOException {
    Path goal = fresh();
    return library.down(
        "cd " + small + " && tar -cf - .",
        stream -> {
          TarArchiveInputStream tar =
              new TarArchiveInputStream(new java.io.BufferedInputStream(stream, 65536));
          for (TarArchiveEntry entry; (entry = tar.getNextEntry()) != null; ) {
            if (entry.isFile()) {
              Files.write(goal.resolve(entry.getName()), tar.readAllBytes());
            }
          }
        });
  }

  private static void row(String what, double oneAtATime, double seconds, double bare) {
    System.out.printf(
        "  %-32s %6.2f s, %4.0f times as fast, %.2f of the bare stream's time%n",
        what, seconds, oneAtATime / seconds, seconds / bare);
  }

  private double oneAtATime(LibraryLine library) throws IOException {
    Path goal = fresh();
    long start = System.nanoTime();
    try (SftpClient client = library.files()) {
      for (int i = 0; i < ONE_AT_A_TIME; i++) {
        try (OutputStream out = client.write(goal.resolve("reading-" + i).toString())) {
          out.write(Files.readAllBytes(small.resolve("reading-" + i)));
        }
      }
    }
    return LibraryLine.since(start);
  }

  private void feedLarge(OutputStream out) throws IOException {
    try (var in = Files.newInputStream(large)) {
      LibraryLine.copy(in, out);
    }
  }

  private void rate(String what, double seconds, String compared) {
    System.out.printf("  %-40s %6.0f MiB/s%s%n", what, (largeSize >> 20) / seconds, compared);
  }

  private static String times(double of, double seconds) {
    return String.format(", %.2f times as fast", of / seconds);
  }

  private void largeFileNear() throws Exception {
    Path here = large.getParent();
    try (LibraryLine library = new LibraryLine(sshd.port(), sshd.key());
        Connection connection = connect(sshd.port())) {
      System.out.printf("one file of %,d MiB over the loopback%n", largeSize >> 20);
      double[] up =
          best(
              () -> library.up("cat > " + fresh() + "/f", this::feedLarge),
              () -> transfer(new LocalEndpoint(here), side(connection, fresh(), false), "large"),
              () -> ownUp(library, 255 * 1024),
              () -> ownUp(library, 0),
              () -> transfer(new LocalEndpoint(here), side(connection, fresh(), true), "large"));
      rate("bare stream up", up[0], "");
      rate("Zander up, with a shell", up[1], times(up[0], up[1]));
      rate("the library's own call up, at its best", up[2], "");
      rate("the same as it comes", up[3], "");
      rate("Zander up, by SFTP alone", up[4], times(up[2], up[4]));
      double[] down =
          best(
              () -> bareDown(library),
              () -> transfer(side(connection, here, false), new LocalEndpoint(fresh()), "large"),
              () -> ownDown(library, 255 * 1024),
              () -> ownDown(library, 0),
              () -> transfer(side(connection, here, true), new LocalEndpoint(fresh()), "large"));
      rate("bare stream down", down[0], "");
      rate("Zander down, with a shell", down[1], times(down[0], down[1]));
      rate("the library's own call down, at its best", down[2], "");
      rate("the same as it comes", down[3], "");
      rate("Zander down, by SFTP alone", down[4], times(down[2], down[4]));
    }
  }

  private double bareDown(LibraryLine library) throws IOException {
    return library.down("cat " + large, fresh().resolve("f"));
  }

  /**
   * @param buffer bytes; 0 for as many as the library takes by itself
   */
  private double ownUp(LibraryLine library, int buffer) throws IOException {
    Path goal = fresh().resolve("f");
    long start = System.nanoTime();
    try (SftpClient client = library.files();
        OutputStream out =
            buffer == 0 ? client.write(goal.toString()) : client.write(goal.toString(), buffer)) {
      feedLarge(out);
    }
    return LibraryLine.since(start);
  }

  private double ownDown(LibraryLine library, int buffer) throws IOException {
    Path goal = fresh().resolve("f");
    long start = System.nanoTime();
    try (SftpClient client = library.files();
        var in =
            buffer == 0 ? client.read(large.toString()) : client.read(large.toString(), buffer);
        OutputStream out = Files.newOutputStream(goal)) {
      LibraryLine.copy(in, out);
    }
    return LibraryLine.since(start);
  }

  private void largeFileFar(int port) throws Exception {
    Path here = large.getParent();
    try (LibraryLine library = new LibraryLine(port, sshd.key());
        Connection connection = connect(port)) {
      System.out.printf("one file of %,d MiB over 40 ms%n", largeSize >> 20);
      double allowed = (largeSize / (2.0 * (1 << 20))) * ROUND_TRIP / 1000;
      rate("what one channel's window allows up", allowed, "");
      double[] best =
          best(
              () -> library.up("cat > " + fresh() + "/f", this::feedLarge),
              () -> transfer(new LocalEndpoint(here), side(connection, fresh(), false), "large"),
              () -> transfer(new LocalEndpoint(here), side(connection, fresh(), true), "large"),
              () -> bareDown(library),
              () -> transfer(side(connection, here, false), new LocalEndpoint(fresh()), "large"),
              () -> transfer(side(connection, here, true), new LocalEndpoint(fresh()), "large"));
      rate("bare stream up", best[0], times(allowed, best[0]));
      rate("Zander up, with a shell", best[1], times(allowed, best[1]));
      rate("Zander up, by SFTP alone", best[2], times(allowed, best[2]));
      rate("bare stream down", best[3], "");
      rate("Zander down, with a shell", best[4], times(best[3], best[4]));
      rate("Zander down, by SFTP alone", best[5], times(best[3], best[5]));
    }
  }

  /** The median time to read a small file, on a quiet line and while it is full. */
  private void openingMeanwhile(int port) throws Exception {
    try (Connection connection = connect(port)) {
      double quiet = opening(connection);
      Cancellation stop = new Cancellation();
      Transfer transfer =
          new Transfer(
              new LocalEndpoint(large.getParent()),
              side(connection, fresh(), false),
              ConflictRule.ASK,
              question -> null,
              stop);
      Thread carrying = new Thread(() -> transfer.run(List.of("large")));
      carrying.start();
      while (transfer.progress().bytes() < largeSize / 20) {
        Thread.onSpinWait();
      }
      double full = opening(connection);
      boolean still = carrying.isAlive();
      stop.stop();
      carrying.join();
      System.out.printf(
          "opening a file of 2 KiB over 40 ms: %.0f ms on a quiet line, %.0f ms while a transfer"
              + " fills it, %.1f times as long%s%n",
          quiet * 1000, full * 1000, full / quiet, still ? "" : " (it had ended)");
    }
  }

  private double opening(Connection connection) throws IOException {
    double[] seconds = new double[9];
    for (int i = 0; i < seconds.length; i++) {
      RemotePath file =
          RemotePath.of(
              small
                  .resolve("reading-" + ThreadLocalRandom.current().nextInt(SMALL_FILES))
                  .toString());
      long start = System.nanoTime();
      connection.files().readAll(file, 1 << 20);
      seconds[i] = LibraryLine.since(start);
    }
    java.util.Arrays.sort(seconds);
    return seconds[seconds.length / 2];
  }
}
