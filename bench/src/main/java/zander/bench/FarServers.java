package zander.bench;

import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.util.HexFormat;
import java.util.List;
import java.util.Random;
import zander.core.change.DeleteTask;
import zander.core.change.PutBack;
import zander.core.change.RemoteChanges;
import zander.core.connect.Connection;
import zander.core.connect.Connector;
import zander.core.connect.address.ServerAddress;
import zander.core.connect.command.Commands;
import zander.core.connect.command.ExecResult;
import zander.core.connect.command.Pipe;
import zander.core.connect.command.ServerTools;
import zander.core.connect.signin.SignInMethods;
import zander.core.files.RemoteEntry;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.files.RemoteWriter;
import zander.core.journal.FileJournal;
import zander.core.journal.Journal;
import zander.core.journal.JournalEntry;
import zander.core.journal.JournalRules;
import zander.core.rights.Mode;
import zander.core.transfer.Transfer;
import zander.core.transfer.compare.TreeComparison;
import zander.core.transfer.local.LocalEndpoint;
import zander.core.transfer.remote.RemoteEndpoint;
import zander.core.transfer.rules.ConflictRule;
import zander.core.transfer.rules.IgnorePatterns;
import zander.core.transfer.server.SharedConnectionChannels;
import zander.core.trust.KnownHosts;
import zander.core.work.Cancellation;

/**
 * Work over a far line where the server helps little: by its file service alone, and with the small
 * window of dropbear. Each beside the plain way of doing it, one after the other or on one channel.
 */
public final class FarServers {
  private static final long ROUND_TRIP = 150;
  private static final int FILES = 100;
  private static final int LARGE = 3 << 20;

  private FarServers() {}

  public static void main(String[] arguments) throws Exception {
    if (!LoopbackSshd.isPossible()) {
      System.out.println("FarServers: needs openssh-server, and to be root");
      return;
    }
    Path folder = Files.createTempDirectory("zander-bench");
    try (LoopbackSshd sshd = new LoopbackSshd(folder);
        DelayedLine line = new DelayedLine(sshd.port(), ROUND_TRIP);
        Connector connector = connector(folder, line.port());
        Connection connection = open(connector, "root", line.port(), sshd.key())) {
      withoutShell(folder, connection);
    }
    if (!LoopbackDropbear.isPossible()) {
      System.out.println("FarServers: the small window needs dropbear-bin");
      return;
    }
    try (LoopbackDropbear dropbear = new LoopbackDropbear(folder);
        DelayedLine line = new DelayedLine(dropbear.port(), ROUND_TRIP);
        Connector connector = connector(folder, line.port());
        Connection connection =
            open(connector, LoopbackDropbear.ACCOUNT, line.port(), dropbear.key())) {
      smallWindow(folder, connection);
    }
  }

  private static Connector connector(Path folder, int port) {
    return new Connector(
        new KnownHosts(folder.resolve("known")),
        address -> List.of(new InetSocketAddress(InetAddress.getLoopbackAddress(), port)));
  }

  private static Connection open(Connector connector, String account, int port, Path key)
      throws IOException {
    return connector.open(
        new ServerAddress(account, "localhost", port),
        SignInMethods.byKey(key),
        FirstSlice.TRUSTING);
  }

  private interface Job {
    void run() throws IOException;
  }

  private static double seconds(Job job) throws IOException {
    long start = System.nanoTime();
    job.run();
    return (System.nanoTime() - start) / 1e9;
  }

  private static void tell(String what, double plain, double ours) {
    System.out.printf(
        "%s over %d ms: one after the other %.1f s, together %.1f s (%.0f times as fast)%n",
        what, ROUND_TRIP, plain, ours, plain / ours);
  }

  private static Cancellation go() {
    return new Cancellation();
  }

