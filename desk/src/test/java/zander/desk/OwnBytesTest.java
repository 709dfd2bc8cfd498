package zander.desk;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.Arrays;
import java.util.function.BooleanSupplier;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import zander.desk.file.own.BytesModel;
import zander.standin.world.Caller;
import zander.standin.world.OpenFile;
import zander.standin.world.World;

/** Files that are no texts in another program of this computer: here a script. */
class OwnBytesTest {
  private static final String PICTURE = "/srv/levels/site/gauge.png";
  private static final byte[] BEFORE = {(byte) 0x89, 'P', 'N', 'G', 0, 1, 2};
  private static final byte[] AFTER = {(byte) 0x89, 'P', 'N', 'G', 0, 9, 9, 9};

  @TempDir Path folder;
  private Window window;
  private Path told;

  @BeforeEach
  void open() throws Exception {
    told = folder.resolve("told");
    Path program = folder.resolve("pond-paint");
    Files.writeString(program, "#!/bin/sh\nprintf %s \"$1\" > '" + told + "'\n");
    Files.setPosixFilePermissions(program, PosixFilePermissions.fromString("rwx------"));
    window = new Window(folder);
    window.openLevelsWeb();
    write(BEFORE);
    window.push(KeyCode.F5);
  }

  @AfterEach
  void close() throws Exception {
    window.close();
  }

  private void write(byte[] content) throws Exception {
    OpenFile file =
        window
            .world("levels-web")
            .open(
                new Caller(1004, 33, java.util.Set.of(33)),
                PICTURE,
                new World.Open(false, true, true, false, true, 0664));
    file.write(0, content, 0, content.length);
  }

  private BooleanSupplier serverHas(byte[] content) {
    return () -> {
      try {
        OpenFile file = window.world("levels-web").open(Caller.ROOT, PICTURE, World.Open.READ);
        return Arrays.equals(file.read(0, (int) file.size()), content);
      } catch (Exception e) {
        return false;
      }
    };
  }

  private Path started() throws Exception {
    window.choose("#server-table", "gauge.png");
    window.push(KeyCode.ALT, KeyCode.SHIFT, KeyCode.O);
    window.until("it is asked", () -> window.shownOrNull("#own-program") != null);
    window.fill("#own-program", folder.resolve("pond-paint").toString());
    window.press("#choice-open");
    window.until(
        "it is open there",
        () -> window.desk().currentProperty().get() instanceof BytesModel && Files.exists(told));
    window.until("it is told", () -> told.toFile().length() > 0);
    return Path.of(Files.readString(told));
  }

  private BytesModel sheet() {
    return (BytesModel) window.desk().currentProperty().get();
  }

  @Test
  void whatItSavesIsOnTheServerAndTheCopyGoesWithTheSheet() throws Exception {
    Path copy = started();
    assertThat(copy).hasBinaryContent(BEFORE);
    assertThat(PosixFilePermissions.toString(Files.getPosixFilePermissions(copy)))
        .isEqualTo("rw-------");
    Files.write(copy, AFTER);
    window.until("the server has it", serverHas(AFTER));
    window.until("it is said", () -> window.text("#bytes-state").equals("saved to the server"));
    BytesModel open = sheet();
    window.interact(() -> window.desk().close(open));
    window.until("the copy is gone", () -> !Files.exists(copy.getParent()));
  }

  @Test
  void whatAnotherChangedMeanwhileIsAskedAbout() throws Exception {
    Path copy = started();
    byte[] theirs = {(byte) 0x89, 'P', 'N', 'G', 0, 5};
    write(theirs);
    Files.write(copy, AFTER);
    window.until("it is asked", () -> sheet().questionProperty().get() != null);
    assertThat(serverHas(theirs).getAsBoolean()).isTrue();
    assertThat(sheet().isUnsaved()).isTrue();
    window.press("#choice-replace-theirs-with-mine");
    window.until("the server has mine", serverHas(AFTER));
    window.until("it is saved", () -> !sheet().isUnsaved());
  }

  @Test
  void whatWasSavedWhileNobodyLookedIsAskedAbout() throws Exception {
    Path copy = started();
    window.clickOn(window.shown(".tab-close"));
    window.until("the desk is closed", () -> window.desk() == null);
    Files.write(copy, AFTER);
    window.openServer("levels-web");
    window.press("#choice-go-on");
    window.until("it is asked", () -> window.shownOrNull("#choice-save-to-server") != null);
    assertThat(serverHas(BEFORE).getAsBoolean()).as("not saved unasked").isTrue();
    window.press("#choice-save-to-server");
    window.until("the server has it", serverHas(AFTER));
    window.until("it is saved", () -> !sheet().isUnsaved());

    window.clickOn(window.shown(".tab-close"));
    window.until("the desk is closed", () -> window.desk() == null);
    byte[] theirs = {(byte) 0x89, 'P', 'N', 'G', 0, 5};
    write(theirs);
    Files.write(copy, BEFORE);
    window.openServer("levels-web");
    window.press("#choice-go-on");
    window.press("#choice-close-keep-the-copy");
    window.until(
        "the sheet is closed", () -> window.desk().openSheets().of(BytesModel.class).isEmpty());
    assertThat(serverHas(theirs).getAsBoolean()).isTrue();
    assertThat(copy).hasBinaryContent(BEFORE);
  }
}
