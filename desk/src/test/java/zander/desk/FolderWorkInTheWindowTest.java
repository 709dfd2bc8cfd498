package zander.desk;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import javafx.scene.control.Labeled;
import javafx.scene.control.TableView;
import javafx.scene.input.Clipboard;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import zander.core.files.RemoteEntry;
import zander.core.files.RemotePath;
import zander.core.journal.ChangeKind;
import zander.core.journal.FileJournal;
import zander.core.journal.JournalRules;
import zander.core.journal.NewChange;
import zander.desk.file.FileModel;
import zander.desk.folder.Column;
import zander.desk.folder.EntryNotes;
import zander.desk.history.JournalModel;
import zander.desk.history.RecoveryModel;
import zander.desk.work.Settings;
import zander.standin.world.Caller;
import zander.standin.world.World;

/** Work in folders with keys and mouse in the real window. */
class FolderWorkInTheWindowTest {
  private static final String SITE = "/srv/levels/site";

  @TempDir Path folder;
  private Window window;

  @BeforeEach
  void open() throws Exception {
    window = new Window(folder);
  }

  @AfterEach
  void close() throws Exception {
    window.close();
  }

  private String note(String name) {
    return window.desk().folder().rows().stream()
        .filter(entry -> entry.name().equals(name))
        .map(entry -> window.desk().folder().notesProperty().get().of(entry))
        .map(EntryNotes.Note::words)
        .findFirst()
        .orElseThrow();
  }

  @Test
  void tellsWhatIsWrongAndNarrowsToIt() throws Exception {
    window.openLevelsWeb();
    window.until(
        "the service account is known", () -> note("alerts.html").equals("web cannot read"));
    assertThat(note("uploads")).isEqualTo("anyone can write");
    assertThat(note("old-map.html")).isEqualTo("leads nowhere");
    assertThat(note("index.html")).isEmpty();
    window.until("the room is told", () -> window.text("#folder-facts").contains("entries"));

    window.push(KeyCode.CONTROL, KeyCode.K);
    window.until("the forms are told", () -> window.text("#explained").contains("owner:root"));
    window.write("owner:root");
    window.until("it is narrowed", () -> window.rows().equals(List.of("alerts.html")));
    assertThat(window.text("#explained")).contains("owned by root");
    window.put("#narrow", "*.html !latest.html changed:<1y");
    window.until("three words are understood", () -> window.rows().size() == 4);
    assertThat(window.rows())
        .containsExactly("alerts.html", "contact.html", "index.html", "old-map.html");
    window.put("#narrow", "mode:nonsense");
    window.until("it says why", () -> window.text("#explained").contains("a mode is written like"));
    window.put("#narrow", "");

    window
        .world("levels-web")
        .open(Caller.ROOT, SITE + "/.env", new World.Open(false, true, true, true, false, 0644));
    window.clickOn(window.cell("#server-table", "img"));
    window.push(KeyCode.F5);
    window.until("it is counted", () -> window.text("#folder-facts").contains("1 hidden"));
    window.push(KeyCode.CONTROL, KeyCode.H);
    window.until("it is shown", () -> window.rows().contains(".env"));
    assertThat(note(".env")).isEqualTo("secret, anyone can read");
  }

  @Test
  void ordersByHeadingsAndKeepsColumns() throws Exception {
    window.openLevelsWeb();
    window.openRow("#server-table", "stations");
    window.until("they are shown", () -> window.rows().size() > 100);
    assertThat(window.rows().get(1)).isEqualTo("station-002.html");
    window.push(KeyCode.ALT, KeyCode.LEFT);
    window.until("it went back", () -> window.rows().contains("index.html"));
    window.push(KeyCode.ALT, KeyCode.RIGHT);
    window.until("it went forward", () -> window.rows().contains("station-002.html"));
    window.push(KeyCode.ALT, KeyCode.UP);
    window.until("it went up", () -> window.rows().contains("index.html"));
    Window.inWindow(
        () -> {
          window.desk().folder().orderBy(Column.SIZE, true);
          window.model.settings().set(Settings.FOLDERS_FIRST, false);
          window.model.settings().set(Settings.HIDDEN_COLUMNS, java.util.Set.of("GROUP"));
          return null;
        });
    window.until("the largest is first", () -> window.rows().get(0).equals("index.html"));
    TableView<?> table = (TableView<?>) window.shown("#server-table");
    assertThat(table.getVisibleLeafColumns()).extracting(c -> c.getText()).doesNotContain("Group");
    Path kept = folder.resolve("home/.local/state/zander/settings.json");
    window.until("it is kept", () -> kept.toFile().exists());
  }

