package zander.desk;

import java.nio.file.Files;
import java.nio.file.Path;
import javafx.scene.input.KeyCode;
import zander.standin.world.Caller;
import zander.standin.world.World;

/** Made-up pages on both sides of the waterline, for a transfer with something to ask. */
final class SpringPages {
  private SpringPages() {}

  /** Pages to send, some new, some changed, and one that was written over there meanwhile. */
  static void make(Window window) throws Exception {
    Path spring = Files.createDirectories(window.demo().siteFolder().resolve("spring-pages"));
    for (int i = 0; i < 180; i++) {
      Files.writeString(
          spring.resolve(String.format("page-%03d.html", i)), "<p>Alder</p>".repeat(500 + i * 10));
    }
    Files.createDirectories(spring.resolve("drafts"));
    Files.writeString(spring.resolve("drafts/floods.html"), "<p>Floods</p>");
    Files.writeString(spring.resolve("notes.html~"), "left by an editor");
    Files.writeString(
        spring.resolve("alerts.html"),
        "<h1>Alerts</h1>\n<p>Long Reach: 2.48 m, rising</p>\n<p>Alder Weir: no reading</p>\n");
    World world = window.world("levels-web");
    String there = "/srv/levels/site/spring-pages";
    world.mkdir(Caller.ROOT, there, 0775);
    world.chown(Caller.ROOT, there, 1004, 33, true);
    makeThere(world, there + "/alerts.html", ALERTS_THERE, 1_790_000_000);
    makeThere(world, there + "/page-007.html", "<p>Alder</p>", 1_690_000_000);
    makeThere(world, there + "/old-winter.html", "<p>Winter</p>", 1_680_000_000);
    world.chown(Caller.ROOT, there, 1004, 33, true);
    window.push(KeyCode.F5);
  }

  private static final String ALERTS_THERE =
      "<h1>Alerts</h1>\n<p>Long Reach: 2.31 m, steady</p>\n<p>Alder Weir: no reading</p>\n";

  static void makeThere(World world, String path, String content, long time) throws Exception {
    byte[] bytes = content.getBytes(java.nio.charset.StandardCharsets.UTF_8);
    world
        .open(Caller.ROOT, path, new World.Open(false, true, true, false, false, 0644))
        .write(0, bytes, 0, bytes.length);
    world.setTimes(Caller.ROOT, path, time, time);
    world.chown(Caller.ROOT, path, 1004, 33, false);
  }
}
