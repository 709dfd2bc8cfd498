package zander.desk;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.List;
import javafx.scene.control.ComboBox;
import javafx.scene.control.TableView;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import zander.core.change.rights.look.FindingKind;
import zander.core.change.rights.look.TreeFindings.Finding;
import zander.core.files.RemotePath;
import zander.core.rights.Mode;
import zander.desk.rights.FindingsModel;
import zander.desk.rights.tree.FoundRequest;
import zander.desk.rights.tree.TreeRightsModel;
import zander.desk.rights.tree.TreeRightsModel.Stage;
import zander.standin.world.Caller;

/** Rights that are too wide, found below the folder that is shown, and mended by a preview. */
class FindingsInTheWindowTest {
  @TempDir Path folder;
  private Window window;

  @BeforeEach
  void open() throws Exception {
    window = new Window(folder);
    window.openLevelsWeb();
    window.push(KeyCode.ALT, KeyCode.SHIFT, KeyCode.I);
    untilLooked();
  }

  @AfterEach
  void close() throws Exception {
    window.close();
  }

  private void untilLooked() {
    window.until(
        "it was looked",
        () ->
            window.shownOrNull("#findings-status") != null
                && window.text("#findings-status").contains("by owner and mode"));
  }

  private FindingsModel model() {
    return window.desk().openSheets().of(FindingsModel.class).get(0);
  }

  @Test
  void whatIsTooWideIsToldAndMended() throws Exception {
    assertThat(Window.inWindow(() -> model().kinds()))
        .containsExactly(FindingKind.ANYONE_WRITES, FindingKind.ACCOUNT_WRITES);
    assertThat(Window.inWindow(() -> model().example(FindingKind.ANYONE_WRITES)))
        .isEqualTo("uploads");
    TableView<?> entries = (TableView<?>) window.shown("#findings-entries");
    window.until("it is shown", () -> entries.getItems().size() == 1);
    assertThat(((Finding) entries.getItems().get(0)).path().name()).isEqualTo("uploads");
    @SuppressWarnings("unchecked")
    ComboBox<String> accounts = (ComboBox<String>) window.shown("#findings-account");
    assertThat(accounts.getValue()).isEqualTo("web");
    Window.inWindow(
        () -> {
          accounts.setValue("ingest");
          return null;
        });
    untilLooked();
    window.until(
        "it is of the other",
        () ->
            model().kinds().contains(FindingKind.ACCOUNT_WRITES)
                && model().account().equals("ingest"));
    Window.inWindow(
        () -> {
          model().mend(FindingKind.ANYONE_WRITES);
          return null;
        });
    window.until("it is previewed", () -> window.shownOrNull("#tree-plan") != null);
    assertThat(window.text("#tree-asks")).startsWith("Files o-w · folders o-w");
  }

  @Test
  void secretsAreClosedByAPreviewOfTheseAlone() throws Exception {
    RemotePath home = RemotePath.of("/home/warden/station");
    window.desk().files().makeFolder(home, new Mode(0755));
    window.desk().files().create(home.child(".env"), new Mode(0644)).close();
    FindingsModel found = Window.inWindow(() -> new FindingsModel(window.desk(), home));
    window.until("it was looked", found::isLooked);
    Window.inWindow(
        () -> {
          assertThat(found.kinds()).contains(FindingKind.SECRET_READABLE);
          assertThat(found.mayMend(FindingKind.ACCOUNT_WRITES)).isFalse();
          found.mend(FindingKind.SECRET_READABLE);
          return null;
        });
    window.until("it is previewed", () -> window.shownOrNull("#tree-entries") != null);
    assertThat(window.text("#tree-set")).isEqualTo("Set on 1 entry");
    window.press("#tree-set");
    window.until("it is set", () -> window.text("#tree-status").startsWith("1 entry set"));
    assertThat(window.desk().files().look(home.child(".env")).mode().octal()).isEqualTo("0640");
  }

  @Test
  void eachOtherKindHasItsPreviewAsWell() throws Exception {
    RemotePath station = RemotePath.of("/home/warden/station");
    window.desk().files().makeFolder(station, new Mode(0755));
    for (String name : List.of("gauge", "left-over")) {
      window.desk().files().create(station.child(name), new Mode(0755)).close();
    }
    window.desk().files().setMode(station.child("gauge"), new Mode(04755));
    window
        .world("levels-web")
        .chown(Caller.ROOT, station.child("left-over").text(), 4321, 4321, false);
    FindingsModel found = Window.inWindow(() -> new FindingsModel(window.desk(), station));
    window.until("it was looked", found::isLooked);
    assertThat(mended(found, FindingKind.RUNS_AS_OWNER))
        .startsWith("Programs that run as their owner or group: no longer");
    // Somebody may depend on it: it is there to be chosen, and not chosen by itself.
    assertThat(window.text("#tree-set")).isEqualTo("Set on 0 entries");
    assertThat(window.shownOrNull("#tree-change")).isNull();
    assertThat(mended(found, FindingKind.OWNED_BY_NOBODY))
        .startsWith("What belongs to nobody: to warden:warden");
    // Only root may give it to another.
    assertThat(window.shownOrNull("#tree-as-root")).isNotNull();
  }

  private String mended(FindingsModel found, FindingKind kind) throws Exception {
    Window.inWindow(
        () -> {
          found.mend(kind);
          return null;
        });
    window.until(
        "it is previewed",
        () ->
            window.desk().currentProperty().get() instanceof TreeRightsModel sheet
                && sheet.stageProperty().get() == Stage.PLANNED
                && sheet.request() instanceof FoundRequest request
                && request.words().startsWith(kind == FindingKind.RUNS_AS_OWNER ? "Prog" : "What")
                && window.shownOrNull("#tree-plan") != null);
    return window.text("#tree-asks");
  }
}