  @Test
  void makesRenamesDuplicatesDeletesAndPutsBack() throws Exception {
    window.openLevelsWeb();
    window.push(KeyCode.ALT, KeyCode.N);
    window.answer("create", "2026/11/photos");
    window.until("it is there and selected", () -> selected().equals(List.of("2026")));
    assertThat(window.stat(SITE + "/2026/11/photos").isFolder()).isTrue();

    window.choose("#server-table", "contact.html");
    window.push(KeyCode.F2);
    window.until("the name is a field", () -> window.shownOrNull("#rename-field") != null);
    window.write("people").push(KeyCode.ENTER);
    window.until("it is renamed", () -> window.rows().contains("people.html"));
    assertThat(window.rows()).doesNotContain("contact.html");
    window.until("and selected", () -> selected().equals(List.of("people.html")));
    window.push(KeyCode.ALT, KeyCode.D);
    window.until("the copy is there", () -> selected().equals(List.of("people-2.html")));
    assertThat(window.content(SITE + "/people-2.html"))
        .isEqualTo(window.content(SITE + "/people.html"));

    window.choose("#server-table", "people.html", "2026");
    window.push(KeyCode.DELETE);
    window.until(
        "it is counted",
        () ->
            window.shownOrNull("#strip-live") != null
                && window.text("#strip-live").contains("1 file in 3 folders"));
    window.press("#choice-move-to-the-holding-folder");
    window.until(
        "they are gone",
        () -> !window.rows().contains("people.html") && !window.rows().contains("2026"));
    assertThat(window.rows()).contains("people-2.html");

    window.push(KeyCode.ALT, KeyCode.J);
    window.until("the journal is shown", () -> window.shownOrNull("#journal-table") != null);
    JournalModel journal = (JournalModel) window.desk().currentProperty().get();
    assertThat(journal.entries()).hasSize(7);
    window.put("#journal-search", "people.html deletions");
    window.until("it is found", () -> journal.entries().size() == 1);
    clickFirst("#journal-table");
    window.press("#journal-put-back");
    window.until("it is put back", () -> journal.state(journal.entries().get(0)).putBack());
    assertThat(window.stat(SITE + "/people.html").isFile()).isTrue();

    window.put("#journal-search", "");
    window.until("all are shown", () -> journal.entries().size() == 8);
    Window.inWindow(
        () -> {
          TableView<?> table = (TableView<?>) window.shown("#journal-table");
          table.getSelectionModel().selectLast();
          return null;
        });
    window.press("#journal-since");
    window.press("#choice-put-back-all");
    window.until("all is back", () -> window.exists(SITE + "/contact.html"));
    window.until("the folders are gone", () -> !window.exists(SITE + "/2026"));
    assertThat(window.exists(SITE + "/people-2.html")).isFalse();
    window.until("it is told", () -> window.shownOrNull("#choice-close") != null);
  }

  private List<String> selected() {
    return window.desk().folder().selection().stream().map(RemoteEntry::name).toList();
  }

  private void clickFirst(String table) throws Exception {
    Window.inWindow(
        () -> {
          TableView<?> view = (TableView<?>) window.shown(table);
          view.getSelectionModel().select(0);
          return null;
        });
  }

  @Test
  void asksForTheNameBeforeTheHomeFolderGoes() throws Exception {
    window.openLevelsWeb();
    Window.inWindow(
        () -> {
          window.desk().folder().go(RemotePath.of("/home"));
          return null;
        });
    window.choose("#server-table", "warden");
    window.push(KeyCode.DELETE);
    window.until("it is asked", () -> window.shownOrNull("#strip-name") != null);
    assertThat(window.shown("#choice-delete-for-good").isDisabled()).isTrue();
    window.fill("#strip-name", "warden");
    window.until("now it may", () -> !window.shown("#choice-delete-for-good").isDisabled());
    window.press("#choice-cancel");
    assertThat(window.stat("/home/warden").isFolder()).isTrue();
  }

