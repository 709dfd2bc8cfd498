package zander.bench;

import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import zander.core.connect.Connector;
import zander.core.trust.KnownHosts;
import zander.standin.demo.Demo;

/**
 * The first sign-in of a fresh program: at once, or after the head start that a person's choosing a
 * server gives to the preparation in the background. Run each in a process of its own.
 */
public final class FirstSignIn {
  private FirstSignIn() {}

  /**
   * @param arguments the head start in milliseconds
   */
  public static void main(String[] arguments) throws Exception {
    long headStart = Long.parseLong(arguments[0]);
    Path folder = Files.createTempDirectory("zander-bench");
    try (Demo demo = Demo.start(folder.resolve("home"));
        Connector connector =
            new Connector(
                new KnownHosts(folder.resolve("known")),
                address ->
                    List.of(
                        new InetSocketAddress(
                            InetAddress.getLoopbackAddress(), demo.server("lab-box").port())))) {
      Thread.sleep(headStart);
      long start = System.nanoTime();
      FirstSlice.open(connector, demo).close();
      System.out.printf(
          "%-44s %10.3f%n",
          "first sign-in after " + headStart + " ms", (System.nanoTime() - start) / 1e9);
    }
  }
}
