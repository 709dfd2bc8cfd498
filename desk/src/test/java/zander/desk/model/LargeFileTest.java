package zander.desk.model;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import zander.core.files.RemotePath;
import zander.desk.file.FileEndModel;
import zander.desk.sheet.Question;
import zander.desk.shell.ShellModel;
import zander.standin.world.Caller;
import zander.standin.world.OpenFile;
import zander.standin.world.World;

/** A log that the editor does not take: asked about before any of it is fetched. */
class LargeFileTest {
  private static final String FOLDER = "/home/warden/trial";
  private static final String LINE = "2026-11-27 17:40:12 weir-09 level 1.42 m\n";

  @TempDir Path folder;
  private ModelDesk work;
  private DeskModel desk;
  private RemotePath log;

  @BeforeEach
  void open() throws Exception {
    work = new ModelDesk(folder);
    Path here = Files.createDirectories(folder.resolve("home/down"));
    desk = work.openLabBox(FOLDER, here);
    log = RemotePath.of(FOLDER + "/it's all.log");
    byte[] content = LINE.repeat(20_000_000 / LINE.length()).getBytes(StandardCharsets.UTF_8);
    OpenFile file =
        work.demo
            .server("lab-box")
            .machine()
            .world()
            .open(Caller.ROOT, log.text(), new World.Open(false, true, true, true, false, 0644));
    file.write(0, content, 0, content.length);
    work.on(
        () -> {
          desk.openFile(log);
          return null;
        });
    work.until("it is asked", () -> question() != null);
  }

  @AfterEach
  void close() throws Exception {
    work.close();
  }

  private Question question() {
    return desk.folder().questionProperty().get();
  }

  private void choose(String words) throws Exception {
    work.on(
        () -> {
          question().choices().stream()
              .filter(choice -> choice.words().equals(words))
              .findFirst()
              .orElseThrow()
              .chosen()
              .accept(false);
          return null;
        });
  }

  @Test
  void isAskedAboutBeforeItIsFetchedAndShowsItsEnd() throws Exception {
    assertThat(question().said().headline()).isEqualTo("it's all.log is too large for the editor");
    long before = work.relay.carried();
    assertThat(before).isLessThan(1_000_000);
    choose("Show its end");
    work.until(
        "the end is there",
        () ->
            desk.currentProperty().get() instanceof FileEndModel end
                && end.endProperty().get() != null);
    FileEndModel shown = (FileEndModel) desk.currentProperty().get();
    FileEndModel.End end = shown.endProperty().get();
    assertThat(end.text()).startsWith(LINE).endsWith(LINE);
    assertThat(end.text().length()).isBetween(FileEndModel.END - LINE.length(), FileEndModel.END);
    assertThat(end.from() + end.text().length()).isEqualTo(end.size());
    assertThat(work.relay.carried() - before).isLessThan(2 * FileEndModel.END);
  }

  @Test
  void isBroughtDown() throws Exception {
    choose("Bring it down");
    work.until("it is here", () -> desk.transfers().current().isOver());
    assertThat(folder.resolve("home/down/it's all.log")).hasSize(log(LINE));
  }

  private static long log(String line) {
    return 20_000_000L / line.length() * line.length();
  }

  @Test
  void isReadInAShell() throws Exception {
    choose("Read it in a shell");
    work.until(
        "less was typed",
        () ->
            desk.sheets().stream()
                .anyMatch(
                    sheet ->
                        sheet instanceof ShellModel shell
                            && shell
                                .terminal()
                                .screenText()
                                .contains("less -- 'it'\\''s all.log'")));
  }
}