  @Test
  void copiesMovesLinksAndTellsPathsToOthers() throws Exception {
    window.openLevelsWeb();
    window.choose("#server-table", "robots.txt");
    window.push(KeyCode.ALT, KeyCode.C);
    window.answer("copy", "/home/warden");
    window.until("it is told", () -> window.shownOrNull("#choice-go-there") != null);
    assertThat(window.exists("/home/warden/robots.txt")).isTrue();
    window.press("#choice-go-there");
    window.until("it went there", () -> window.rows().contains("robots.txt"));
    window.push(KeyCode.ALT, KeyCode.L);
    window.answer("create", "to the site", SITE);
    window.until("the link is there", () -> window.rows().contains("to the site"));
    window.choose("#server-table", "robots.txt");
    window.push(KeyCode.ALT, KeyCode.M);
    window.answer("move", SITE + "/uploads");
    window.until("it went", () -> !window.rows().contains("robots.txt"));
    assertThat(window.exists(SITE + "/uploads/robots.txt")).isTrue();

    window.press("#choice-go-there");
    window.until("it went there", () -> window.rows().contains("robots.txt"));
    window.choose("#server-table", "robots.txt");
    window.push(KeyCode.ALT, KeyCode.Y);
    assertThat(clipboard()).isEqualTo(SITE + "/uploads/robots.txt");
    goTo("copy the sftp");
    assertThat(clipboard())
        .isEqualTo("sftp://warden@levels-web.riverwatch.example" + SITE + "/uploads/robots.txt");
    goTo("copy the public");
    assertThat(clipboard()).isEqualTo("http://levels.riverwatch.example/uploads/robots.txt");
    goTo("quoted for");
    assertThat(clipboard()).isEqualTo("'" + SITE + "/uploads/robots.txt'");
  }

  @Test
  void copiesToTheFolderOfAnotherDesk() throws Exception {
    window.openLevelsWeb();
    var first = window.desk();
    window.press("#open-server");
    window.openServer("lab-box");
    window.press("#prompt-yes");
    window.until("both are open", () -> window.desk() != null && window.desk() != first);
    var second = window.desk();
    window.until("its folder is read", () -> second.folder().path() != null);
    String there = second.folder().path().text() + "/robots.txt";
    Window.inWindow(
        () -> {
          window.model.currentProperty().set(first);
          return null;
        });
    window.choose("#server-table", "robots.txt");
    goTo("copy the selection to lab");
    window.until(
        "the other desk shows it",
        () -> second.folder().rows().stream().anyMatch(row -> row.name().equals("robots.txt")));
    assertThat(window.world("lab-box").stat(Caller.ROOT, there).size())
        .isEqualTo(window.stat(SITE + "/robots.txt").size());
    window.untilWaterlineSays("copied across");
    assertThat(first.transfers().current().words().detail())
        .startsWith("How files go: through this computer's memory, not its disk, because")
        .contains("levels-web has no ssh of OpenSSH");
  }

  private void goTo(String words) {
    window.push(KeyCode.CONTROL, KeyCode.G);
    window.until("it is asked", () -> window.shownOrNull("#goto-field") != null);
    window.write(words).push(KeyCode.ENTER);
  }

  private static String clipboard() throws Exception {
    return Window.inWindow(() -> Clipboard.getSystemClipboard().getString());
  }

  @Test
  void completesATypedPathFromTheServer() throws Exception {
    window.openLevelsWeb();
    window.push(KeyCode.CONTROL, KeyCode.L);
    window.until("it can be typed", () -> window.shownOrNull("#server-path-field") != null);
    window.push(KeyCode.CONTROL, KeyCode.A);
    int before = Window.inWindow(() -> javafx.stage.Window.getWindows().size());
    window.write("/etc/le");
    window.until("it is suggested", () -> javafx.stage.Window.getWindows().size() > before);
    window.push(KeyCode.TAB);
    window.until("it is taken", () -> window.text("#server-path-field").equals("/etc/levels/"));
    window.push(KeyCode.ENTER);
    window.until("it went there", () -> window.rows().contains("site.conf"));
  }

