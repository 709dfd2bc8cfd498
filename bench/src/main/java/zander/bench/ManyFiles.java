package zander.bench;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import zander.core.connect.Connection;
import zander.core.connect.Connector;
import zander.core.connect.address.ServerAddress;
import zander.core.connect.signin.SignInMethods;
import zander.core.files.RemotePath;
import zander.core.journal.Journal;
import zander.core.transfer.Transfer;
import zander.core.transfer.local.LocalEndpoint;
import zander.core.transfer.progress.Progress;
import zander.core.transfer.remote.RemoteEndpoint;
import zander.core.transfer.rules.ConflictRule;
import zander.core.transfer.server.SharedConnectionChannels;
import zander.core.trust.KnownHosts;
import zander.core.work.Cancellation;
import zander.standin.demo.Demo;
import zander.standin.world.Caller;
import zander.standin.world.World;

/**
 * A tree of 500,000 files made up by the stand-in, which runs in a process of its own, brought down
 * in this one: start it with {@code -Xmx256m} and it shows that a transfer of any size fits.
 */
public final class ManyFiles {
  private static final int IN_A_FOLDER = 500;

  private ManyFiles() {}

  /**
   * @param arguments how many files; or {@code serve}, how many, and a folder, for the other
   *     process
   */
  public static void main(String[] arguments) throws Exception {
    if (arguments.length == 3) {
      serve(Integer.parseInt(arguments[1]), Path.of(arguments[2]));
      return;
    }
    int files = arguments.length == 0 ? 500_000 : Integer.parseInt(arguments[0]);
    Path folder = Files.createTempDirectory("zander-many");
    Process server =
        new ProcessBuilder(
                Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                "-Xmx3g",
                "-cp",
                System.getProperty("java.class.path"),
                ManyFiles.class.getName(),
                "serve",
                Integer.toString(files),
                folder.resolve("home").toString())
            .redirectError(ProcessBuilder.Redirect.INHERIT)
            .start();
    try (BufferedReader said =
        new BufferedReader(
            new InputStreamReader(server.getInputStream(), StandardCharsets.UTF_8))) {
      bring(folder, files, Integer.parseInt(said.readLine()), Path.of(said.readLine()));
    } finally {
      server.destroy();
      new ProcessBuilder("rm", "-rf", folder.toString()).start().waitFor();
    }
  }

  private static void serve(int files, Path home) throws Exception {
    try (Demo demo = Demo.start(home)) {
      World world = demo.server("lab-box").machine().world();
      world.mkdir(Caller.ROOT, "/srv", 0755);
      world.mkdir(Caller.ROOT, "/srv/many", 0755);
      for (int i = 0; i < files; i++) {
        String in = "/srv/many/folder-" + i / IN_A_FOLDER;
        if (i % IN_A_FOLDER == 0) {
          world.mkdir(Caller.ROOT, in, 0755);
        }
        world.open(
            Caller.ROOT,
            in + "/reading-" + i,
            new World.Open(false, true, true, true, false, 0644));
      }
      System.out.println(demo.server("lab-box").port());
      System.out.println(demo.keyFile());
      while (System.in.read() >= 0) {
        // Until the other process ends.
      }
    }
  }

  private static void bring(Path folder, int files, int port, Path key) throws IOException {
    try (Connector connector =
            new Connector(
                new KnownHosts(folder.resolve("known")),
                address -> List.of(new InetSocketAddress(InetAddress.getLoopbackAddress(), port)));
        Connection connection =
            connector.open(
                new ServerAddress("warden", "lab-box" + Demo.DOMAIN, 22),
                SignInMethods.byKey(key),
                FirstSlice.TRUSTING)) {
      long start = System.nanoTime();
      Progress progress =
          new Transfer(
                  new RemoteEndpoint(
                      new SharedConnectionChannels(() -> connection),
                      RemotePath.of("/srv"),
                      Journal.NONE,
                      null),
                  new LocalEndpoint(Files.createDirectories(folder.resolve("here"))),
                  ConflictRule.ASK,
                  question -> null,
                  new Cancellation())
              .run(List.of("many"));
      double seconds = LibraryLine.since(start);
      System.out.printf(
          "%,d files brought down in %.0f s, %,.0f a second, with at most %d MB of heap; %d did not"
              + " make it%n",
          progress.files(),
          seconds,
          progress.files() / seconds,
          Runtime.getRuntime().maxMemory() >> 20,
          progress.failed());
      if (progress.files() != files) {
        throw new IllegalStateException("the transfer failed: " + progress.phase());
      }
    }
  }
}
