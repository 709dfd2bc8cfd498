package zander.bench;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.atomic.AtomicLong;
import org.apache.sshd.sftp.client.SftpClient;
import zander.core.change.DeleteTask;
import zander.core.connect.Connection;
import zander.core.facts.TreeSize;
import zander.core.files.RemotePath;
import zander.core.journal.Journal;
import zander.core.work.Cancellation;

/**
 * Folders of the system's own {@code sshd} over a line with 40 ms round trip: 50,000 names listed
 * against one request at a time, and a tree of 20,000 files measured and deleted against the
 * server's own commands. One run, ratios. Needs root, as the suite against {@code sshd} does.
 */
public final class FolderWork {
  private static final int NAMES = 50_000;
  private static final int FILES = 20_000;
  private static final int FOLDERS = 100;
  private static final long ROUND_TRIP = 40;

  private FolderWork() {}

  public static void main(String[] arguments) throws Exception {
    if (!LoopbackSshd.isPossible()) {
      System.out.println("FolderWork: needs openssh-server, and to be root");
      return;
    }
    Path folder = Files.createTempDirectory("zander-bench");
    try (LoopbackSshd sshd = new LoopbackSshd(folder);
        FarSession far = new FarSession(sshd, ROUND_TRIP, folder.resolve("known"))) {
      Connection connection = far.connection();
      fill(folder.resolve("many"), NAMES, 1);
      RemotePath many = RemotePath.of(folder.resolve("many").toString());
      double oneByOne;
      try (LibraryLine library = new LibraryLine(far.port(), sshd.key())) {
        oneByOne = oneByOne(library, many);
      }
      for (int run = 0; run < 3; run++) {
        listing(connection, many, oneByOne);
      }
      for (int run = 0; run < 2; run++) {
        fill(folder.resolve("one"), FILES, FOLDERS);
        fill(folder.resolve("two"), FILES, FOLDERS);
        tree(connection, RemotePath.of(folder.toString()));
      }
    }
  }

  private static void fill(Path top, int files, int folders) throws IOException {
    for (int i = 0; i < folders; i++) {
      Files.createDirectories(folders == 1 ? top : top.resolve("folder-" + i));
    }
    for (int i = 0; i < files; i++) {
      Files.createFile(
          (folders == 1 ? top : top.resolve("folder-" + i % folders)).resolve("reading-" + i));
    }
  }

  /** One request after the other, each when the one before is answered. */
  private static double oneByOne(LibraryLine library, RemotePath many) throws IOException {
    try (SftpClient client = library.files()) {
      long start = System.nanoTime();
      int names = 0;
      try (SftpClient.CloseableHandle open = client.openDir(many.text())) {
        for (List<SftpClient.DirEntry> some; (some = client.readDir(open)) != null; ) {
          names += some.size();
        }
      }
      double seconds = since(start);
      System.out.printf("%d names, one request at a time: %.1f s%n", names, seconds);
      return seconds;
    }
  }

  private static void listing(Connection connection, RemotePath many, double oneByOne)
      throws IOException {
    AtomicLong first = new AtomicLong();
    long memory = used();
    long start = System.nanoTime();
    var all =
        connection
            .files()
            .list(
                many,
                part -> {
                  first.compareAndSet(0, System.nanoTime() - start);
                });
    double whole = since(start);
    long kept = used() - memory;
    System.out.printf(
        "%d names: first after %.1f round trips, all in %.2f s; one request at a time takes"
            + " %.1f times as long; %d MB kept%n",
        all.size(), first.get() / 1e6 / ROUND_TRIP, whole, oneByOne / whole, kept >> 20);
  }

  private static long used() {
    System.gc();
    return Runtime.getRuntime().totalMemory() - Runtime.getRuntime().freeMemory();
  }

  private static void tree(Connection connection, RemotePath folder) throws IOException {
    RemotePath one = folder.child("one");
    long start = System.nanoTime();
    connection.script("du -s --apparent-size '" + folder.text() + "/two'");
    double ownMeasure = since(start);
    start = System.nanoTime();
    var measured =
        new TreeSize(connection.files(), connection).of(List.of(one), m -> {}, new Cancellation());
    double measure = since(start);
    start = System.nanoTime();
    new DeleteTask(connection.files(), connection, Journal.NONE, connection.whoAmI().home())
        .forGood(List.of(one), n -> {}, new Cancellation());
    double delete = since(start);
    start = System.nanoTime();
    connection.script("rm -r '" + folder.text() + "/two'");
    double ownDelete = since(start);
    System.out.printf(
        "%d files: measured in %.2f s, the server's own du %.2f s; deleted in %.2f s, the server's"
            + " own rm -r %.2f s%n",
        measured.files(), measure, ownMeasure, delete, ownDelete);
  }

  private static double since(long start) {
    return (System.nanoTime() - start) / 1e9;
  }
}