  /** What is pasted from a log or a ticket is a file as often as a folder. */
  @Test
  void aFileThatIsGoneToIsOpenedAndItsFolderShown() throws Exception {
    window.openLevelsWeb();
    goTo("/etc/levels/site.conf");
    window.until(
        "the file is in front",
        () ->
            window.desk().currentProperty().get() instanceof FileModel file
                && file.path().equals(RemotePath.of("/etc/levels/site.conf")));
    window.until("its folder is shown", () -> window.rows().contains("site.conf"));
    window.interact(() -> window.desk().folder().select(List.of()));
    goTo("/etc/levels/site.conf");
    window.until(
        "it is selected where it is shown already",
        () ->
            window
                .desk()
                .folder()
                .selectedPaths()
                .equals(List.of(RemotePath.of("/etc/levels/site.conf"))));
    goTo("/etc/levels/nowhere");
    window.until(
        "what is not there is told",
        () ->
            window.shownOrNull(".strip-headline") instanceof Labeled told
                && told.getText().endsWith("/etc/levels/nowhere: it is not there"));
  }

  @Test
  void theOtherSideIsComparedRenamedAndTrashed() throws Exception {
    window.openLevelsWeb();
    window.until(
        "the server's rows say what is only there",
        () -> window.desk().local().namesProperty().get() != null);
    Path local = window.demo().siteFolder();
    Files.writeString(local.resolve("draft-10.txt"), "ten");
    Files.writeString(local.resolve("draft-9.txt"), "nine");
    window.push(KeyCode.F5);
    window.until(
        "they are listed",
        () ->
            window.desk().local().rows().stream()
                .anyMatch(row -> row.name().equals("draft-9.txt")));
    window.choose("#local-table", "draft-9.txt");
    window.push(KeyCode.F2);
    window.until("the name is asked", () -> window.shownOrNull("#local-name") != null);
    window.fill("#local-name", "nine.txt");
    window.push(KeyCode.ENTER);
    window.until("it is renamed", () -> Files.exists(local.resolve("nine.txt")));
    window.choose("#local-table", "nine.txt");
    window.push(KeyCode.DELETE);
    window.until("it is in the trash", () -> !Files.exists(local.resolve("nine.txt")));
    Path trash = folder.resolve("home/.local/share/Trash");
    assertThat(trash.resolve("files/nine.txt")).content().isEqualTo("nine");
    assertThat(trash.resolve("info/nine.txt.trashinfo"))
        .content()
        .contains("[Trash Info]", "Path=");
    assertThat(window.exists(SITE + "/index.html")).as("nothing above was touched").isTrue();
  }

  @Test
  void saysWhatWasUnderWayWhenTheProgramEnded() throws Exception {
    Path journals = folder.resolve("home/.local/state/zander/journal");
    RemotePath half = RemotePath.of(SITE + "/.spring.zander-12ab34");
    try (FileJournal journal =
        new FileJournal(
            journals.resolve("warden@levels-web.riverwatch.example"),
            "levels-web",
            JournalRules.USUAL)) {
      journal.begin(NewChange.of(ChangeKind.MAKE_FOLDER, RemotePath.of(SITE + "/never")));
      journal.begin(
          NewChange.of(ChangeKind.COPY, RemotePath.of(SITE + "/spring")).part(half).note(SITE));
    }
    World world = window.world("levels-web");
    Caller warden =
        window
            .demo()
            .server("levels-web")
            .machine()
            .accounts()
            .caller(
                window
                    .demo()
                    .server("levels-web")
                    .machine()
                    .accounts()
                    .user("warden")
                    .orElseThrow());
    world.mkdir(warden, half.wire(), 0755);
    world.mkdir(warden, half.wire() + "/inner", 0755);
    window.openServer("levels-web");
    window.press("#prompt-yes");
    window.until(
        "it is told",
        () ->
            window.desk() != null
                && window.desk().currentProperty().get() instanceof RecoveryModel);
    RecoveryModel recovery = (RecoveryModel) window.desk().currentProperty().get();
    assertThat(recovery.rows()).hasSize(2);
    assertThat(recovery.rows().get(0).ended()).isEqualTo("noted as not done");
    window.press("#undo-1");
    window.until("it is gone", () -> !window.exists(half.wire()));
    window.until("it is noted", () -> !recovery.rows().get(1).isOpen());
  }
}
