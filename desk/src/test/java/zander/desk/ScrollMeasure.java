package zander.desk;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import javafx.application.Platform;
import javafx.scene.control.TableView;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import zander.core.files.RemotePath;
import zander.desk.folder.Column;
import zander.standin.world.Caller;
import zander.standin.world.World;

/**
 * Measures frames while a folder of 50,000 names is scrolled, run by hand and not as a test: {@code
 * mvn -pl desk test -Dtest=ScrollMeasure}.
 */
class ScrollMeasure {
  private static final int NAMES = 50_000;
  private static final int STEPS = 200;

  @TempDir Path folder;

  @Test
  void framesWhileScrolling() throws Exception {
    Window window = new Window(folder);
    try {
      World world = window.world("levels-web");
      world.mkdir(Caller.ROOT, "/srv/many", 0755);
      for (int i = 0; i < NAMES; i++) {
        world.open(
            Caller.ROOT,
            "/srv/many/reading-" + i + ".csv",
            new World.Open(false, true, true, true, false, 0644));
      }
      window.openLevelsWeb();
      Window.inWindow(
          () -> {
            window.desk().folder().go(RemotePath.of("/srv/many"));
            return null;
          });
      window.until("all are shown", () -> window.desk().folder().rows().size() == NAMES);
      TableView<?> table = (TableView<?>) window.shown("#server-table");
      for (int round = 0; round < 3; round++) {
        measure("scrolling", table);
      }
      long start = System.nanoTime();
      Window.inWindow(
          () -> {
            window.desk().folder().orderBy(Column.NAME, true);
            return null;
          });
      System.out.printf("sorting kept the window for %.0f ms%n", (System.nanoTime() - start) / 1e6);
    } finally {
      window.close();
    }
  }

  /** The time the interface thread takes for each step: moving, laying out, and drawing. */
  private static void measure(String what, TableView<?> table) throws Exception {
    List<Double> millis = new ArrayList<>();
    for (int step = 0; step < STEPS; step++) {
      int row = (int) ((long) NAMES * step / STEPS);
      millis.add(
          Window.inWindow(
              () -> {
                long start = System.nanoTime();
                table.scrollTo(row);
                table.applyCss();
                table.layout();
                Platform.requestNextPulse();
                return (System.nanoTime() - start) / 1e6;
              }));
    }
    millis.sort(null);
    System.out.printf(
        "%s %d steps: median %.1f ms, longest %.1f ms, over 50 ms: %d%n",
        what,
        STEPS,
        millis.get(STEPS / 2),
        millis.get(STEPS - 1),
        millis.stream().filter(one -> one > 50).count());
  }
}
