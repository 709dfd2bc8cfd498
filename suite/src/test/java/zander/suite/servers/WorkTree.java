package zander.suite.servers;

import java.nio.file.Files;
import java.nio.file.Path;
import zander.suite.SystemSshd;

/** The small site that everything is tried on, made on the server's own disk. */
final class WorkTree {
  static final int STATIONS = 12;

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
    for (int i = 0; i < STATIONS; i++) {
      Files.writeString(at.resolve("stations/station-" + i + ".html"), "level of station " + i + "\n");
    }
    SystemSshd.run("chown", "-R", server.account() + ":", at.toString());
  }
}
