package zander.bench;

import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import zander.core.change.save.AtomicSave;
import zander.core.connect.Connection;
import zander.core.connect.Connector;
import zander.core.connect.address.ServerAddress;
import zander.core.connect.signin.SignInMethods;
import zander.core.connect.signin.SignInPrompt;
import zander.core.files.RemotePath;
import zander.core.journal.Journal;
import zander.core.transfer.Transfer;
import zander.core.transfer.local.LocalEndpoint;
import zander.core.transfer.progress.Progress;
import zander.core.transfer.remote.RemoteEndpoint;
import zander.core.transfer.rules.ConflictRule;
import zander.core.trust.KnownHosts;
import zander.core.trust.WireKey;
import zander.core.work.Cancellation;
import zander.standin.demo.Demo;
import zander.standin.world.Caller;
import zander.standin.world.World;

/**
 * Whole jobs of the first slice against the stand-in over a line with 40 ms round trip and without:
 * the first sign-in of the program and a later one, a listing, a save, a transfer of small files.
 * Prints times of one run side by side; compare them with each other, not with another day's.
 */
public final class FirstSlice {
  private static final int FILES = 400;

  /** Trusts the made-up servers, and has no secrets. */
  static final SignInPrompt TRUSTING =
      new SignInPrompt() {
        @Override
        public boolean isHostKeyRight(ServerAddress address, WireKey shown) {
          return true;
        }

        @Override
        public char[] passphrase(Path keyFile, int wrong) {
          return null;
        }

        @Override
        public char[] password(ServerAddress address, int wrong) {
          return null;
        }
      };

  private FirstSlice() {}

  public static void main(String[] arguments) throws Exception {
    Path folder = Files.createTempDirectory("zander-bench");
    try (Demo demo = Demo.start(folder.resolve("home"))) {
      fill(demo.server("lab-box").machine().world());
      Path small = smallFiles(folder);
      System.out.printf("%-44s %10s %10s%n", "seconds", "loopback", "40 ms");
      double[][] columns = new double[2][];
      for (int line = 0; line < 2; line++) {
        columns[line] = measure(demo, folder.resolve("known-" + line), small, line * 40L);
      }
      String[] names = {
        "first sign-in, to the file service",
        "a later sign-in",
        "listing 5,000 names",
        "opening and saving a file of 1 KB",
        "sending up " + FILES + " files of 2 KiB"
      };
      for (int i = 0; i < names.length; i++) {
        System.out.printf("%-44s %10.3f %10.3f%n", names[i], columns[0][i], columns[1][i]);
      }
    }
  }

  private static void fill(World world) throws IOException {
    world.mkdir(Caller.ROOT, "/srv", 0755);
    world.mkdir(Caller.ROOT, "/srv/many", 0755);
    for (int i = 0; i < 5000; i++) {
      world.open(
          Caller.ROOT,
          "/srv/many/reading-" + i + ".csv",
          new World.Open(false, true, true, true, false, 0644));
    }
  }

  private static Path smallFiles(Path folder) throws IOException {
    Path small = Files.createDirectories(folder.resolve("small/tree"));
    for (int i = 0; i < FILES; i++) {
      Files.write(small.resolve("f" + i), new byte[2048]);
    }
    return small.getParent();
  }

  private static double[] measure(Demo demo, Path knownHosts, Path small, long roundTrip)
      throws Exception {
    try (DelayedLine line = new DelayedLine(demo.server("lab-box").port(), roundTrip);
        Connector connector =
            new Connector(
                new KnownHosts(knownHosts),
                address ->
                    List.of(
                        new InetSocketAddress(InetAddress.getLoopbackAddress(), line.port())))) {
      List<Double> seconds = new ArrayList<>();
      long start = System.nanoTime();
      open(connector, demo).close();
      seconds.add(since(start));
      start = System.nanoTime();
      try (Connection connection = open(connector, demo)) {
        seconds.add(since(start));
        start = System.nanoTime();
        connection.files().list(RemotePath.of("/srv/many"), portion -> {});
        seconds.add(since(start));
        AtomicSave saver = new AtomicSave(connection.files(), connection, Journal.NONE);
        start = System.nanoTime();
        var opened = saver.open(RemotePath.of("/home/warden/trial/index.html"), 1 << 20);
        saver.save(opened.version(), new byte[1000], List.of());
        seconds.add(since(start));
        RemotePath goal = RemotePath.of("/home/warden/trial/up-" + roundTrip);
        connection.files().makeFolder(goal, new zander.core.rights.Mode(0755));
        start = System.nanoTime();
        Progress progress =
            new Transfer(
                    new LocalEndpoint(small),
                    new RemoteEndpoint(connection.files(), goal, Journal.NONE),
                    ConflictRule.SKIP,
                    question -> null,
                    new Cancellation())
                .run(List.of("tree"));
        seconds.add(since(start));
        if (progress.files() != FILES || !progress.problems().isEmpty()) {
          throw new IllegalStateException("the transfer failed: " + progress);
        }
      }
      return seconds.stream().mapToDouble(Double::doubleValue).toArray();
    }
  }

  static Connection open(Connector connector, Demo demo) throws IOException {
    return connector.open(
        new ServerAddress("warden", "lab-box" + Demo.DOMAIN, 22),
        SignInMethods.byKey(demo.keyFile()),
        TRUSTING);
  }

  private static double since(long start) {
    return (System.nanoTime() - start) / 1e9;
  }
}
