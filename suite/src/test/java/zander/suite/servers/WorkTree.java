package zander.suite.servers;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Random;
import zander.suite.SystemSshd;

/** The small site that everything is tried on, made on the server's own disk. */
final class WorkTree {
  /** Files in the folder of stations: small ones, and one of some megabytes. */
  static final int STATIONS = 13;

  private static final int READINGS = 5 << 20;

  private WorkTree() {}

  static void make(OpenServer server) throws Exception {
    Path at = server.disk();
    if (Files.exists(at.resolve("index.html"))) {
      return;
    }
    Files.createDirectories(at.resolve("stations"));
    Files.createDirectories(at.resolve("archive"));
    Files.writeString(at.resolve("index.html"), "level of Long Reach\n");
    Files.writeString(at.resolve("feed.xml"), "<level>2.48</level>\n");
    Files.writeString(at.resolve("notes.txt"), "gauge\n");
    Files.writeString(at.resolve("list.csv"), "2.48\n");
    for (int i = 0; i < STATIONS - 1; i++) {
      Files.writeString(
          at.resolve("stations/station-" + i + ".html"), "level of station " + i + "\n");
    }
    byte[] readings = new byte[READINGS];
    new Random(14).nextBytes(readings);
    Files.write(at.resolve("stations/readings.bin"), readings);
    SystemSshd.run("chown", "-R", server.account() + ":", at.toString());
  }
}
