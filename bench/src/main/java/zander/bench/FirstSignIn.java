package zander.bench;

import java.nio.file.Files;
import java.nio.file.Path;
import zander.standin.demo.Demo;

/**
 * The first sign-in of a fresh program: at once, or after the head start that a person's choosing a
 * server gives to the preparation in the background. Run each in a process of its own.
 */
public final class FirstSignIn {
  private FirstSignIn() {}

  /**
   * @param arguments the head start in milliseconds, or {@code library} for the library's own calls
   *     with its defaults
   */
  public static void main(String[] arguments) throws Exception {
    boolean library = arguments[0].equals("library");
    long headStart = library ? 0 : Long.parseLong(arguments[0]);
    Path folder = Files.createTempDirectory("zander-bench");
    try (Demo demo = Demo.start(folder.resolve("home"))) {
      long start = System.nanoTime();
      SignInTrips.Way way =
          library ? SignInTrips.library() : SignInTrips.zander(demo, folder, "/home/warden");
      Thread.sleep(headStart);
      if (headStart > 0) {
        start = System.nanoTime();
      }
      way.open(demo.server("lab-box").port());
      System.out.printf(
          "%-52s %10.3f%n",
          library
              ? "first sign-in to the listing, the library's own calls"
              : "first sign-in to the listing, after " + headStart + " ms",
          (System.nanoTime() - start) / 1e9);
    }
    System.exit(0);
  }
}
