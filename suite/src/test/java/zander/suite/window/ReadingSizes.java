package zander.suite.window;

import java.io.RandomAccessFile;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.concurrent.TimeUnit;
import zander.core.files.RemotePath;
import zander.desk.model.DeskModel;
import zander.desk.reading.ReadingModel;

/** A log of much more than the editor takes, and one that pours. */
record ReadingSizes(WindowSizes sizes, OffscreenWindow window, DeskModel desk) {
  private static final long LOG = 2L << 30;
  private static final int LINES_AT_ONCE = 2_000;

  void of(Path log) throws Exception {
    byte[] lines =
        "2026-11-28 17:40:12 weir-09 warning: level 1.42 m of the river\n"
            .repeat(LINES_AT_ONCE)
            .getBytes(StandardCharsets.UTF_8);
    try (RandomAccessFile file = new RandomAccessFile(log.toFile(), "rw")) {
      file.setLength(LOG - lines.length);
      file.seek(LOG - lines.length);
      file.write(lines);
      ReadingModel[] open = new ReadingModel[1];
      sizes.measure(
          "read the end of a log",
          "2 GB",
          () -> {
            RemotePath path = RemotePath.of(log.toString());
            window.run(() -> open[0] = ReadingModel.show(desk, path));
            window.until("it is open", () -> open[0].openProperty().get());
          });
      sizes.measure(
          "follow 20,000 lines a second",
          "five seconds",
          () -> {
            for (int i = 0; i < 50; i++) {
              file.write(lines);
              TimeUnit.MILLISECONDS.sleep(100);
            }
            long all = file.length();
            window.until("all of it is seen", () -> open[0].follower().sizeProperty().get() == all);
          });
      window.run(() -> desk.close(open[0]));
    }
  }
}
