package zander.desk;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.List;
import javafx.scene.control.MenuButton;
import javafx.scene.control.TableView;
import javafx.scene.control.TextArea;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import zander.core.change.rights.PlanGroup.Fate;
import zander.core.files.RemoteEntry;
import zander.core.files.RemotePath;
import zander.core.journal.ChangeKind;
import zander.core.rights.Mode;
import zander.core.transfer.rules.ConflictRule;
import zander.core.transfer.rules.TransferRules;
import zander.core.transfer.rules.TransferRules.Modes;
import zander.desk.file.FileModel;
import zander.desk.folder.FolderModel;
import zander.desk.rights.tree.PlanRow;
import zander.desk.rights.tree.TreeRightsModel;
import zander.desk.sheet.Question;

/** Rights that a folder keeps: written, kept, seen where something differs, and set on arrival. */
class KeptRightsInTheWindowTest {
  private static final RemotePath SITE = RemotePath.of("/srv/levels/site");
  private static final String LINES =
      """
      *            -  adm  0644+X
      /uploads/    -  -    0664    2775
      """;

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

  private TextArea lines() {
    return (TextArea) window.shown("#kept-lines");
  }

  private void openSheet() {
    window.push(KeyCode.ALT, KeyCode.K);
    window.until("the sheet is open", () -> window.shownOrNull("#kept-lines") != null);
  }

  private void write(String text) throws Exception {
    Window.inWindow(
        () -> {
          lines().setText(text);
          return null;
        });
  }

  private void keep(String text) throws Exception {
    openSheet();
    write(text);
    window.press("#kept-keep");
    window.until("they are kept", () -> window.text("#kept-status").startsWith("Kept with"));
  }

  private void toFolder() throws Exception {
    Window.inWindow(
        () -> {
          window.desk().currentProperty().set(window.desk().folder());
          return null;
        });
  }

  private String note(String name) throws Exception {
    return Window.inWindow(
        () -> {
          FolderModel shown = window.desk().folder();
          RemoteEntry row =
              shown.rows().stream()
                  .filter(one -> one.name().equals(name))
                  .findFirst()
                  .orElseThrow();
          return shown.notesProperty().get().of(row).words();
        });
  }

  private RemoteEntry entry(String path) throws Exception {
    return window.desk().files().entry(RemotePath.of(path));
  }

  @Test
  void isWrittenReadLearntAndKept() throws Exception {
    openSheet();
    write("* - web 0648\n");
    assertThat(window.text("#tree-status")).startsWith("Line 1: 0648 is not a mode");
    assertThat(window.shown("#kept-keep").isDisabled()).isTrue();
    write("* nobody-here web 0644\n");
    assertThat(window.text("#tree-status"))
        .isEqualTo("This server has no account or group nobody-here.");
    window.press("#kept-learn");
    window.until("it is learnt", () -> window.text("#kept-status").startsWith("Learnt from"));
    assertThat(lines().getText()).contains("deploy  web    0644");
    String learnt = lines().getText();
    Path other = Files.writeString(folder.resolve("level.txt"), "1.2 m\n");
    window.fill("#kept-file", other.toString());
    window.press("#kept-write");
    window.until(
        "it is refused", () -> window.text("#kept-status").contains("holds something else"));
    assertThat(other).hasContent("1.2 m");
    window.fill("#kept-file", folder.resolve("kept.txt").toString());
    window.press("#kept-write");
    window.until("it is written", () -> window.text("#kept-status").startsWith("Written to"));
    assertThat(folder.resolve("kept.txt")).hasContent(learnt);
    Window.inWindow(
        () -> {
          ((MenuButton) window.shown("#kept-begin")).getItems().get(1).fire();
          return null;
        });
    window.until("a purpose is begun with", () -> lines().getText().contains("/uploads/"));
    assertThat(lines().getText()).contains("deploy  web    0644+X  0755");
    window.press("#kept-read");
    window.until("it is read", () -> lines().getText().equals(learnt));
    window.press("#kept-keep");
    window.until("they are kept", () -> window.text("#kept-status").startsWith("Kept with"));
    assertThat(Files.readString(window.setup.places().book())).contains("\"rights\" : [");
  }

  @Test
  void whatDiffersIsSeenAndMendedAsOneChange() throws Exception {
    assertThat(note("contact.html")).isEmpty();
    keep("* - - 0644\n");
    window.press("#tree-look");
    window.until("it was looked", () -> window.shownOrNull("#tree-plan") != null);
    TableView<?> plan = (TableView<?>) window.shown("#tree-plan");
    assertThat(Window.inWindow(() -> ((PlanRow) plan.getItems().get(0)).group().count()))
        .isEqualTo(2);
    toFolder();
    assertThat(note("contact.html")).isEqualTo("rights not as kept");
    assertThat(note("index.html")).isEmpty();
    Window.inWindow(
        () -> {
          TreeRightsModel sheet = window.desk().openSheets().of(TreeRightsModel.class).get(0);
          sheet.set();
          return null;
        });
    window.until("it is mended", () -> note0("contact.html").isEmpty());
    assertThat(entry("/srv/levels/site/contact.html").attributes().mode().octal())
        .isEqualTo("0644");
  }

