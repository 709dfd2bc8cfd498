package zander.desk.model;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import zander.core.files.RemotePath;
import zander.core.find.SearchText;
import zander.desk.reading.LineFilter;
import zander.desk.reading.ReadingModel;
import zander.desk.reading.Row;
import zander.desk.reading.RowWindow;
import zander.standin.world.Caller;
import zander.standin.world.OpenFile;
import zander.standin.world.World;

/** A log that the editor does not take: read from its end, a part of it at a time, and followed. */
class LargeFileTest {
  private static final String FOLDER = "/home/warden/trial";
  private static final int LINES = 450_000;

  @TempDir Path folder;
  private ModelDesk work;
  private DeskModel desk;
  private RemotePath log;
  private OpenFile file;
  private long size;
  private ReadingModel reading;
  private long carried;

  private static String line(int number) {
    int minute = number / 60;
    return String.format(
        "2026-11-%02d %02d:%02d:%02d weir-09 level 1.42 m%n",
        1 + minute / 1440, minute / 60 % 24, minute % 60, number % 60);
  }

  @BeforeEach
  void open() throws Exception {
    work = new ModelDesk(folder);
    Path here = Files.createDirectories(folder.resolve("home/down"));
    desk = work.openLabBox(FOLDER, here);
    log = RemotePath.of(FOLDER + "/it's all.log");
    file = create(log);
    StringBuilder content = new StringBuilder();
    for (int i = 0; i < LINES; i++) {
      content.append(line(i));
    }
    write(content.toString());
    carried = work.relay.carried();
    work.on(
        () -> {
          desk.openFile(log);
          return null;
        });
    work.until(
        "its end is there",
        () ->
            desk.currentProperty().get() instanceof ReadingModel shown
                && shown.openProperty().get());
    reading = (ReadingModel) desk.currentProperty().get();
  }

  private OpenFile create(RemotePath path) throws Exception {
    return work.demo
        .server("lab-box")
        .machine()
        .world()
        .open(Caller.ROOT, path.text(), new World.Open(false, true, true, false, false, 0644));
  }

  private void write(String text) throws Exception {
    byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
    file.write(size, bytes, 0, bytes.length);
    size += bytes.length;
  }

  @AfterEach
  void close() throws Exception {
    work.close();
  }

  private void on(Runnable what) throws Exception {
    work.on(
        () -> {
          what.run();
          return null;
        });
  }

  private List<String> texts() throws Exception {
    return work.on(() -> reading.window().rows().stream().map(Row::text).toList());
  }

  private void untilDone() throws Exception {
    work.until("it is done", () -> reading.doingProperty().get().isEmpty());
  }

  @Test
  void itsEndIsReadAndNoMore() throws Exception {
    assertThat(texts()).last().isEqualTo(line(LINES - 1).strip());
    assertThat(work.relay.carried() - carried).isLessThan(400_000);
    on(() -> reading.moreBefore());
    untilDone();
    List<String> shown = texts();
    assertThat(shown).hasSizeGreaterThan(5000 / 2).hasSizeLessThanOrEqualTo(RowWindow.MOST);
    int first = LINES - 1;
    while (!shown.get(0).equals(line(first).strip())) {
      first--;
    }
    List<String> expected = new ArrayList<>();
    for (int i = first; i < first + shown.size(); i++) {
      expected.add(line(i).strip());
    }
    assertThat(shown).isEqualTo(expected);
  }

  @Test
  void linesTimesAndPlacesAreGoneTo() throws Exception {
    goTo("200000", line(199_999));
    goTo("2026-11-03 14:05", line((2 * 1440 + 14 * 60 + 5) * 60));
    goTo("byte 0", line(0));
    goTo("100 %", line(LINES - 1));
  }

  private void goTo(String place, String expected) throws Exception {
    on(() -> reading.search().goTo(place));
    untilDone();
    assertThat(texts()).contains(expected.strip());
    assertThat(texts()).hasSizeLessThanOrEqualTo(RowWindow.MOST);
  }

  @Test
  void textIsFoundFarAwayInBothDirections() throws Exception {
    find("2026-11-02 11:11:11", false);
    find("2026-11-04 02:02:02", true);
    on(
        () ->
            reading
                .search()
                .find(
                    new SearchText("no such thing", false, true),
                    true,
                    reading.window().rows().get(0),
                    () -> {}));
    work.until("it says so", () -> reading.search().outcomeProperty().get().equals("none below"));
  }

  private void find(String text, boolean forwards) throws Exception {
    on(
        () ->
            reading
                .search()
                .find(
                    new SearchText(text, false, true),
                    forwards,
                    reading.window().rows().get(0),
                    () -> {}));
    work.until(
        text + " is found",
        () ->
            reading.search().found() != null
                && reading.search().found().text().contains(text)
                && reading.window().rows().contains(reading.search().found()));
  }

  @Test
  void whatComesIsShownAtTheEndAndOnlyCountedElsewhere() throws Exception {
    write("2026-11-30 10:00:00 weir-09 error: no level\n");
    on(() -> reading.follower().look());
    work.until("it is shown", () -> lastIs("2026-11-30 10:00:00 weir-09 error: no level"));
    goTo("1", line(0));
    write(line(LINES));
    on(() -> reading.follower().look());
    work.until("it is counted", () -> reading.follower().belowProperty().get() == 1);
    assertThat(texts()).doesNotContain(line(LINES).strip());
    on(() -> reading.goToEnd());
    work.until("it is shown", () -> lastIs(line(LINES).strip()));
    assertThat(texts()).doesNotHaveDuplicates();
  }

  private boolean lastIs(String text) {
    List<Row> rows = reading.window().rows();
    return !rows.isEmpty() && rows.get(rows.size() - 1).text().equals(text);
  }

  @Test
  void onlyTheLinesThatPassAreShown() throws Exception {
    write("2026-11-30 10:00:00 weir-09 error: no level\n");
    write(line(LINES));
    on(() -> reading.filter(new LineFilter(null, LineFilter.Level.PROBLEM), null));
    on(() -> reading.follower().look());
    work.until("the problem is there", () -> lastIs("2026-11-30 10:00:00 weir-09 error: no level"));
    untilDone();
    assertThat(texts()).containsExactly("2026-11-30 10:00:00 weir-09 error: no level");
    on(
        () ->
            reading.filter(
                new LineFilter(new SearchText(":5[89] weir", true, true), LineFilter.Level.ANY),
                null));
    untilDone();
    assertThat(texts()).isNotEmpty().allMatch(text -> text.matches(".*:5[89] weir-09.*"));
  }

  @Test
  void aNewFileInItsPlaceGoesOnBehindIt() throws Exception {
    World world = work.demo.server("lab-box").machine().world();
    world.rename(Caller.ROOT, log.text(), log.text() + ".1");
    file = create(log);
    size = 0;
    write("2026-11-30 11:00:00 weir-09 anew\n");
    on(() -> reading.follower().look());
    work.until("it is shown", () -> lastIs("2026-11-30 11:00:00 weir-09 anew"));
    assertThat(texts()).contains(line(LINES - 1).strip(), "— a new file is at this path —");
    // Read back, over the file that was there before.
    on(() -> reading.goToEnd());
    untilDone();
    assertThat(texts())
        .contains(line(LINES - 1).strip(), "— a new file is at this path —")
        .doesNotHaveDuplicates();
  }
}
