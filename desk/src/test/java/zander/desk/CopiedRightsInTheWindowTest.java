package zander.desk;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import zander.core.files.RemotePath;
import zander.desk.rights.RightsModel;
import zander.desk.view.folder.FolderActions;

/** Rights that are taken from one entry, or from those beside it, and filled in for others. */
class CopiedRightsInTheWindowTest {
  @TempDir Path folder;
  private Window window;

  @BeforeEach
  void open() throws Exception {
    window = new Window(folder);
    window.openLevelsWeb();
    window.press("#fold");
  }

  @AfterEach
  void close() throws Exception {
    window.close();
  }

  private RightsModel model() {
    return window.desk().rights();
  }

  private void chosen(String... names) throws Exception {
    window.choose("#server-table", names);
    window.until("they are shown", () -> model().entries().size() == names.length);
  }

  @Test
  void theyAreFilledInAndSetByTheUsualKey() throws Exception {
    chosen("contact.html");
    window.push(KeyCode.ALT, KeyCode.SHIFT, KeyCode.V);
    assertThat(window.text("#rights-outcome")).isEqualTo("No rights are copied yet.");
    chosen("index.html");
    window.push(KeyCode.ALT, KeyCode.SHIFT, KeyCode.C);
    assertThat(window.text("#rights-outcome")).startsWith("Its rights are copied");
    chosen("contact.html", "water.css", "stations");
    window.push(KeyCode.ALT, KeyCode.SHIFT, KeyCode.V);
    // A folder gets owner and group of a file, and keeps its mode.
    assertThat(model().octal()).isEmpty();
    chosen("contact.html", "water.css");
    window.push(KeyCode.ALT, KeyCode.SHIFT, KeyCode.V);
    assertThat(model().octal()).isEqualTo("0644");
    assertThat(model().ownerProperty().get()).isEqualTo("deploy");
    Window.inWindow(
        () -> {
          model().ownerProperty().set("warden");
          return null;
        });
    window.push(KeyCode.CONTROL, KeyCode.R);
    window.until("they are set", () -> window.text("#rights-outcome").startsWith("set and read"));
    chosen("water.css");
    assertThat(model().octal()).isEqualTo("0644");
  }

  @Test
  void theyAreThoseOfThisComputersFolder() throws Exception {
    Path here = Window.inWindow(() -> window.desk().local().folder());
    Files.setPosixFilePermissions(
        here.resolve("water.css"), PosixFilePermissions.fromString("rw-r-----"));
    chosen("water.css", "contact.html");
    Window.inWindow(
        () -> {
          FolderActions actions = new FolderActions(window.desk());
          actions.changing().stream()
              .filter(one -> one.name().equals("Rights as on this computer"))
              .forEach(one -> one.run().run());
          return null;
        });
    window.until("it was looked", () -> window.shownOrNull("#tree-entries") != null);
    assertThat(window.text("#tree-asks")).startsWith("Modes as in " + here);
    assertThat(window.text("#tree-set")).isEqualTo("Set on 1 entry");
    window.press("#tree-set");
    window.until("it is set", () -> window.text("#tree-status").startsWith("1 entry set"));
    var water = window.desk().files().look(RemotePath.of("/srv/levels/site/water.css"));
    assertThat(water.mode().octal()).isEqualTo("0640");
  }

  @Test
  void whatMostNeighboursHaveIsFilledIn() throws Exception {
    chosen("contact.html");
    Window.inWindow(
        () -> {
          model().copied().asNeighbours();
          return null;
        });
    assertThat(model().octal()).isEqualTo("0644");
    assertThat(model().ownerProperty().get()).isEqualTo("deploy");
    assertThat(model().groupProperty().get()).isEqualTo("web");
    assertThat(model().isChanged()).isTrue();
  }
}