  private static void withoutShell(Path folder, Connection connection) throws IOException {
    RemoteFiles files = connection.files();
    Path here = Files.createDirectories(folder.resolve("here/tree"));
    Path there = Files.createDirectories(folder.resolve("there/tree"));
    for (int i = 0; i < FILES; i++) {
      Files.writeString(here.resolve("station-" + i), "level " + i);
      Files.writeString(there.resolve("station-" + i), "level " + i);
    }
    RemotePath tree = RemotePath.of(there.toString());
    List<RemotePath> all = files.list(tree, part -> {}).stream().map(RemoteEntry::path).toList();

    double plainCompare =
        seconds(
            () -> {
              for (RemotePath file : all) {
                digest(files.readAll(file, 1 << 20));
              }
            });
    RemoteEndpoint side =
        new RemoteEndpoint(
                new SharedConnectionChannels(() -> connection), tree.parent(), Journal.NONE, null)
            .byFilesAlone();
    LocalEndpoint local = new LocalEndpoint(here.getParent());
    double compare =
        seconds(
            () ->
                new TreeComparison(local, side, IgnorePatterns.NOTHING, go())
                    .run(List.of("tree"), progress -> {}));
    tell("Comparing " + FILES + " small files without a shell", plainCompare, compare);

    RemoteChanges changes = new RemoteChanges(files, NO_SHELL, Journal.NONE);
    RemotePath copies = tree.parent().child("copies");
    files.makeFolder(copies, new Mode(0755));
    double plainCopy =
        seconds(
            () -> {
              for (RemotePath file : all.subList(0, FILES / 10)) {
                changes.copy(List.of(file), copies, n -> {}, go());
              }
            });
    double copy = seconds(() -> changes.copy(List.of(tree), copies, n -> {}, go()));
    tell("Copying " + FILES + " small files on the server", plainCopy * 10, copy);

    try (FileJournal journal =
        new FileJournal(folder.resolve("journal"), "bench", JournalRules.USUAL)) {
      RemotePath home = connection.whoAmI().home();
      List<RemotePath> some = all.subList(0, 30);
      DeleteTask deleting = new DeleteTask(files, NO_SHELL, journal, home);
      double plainDelete =
          seconds(
              () -> {
                for (RemotePath file : some) {
                  deleting.hold(List.of(file));
                }
              });
      PutBack putBack = new PutBack(files, NO_SHELL, journal, home);
      double plainBack =
          seconds(
              () -> {
                for (JournalEntry entry : journal.entries().subList(0, some.size())) {
                  putBack.run(entry, false);
                }
              });
      double delete = seconds(() -> deleting.hold(some));
      double back =
          seconds(() -> putBack.runAll(journal.entries().subList(0, some.size()), n -> {}, go()));
      tell("Deleting 30 files", plainDelete, delete);
      tell("Putting 30 files back", plainBack, back);
    }
  }

  private static String digest(byte[] content) throws IOException {
    try {
      return HexFormat.of().formatHex(MessageDigest.getInstance("SHA-256").digest(content));
    } catch (java.security.NoSuchAlgorithmException e) {
      throw new IOException(e);
    }
  }

  private static void smallWindow(Path folder, Connection connection) throws IOException {
    RemotePath home = connection.whoAmI().home();
    byte[] content = new byte[LARGE];
    new Random(14).nextBytes(content);
    double plain =
        seconds(
            () -> {
              try (RemoteWriter writer =
                  connection.files().create(home.child("plain"), new Mode(0644))) {
                writer.write(content, 0, content.length);
              }
            });
    Path here = Files.createDirectories(folder.resolve("large"));
    Files.write(here.resolve("readings.bin"), content);
    double ours = seconds(() -> send(here, List.of("readings.bin"), connection, home));
    rate("one file of 3 MiB", plain, ours);

    Path small = Files.createDirectories(folder.resolve("small/tree"));
    for (int i = 0; i < LARGE / 4096; i++) {
      Files.write(
          small.resolve("reading-" + i),
          java.util.Arrays.copyOfRange(content, i * 4096, i * 4096 + 4096));
    }
    double tree = seconds(() -> send(small.getParent(), List.of("tree"), connection, home));
    rate("768 files of 4 KiB", plain, tree);
  }

  private static void send(Path here, List<String> names, Connection connection, RemotePath to) {
    RemoteEndpoint side =
        new RemoteEndpoint(new SharedConnectionChannels(() -> connection), to, Journal.NONE, null);
    var progress =
        new Transfer(new LocalEndpoint(here), side, ConflictRule.ASK, null, go()).run(names);
    if (!progress.problems().isEmpty()) {
      throw new IllegalStateException(progress.problems().toString());
    }
  }

  private static void rate(String what, double plain, double ours) {
    double megabytes = LARGE / 1e6;
    System.out.printf(
        "To dropbear (24 KiB window) over %d ms, %s: %.2f MB/s; on one channel %.2f MB/s (%.1f"
            + " times)%n",
        ROUND_TRIP, what, megabytes / ours, megabytes / plain, plain / ours);
  }

  private static final Commands NO_SHELL =
      new Commands() {
        @Override
        public boolean hasShell() {
          return false;
        }

        @Override
        public ExecResult stream(String script, Output output, Cancellation stop) {
          throw new IllegalStateException("no shell");
        }

        @Override
        public ExecResult script(String script) {
          throw new IllegalStateException("no shell");
        }

        @Override
        public Pipe pipe(String script) {
          throw new IllegalStateException("no shell");
        }

        @Override
        public ServerTools tools() {
          return ServerTools.NONE;
        }
      };
}