  private String note0(String name) {
    try {
      return note(name);
    } catch (Exception e) {
      throw new AssertionError(e);
    }
  }

  @Test
  void whatIsSavedIsTold() throws Exception {
    keep("*.css - - 0600\n");
    RemotePath css = SITE.child("water.css");
    Window.inWindow(
        () -> {
          window.desk().openFile(css);
          return null;
        });
    window.until("it is open", () -> window.desk().currentProperty().get() instanceof FileModel);
    FileModel file = (FileModel) Window.inWindow(() -> window.desk().currentProperty().get());
    Window.inWindow(
        () -> {
          file.putIn("p { color: #246 }\n");
          file.save();
          return null;
        });
    window.until("it is told", () -> file.questionProperty().get() != null);
    assertThat(file.questionProperty().get().said().headline())
        .isEqualTo("water.css is saved. Its rights are not as kept");
    assertThat(file.questionProperty().get().said().detail())
        .isEqualTo("Kept here: warden:web 0600. It is warden:web 0664.");
  }

  @Test
  void whatArrivesHasThemOrIsTold() throws Exception {
    keep(LINES);
    toFolder();
    Path here = Files.createDirectories(folder.resolve("coming/uploads-of-may"));
    Files.writeString(here.resolve("level.txt"), "1.2 m\n");
    Files.writeString(here.resolve("run.sh"), "echo level\n");
    RemotePath there = SITE.child("uploads-of-may");
    window.desk().files().makeFolder(there, new Mode(0755));
    window.desk().files().create(there.child("older.txt"), new Mode(0600)).close();
    Files.setPosixFilePermissions(
        here.resolve("run.sh"), PosixFilePermissions.fromString("rwxr-x---"));
    Files.setPosixFilePermissions(
        here.resolve("level.txt"), PosixFilePermissions.fromString("rw-------"));
    Window.inWindow(
        () -> {
          window.desk().transfers().rules().changeCommand("ls -l uploads-of-may");
          return null;
        });
    send(here, Modes.KEPT);
    untilArrived();
    assertThat(mode("/srv/levels/site/uploads-of-may/level.txt")).isEqualTo("0644");
    assertThat(mode("/srv/levels/site/uploads-of-may/run.sh")).isEqualTo("0755");
    assertThat(entry("/srv/levels/site/uploads-of-may/run.sh").group()).isEqualTo("adm");
    assertThat(mode("/srv/levels/site/uploads-of-may/older.txt")).isEqualTo("0600");
    window.until("the command ran", () -> asked().startsWith("Ran after sending up"));
    // It finds the rights set that what arrived is to have.
    assertThat(window.desk().folder().questionProperty().get().said().detail()).contains("adm");
    Window.inWindow(
        () -> {
          window.desk().transfers().rules().changeCommand("");
          window.desk().folder().dismissQuestion();
          return null;
        });
    Files.writeString(here.resolve("level.txt"), "1.3 m, rising\n");
    Files.setPosixFilePermissions(
        here.resolve("level.txt"), PosixFilePermissions.fromString("rw-------"));
    send(here, Modes.FROM_SOURCE);
    window.until("it is told", () -> asked().contains("below what was sent"));
  }

  private String asked() {
    Question asked = window.desk().folder().questionProperty().get();
    return asked == null ? "" : asked.said().headline();
  }

  private void send(Path from, Modes modes) throws Exception {
    Window.inWindow(
        () -> {
          var transfers = window.desk().transfers();
          transfers.rules().change(TransferRules.of(ConflictRule.REPLACE).modes(modes, null, null));
          transfers.sendUp(List.of(from));
          return null;
        });
  }

  /** And, where it is set on arrival, written down. */
  private void untilArrived() {
    window.until(
        "it is set on arrival",
        () ->
            !window.desk().transfers().queue().isBusy()
                && window.desk().journal().entries().stream()
                    .anyMatch(one -> one.kind() == ChangeKind.RIGHTS_OF_TREE));
  }

  private String mode(String path) throws Exception {
    return entry(path).attributes().mode().octal();
  }

  @Test
  void asRootItIsAskedWithTheSameLines() throws Exception {
    keep("/alerts.html deploy web 0644\n");
    window.press("#tree-look");
    window.until("it was looked", () -> window.shownOrNull("#tree-as-root") != null);
    window.press("#tree-as-root");
    window.giveThePassword("root");
    window.until(
        "root looked",
        () ->
            window.shownOrNull("#tree-plan") != null
                && window.desk().openSheets().of(TreeRightsModel.class).size() == 1
                && window.text("#tree-set").equals("Set on 1 entry"));
    assertThat(
            Window.inWindow(
                () ->
                    window
                        .desk()
                        .openSheets()
                        .of(TreeRightsModel.class)
                        .get(0)
                        .choice()
                        .rows()
                        .stream()
                        .filter(row -> row.group().fate() == Fate.CHANGED)
                        .count()))
        .isEqualTo(1);
  }
}
