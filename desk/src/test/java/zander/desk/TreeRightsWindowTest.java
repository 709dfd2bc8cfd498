package zander.desk;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TableView;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import zander.core.files.RemotePath;
import zander.desk.rights.tree.PlanRow;
import zander.desk.rights.tree.TreeRightsModel;

/** Rights of all that is inside, in the window: looked at, set, put back, and as root. */
class TreeRightsWindowTest {
  private static final RemotePath CONTACT = RemotePath.of("/srv/levels/site/contact.html");

  @TempDir Path folder;
  private Window window;

  @BeforeEach
  void open() throws Exception {
    window = new Window(folder);
    window.openLevelsWeb();
  }

  @AfterEach
  void close() throws Exception {
    window.close();
  }

  private String status() {
    return window.shownOrNull("#tree-status") instanceof Label label ? label.getText() : "";
  }

  private void untilStatus(String beginning) {
    window.until("it says " + beginning, () -> status().startsWith(beginning));
  }

  private String mode(RemotePath path) throws Exception {
    return window.desk().files().look(path).mode().octal();
  }

  @Test
  void whatIsInsideIsLookedAtThenSetAndPutBack() throws Exception {
    window.choose("#server-table", "robots.txt");
    window.until("it is said", () -> window.shownOrNull("#mode-sentence") != null);
    assertThat(((Label) window.shown("#mode-sentence")).getText())
        .isEqualTo("Owner reads and writes, everyone else reads.");
    window.choose("#server-table", "stations", "contact.html", "water.css");
    window.push(KeyCode.ALT, KeyCode.I);
    window.until("the sheet is there", () -> window.shownOrNull("#tree-look") != null);
    assertThat(((Button) window.shown("#tree-look")).isDisabled()).isTrue();
    window.fill("#files-octal", "0660");
    window.push(KeyCode.ENTER);
    window.until("it was looked", () -> window.shownOrNull("#tree-set") != null);
    TableView<?> plan = (TableView<?>) window.shown("#tree-plan");
    assertThat(plan.getItems())
        .extracting(row -> ((PlanRow) row).group().fate() + " " + ((PlanRow) row).group().count())
        .containsExactly("CHANGED 2", "SAME 1", "NOT_ALLOWED 126");
    assertThat(mode(CONTACT)).isEqualTo("0664");
    window.until("each is shown", () -> window.shownOrNull("#tree-entries") != null);
    window.press("#tree-set");
    untilStatus("2 entries set and read back");
    assertThat(mode(CONTACT)).isEqualTo("0660");
    window.press("#tree-put-back");
    untilStatus("Put back: 2 entries set");
    assertThat(mode(CONTACT)).isEqualTo("0664");
  }

  @Test
  void oneIsLeftOutAndWhatIsDangerousWaitsToBeAskedFor() throws Exception {
    window.choose("#server-table", "uploads", "contact.html", "water.css");
    window.press("#rights-inside");
    window.fill("#files-symbolic", "o+w");
    window.push(KeyCode.ENTER);
    window.until("it was looked", () -> window.shownOrNull("#tree-set") != null);
    assertThat(((Button) window.shown("#tree-set")).isDisabled()).isTrue();
    TreeRightsModel model =
        (TreeRightsModel) Window.inWindow(() -> window.desk().openSheets().front());
    window.push(KeyCode.SPACE);
    window.until("it is chosen", () -> !((Button) window.shown("#tree-set")).isDisabled());
    Window.inWindow(
        () -> {
          model.choice().leaveOut(CONTACT, true);
          assertThat(model.choice().count()).isEqualTo(1);
          var chosen = model.choice().rows().get(0).chosenProperty();
          chosen.set(false);
          assertThat(model.choice().count()).isZero();
          chosen.set(true);
          return null;
        });
    window.press("#tree-set");
    untilStatus("1 entry set and read back");
    assertThat(mode(CONTACT)).isEqualTo("0664");
    assertThat(mode(RemotePath.of("/srv/levels/site/water.css"))).isEqualTo("0666");
  }

  @Test
  void whatTheAccountMayNotIsDoneAsRoot() throws Exception {
    window.choose("#server-table", "stations");
    window.press("#rights-inside");
    window.fill("#files-octal", "0640");
    window.push(KeyCode.ENTER);
    window.until("it was looked", () -> window.shownOrNull("#tree-as-root") != null);
    window.press("#tree-as-root");
    window.giveThePassword("root");
    window.until("root looked", () -> window.shownOrNull("#tree-set") != null);
    window.press("#tree-set");
    untilStatus("126 entries set and read back");
    assertThat(mode(RemotePath.of("/srv/levels/site/stations/station-007.html"))).isEqualTo("0640");
  }
}
