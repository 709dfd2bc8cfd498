package zander.suite.window;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.PasswordField;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import zander.core.book.ServerEntry;
import zander.core.connect.channel.WayUp;
import zander.core.files.RemoteEntry;
import zander.core.files.RemotePath;
import zander.core.journal.ChangeKind;
import zander.core.journal.JournalEntry;
import zander.desk.file.FileModel;
import zander.desk.folder.action.CreateActions;
import zander.desk.folder.action.DeleteActions;
import zander.desk.history.JournalModel;
import zander.desk.history.JournalSheet;
import zander.desk.model.DeskModel;
import zander.desk.sheet.Question;
import zander.desk.work.Settings;
import zander.suite.SystemSshd;
import zander.suite.SystemSudo;

/** An administrator's ordinary work as root, in the window, by the system's own sudo. */
@Timeout(value = 240, unit = TimeUnit.SECONDS)
class AsRootInTheWindowTest {
  private static final String ACCOUNT = "zndasroot";
  private static final String OTHER = "zndother2";
  private static final String PASSWORD = "heron-at-dusk";
  private final SystemSudo sudo = new SystemSudo("window");

  @TempDir Path folder;
  private SystemSshd server;
  private OffscreenWindow window;
  private Path settings;
  private Path file;

  @BeforeEach
  void start() throws Exception {
    Assumptions.assumeTrue(
        SystemSudo.isPossible(), "needs openssh-server and sudo, and to be root");
    server = new SystemSshd(folder, List.of(ACCOUNT, OTHER), List.of());
    SystemSshd.setPassword(ACCOUNT, PASSWORD);
    settings = Files.createDirectory(folder.resolve("settings"));
    file = Files.writeString(settings.resolve("site.conf"), "level 3\n");
    Files.setPosixFilePermissions(settings, PosixFilePermissions.fromString("rwxr-xr-x"));
    Files.setPosixFilePermissions(file, PosixFilePermissions.fromString("rw-r--r--"));
    sudo.rule(ACCOUNT + " ALL=(ALL) ALL");
    window = new OffscreenWindow(folder.resolve("here"), server);
  }

  @AfterEach
  void stop() throws Exception {
    sudo.close();
    if (window != null) {
      window.close();
      server.close();
    }
  }

  private DeskModel open() throws Exception {
    return window.open("site", ACCOUNT, server.port(), settings, window.home());
  }

  private DeskModel rootDesk() throws Exception {
    window.until(
        "it is done as root",
        () -> {
          DeskModel desk = window.model.currentProperty().get();
          return desk != null && desk.actsAs() != null && desk.folder().path() != null;
        });
    return window.on(() -> window.model.currentProperty().get());
  }

  private FileModel openFile(DeskModel desk) throws Exception {
    window.run(() -> desk.openFile(RemotePath.of(file.toString())));
    window.until("it is open", () -> desk.currentProperty().get() instanceof FileModel);
    return (FileModel) window.on(() -> desk.currentProperty().get());
  }

  /** However often it is asked for, there is one desk and one question. */
  @Test
  void askedForTwiceItIsOneDesk() throws Exception {
    DeskModel desk = open();
    RemotePath there = RemotePath.of(settings.toString());
    List<Object> told = new ArrayList<>();
    window.run(
        () -> {
          desk.actAsRoot(there, told::add);
          desk.actAsRoot(there, told::add);
        });
    window.giveThePassword(PASSWORD);
    DeskModel root = rootDesk();
    assertThat(window.on(() -> window.model.desks().size())).isEqualTo(2);
    assertThat(told).containsExactly(root, root);
  }

  /** It ends by itself where nothing is done, and not while something is not saved. */
  @Test
  void theRightEndsWhenNothingIsDone() throws Exception {
    DeskModel desk = open();
    window.run(() -> desk.actAsRoot(RemotePath.of(settings.toString()), root -> {}));
    window.giveThePassword(PASSWORD);
    DeskModel root = rootDesk();
    FileModel theirs = openFile(root);
    window.run(() -> theirs.edited("level 6\n"));
    window.run(() -> window.model.settings().set(Settings.ACTING_SECONDS, 1L));
    window.run(() -> desk.actAsRoot(RemotePath.of(settings.toString()), again -> {}));
    window.run(() -> theirs.edited("level 3\n"));
    window.until("it has ended", () -> window.model.desks().equals(List.of(desk)));
    assertThat(
            window.on(() -> desk.openSheets().front().questionProperty().get()).said().headline())
        .isEqualTo("You are no longer acting as root");
  }

  /** A desk that is closed while the password is asked for leaves nothing behind. */
  @Test
  void aDeskClosedMeanwhileGetsNoneAsRoot() throws Exception {
    DeskModel desk = open();
    window.run(() -> desk.actAsRoot(RemotePath.of(settings.toString()), root -> {}));
    window.until("it is asked for", () -> OffscreenWindow.seen("#secret") != null);
    window.run(() -> window.model.close(desk));
    window.giveThePassword(PASSWORD);
    window.until("the question is answered", () -> OffscreenWindow.seen("#secret") == null);
    window.until("nobody is signed in", () -> server.sessionCount() == 0);
    assertThat(window.on(() -> window.model.desks().size())).isZero();
  }

  /** A save that is refused goes on as root, with the text that was typed. */
  @Test
  void aRefusedSaveGoesOnAsRoot() throws Exception {
    DeskModel desk = open();
    FileModel mine = openFile(desk);
    window.until("it is said at once", () -> mine.questionProperty().get() != null);
    window.choose(window.on(() -> mine.questionProperty().get()), "Read only");
    window.run(() -> mine.edited("level 4\n"));
    window.run(mine::save);
    window.until("it is refused", () -> mine.questionProperty().get() != null);
    Question refused = window.on(() -> mine.questionProperty().get());
    window.choose(refused, "Go on as root");
    window.giveThePassword("wren");
    window.until(
        "it is asked again",
        () -> {
          Node field = OffscreenWindow.seen("#secret");
          return field != null && ((PasswordField) field).getText().isEmpty();
        });
    window.giveThePassword(PASSWORD);
    DeskModel root = rootDesk();
    assertThat(root.whoAmI().uid()).isZero();
    window.until("the file is open there", () -> root.currentProperty().get() instanceof FileModel);
    FileModel theirs = (FileModel) window.on(() -> root.currentProperty().get());
    window.until("with the text", () -> "level 4\n".equals(theirs.draftedProperty().get()));
    window.run(() -> theirs.edited("level 4\n"));
    window.run(theirs::save);
    window.until("it is saved", () -> !theirs.isUnsaved() && !theirs.busyProperty().get());
    assertThat(file).hasContent("level 4");
    assertThat(SystemSshd.run("stat", "-c", "%U %a", file.toString())).isEqualTo("root 644\n");
    JournalEntry saved = root.journal().entries().get(0);
    assertThat(saved.kind()).isEqualTo(ChangeKind.SAVE);
    assertThat(saved.as()).isEqualTo("root");

    window.run(() -> JournalSheet.open(root));
    JournalModel journal = window.on(() -> root.openSheets().of(JournalModel.class).get(0));
    window.run(() -> journal.putBack(saved));
    window.until("it is put back", () -> content().equals("level 3\n"));
  }

  private String content() {
    try {
      return Files.readString(file);
    } catch (java.io.IOException e) {
      throw new AssertionError(e);
    }
  }

  /** Whatever is refused goes on as root, that very step, and the password is asked for once. */
  @Test
  void everyStepThatIsRefusedGoesOnAsRoot() throws Exception {
    DeskModel desk = open();
    window.until("it is read", () -> !desk.folder().rows().isEmpty());

    window.run(
        () -> new CreateActions(desk.folder()).rename(desk.folder().rows().get(0), "levels.conf"));
    goOnAsRoot(desk);
    window.giveThePassword(PASSWORD);
    Path renamed = settings.resolve("levels.conf");
    window.until("it is renamed", () -> Files.exists(renamed));

    atRow(desk, "levels.conf");
    window.run(
        () -> {
          desk.rights().ownerProperty().set(ACCOUNT);
          desk.rights().typeOctal("0600");
          desk.rights().apply();
        });
    goOnAsRoot(desk);
    window.until("it is set", () -> stat(renamed).equals(ACCOUNT + " 600\n"));

    atRow(desk, "levels.conf");
    window.run(() -> new DeleteActions(desk.folder()).delete());
    window.until("it is asked", () -> desk.folder().questionProperty().get() != null);
    window.choose(
        window.on(() -> desk.folder().questionProperty().get()), "Move to the holding folder");
    goOnAsRoot(desk);
    window.until("it is gone", () -> !Files.exists(renamed));
    DeskModel root = rootDesk();
    // It is written down as done after it is.
    window.until("it is written down", () -> root.journal().entries().get(0).isDone());
    JournalEntry deleted = root.journal().entries().get(0);
    assertThat(deleted.kind()).isEqualTo(ChangeKind.DELETE);
    assertThat(deleted.as()).isEqualTo("root");

    window.run(() -> JournalSheet.open(root));
    JournalModel journal = window.on(() -> root.openSheets().of(JournalModel.class).get(0));
    window.run(() -> journal.putBack(deleted));
    window.until("it is put back", () -> stat(renamed).equals(ACCOUNT + " 600\n"));
  }

  /** A whole folder goes into a place of root's, where the account may not write. */
  @Test
  void aTransferThatIsRefusedGoesOnAsRoot() throws Exception {
    Path pages = Files.createDirectories(window.home().resolve("pages/stations"));
    Files.writeString(pages.resolve("station-001.html"), "calm");
    Files.writeString(pages.resolveSibling("index.html"), "all calm");
    DeskModel desk = open();
    window.until("it is read", () -> !desk.folder().rows().isEmpty());
    window.run(() -> desk.transfers().sendUp(List.of(window.home().resolve("pages"))));
    goOnAsRoot(desk);
    window.giveThePassword(PASSWORD);
    DeskModel root = rootDesk();
    Path arrived = settings.resolve("pages/stations/station-001.html");
    window.until(
        "it has arrived", () -> Files.exists(arrived) && !root.transfers().queue().isBusy());
    assertThat(arrived).hasContent("calm");
    assertThat(stat(settings.resolve("pages/index.html"))).startsWith("root ");
    window.run(() -> root.transfers().bringDown(RemotePath.of(file.toString())));
    window.until("it is here", () -> Files.exists(window.home().resolve("site.conf")));
  }

  /** On the account's own desk: the offer, once it is there. */
  private void goOnAsRoot(DeskModel desk) throws Exception {
    window.until(
        "it is offered",
        () -> {
          Question question = desk.folder().questionProperty().get();
          return question != null
              && question.choices().stream()
                  .anyMatch(choice -> choice.words().equals("Do it as root"));
        });
    window.choose(window.on(() -> desk.folder().questionProperty().get()), "Do it as root");
  }

  private void atRow(DeskModel desk, String name) throws Exception {
    window.run(
        () -> {
          window.model.currentProperty().set(desk);
          desk.folder().refresh();
        });
    window.until("it is seen", () -> row(desk, name) != null);
    window.run(() -> desk.folder().select(List.of(row(desk, name))));
    window.until("it is selected", () -> !desk.rights().entries().isEmpty());
  }

  private static RemoteEntry row(DeskModel desk, String name) {
    return desk.folder().rows().stream()
        .filter(entry -> entry.name().equals(name))
        .findFirst()
        .orElse(null);
  }

  private static String stat(Path file) {
    try {
      return Files.exists(file) ? SystemSshd.run("stat", "-c", "%U %a", file.toString()) : "";
    } catch (Exception e) {
      throw new AssertionError(e);
    }
  }

  /** What the account may write stays root's, and it is told in the quiet line. */
  @Test
  void aFileOfAnotherIsWrittenIntoAndStaysTheirs() throws Exception {
    Files.setPosixFilePermissions(file, PosixFilePermissions.fromString("rw-rw-rw-"));
    FileModel mine = openFile(open());
    window.run(() -> mine.edited("level 5\n"));
    window.run(mine::save);
    window.until("it is saved", () -> !mine.isUnsaved() && !mine.busyProperty().get());
    assertThat(window.on(() -> mine.stateProperty().get()))
        .startsWith("saved to the server, written into the same file");
    assertThat(window.on(() -> mine.questionProperty().get())).isNull();
    assertThat(file).hasContent("level 5");
    assertThat(SystemSshd.run("stat", "-c", "%U %a", file.toString())).isEqualTo("root 666\n");
  }

  /** Where the rules do not let one, whoever knows the other's password may still get in. */
  @Test
  void thePasswordOfTheOtherAccountIsOfferedWhereSudoRefuses() throws Exception {
    sudo.rule("# nothing for " + ACCOUNT);
    SystemSshd.setPassword(OTHER, "tern");
    DeskModel desk = open();
    window.run(() -> desk.actAs(OTHER, RemotePath.of(settings.toString()), other -> {}));
    window.giveThePassword(PASSWORD);
    window.until("it is refused", () -> desk.folder().questionProperty().get() != null);
    Question refused = window.on(() -> desk.folder().questionProperty().get());
    assertThat(refused.said().detail()).contains(ACCOUNT + " ALL=(" + OTHER + ") ALL");
    window.choose(refused, "Use the password of " + OTHER);
    window.giveThePassword("tern");
    DeskModel other = rootDesk();
    assertThat(other.actsAs()).isEqualTo(OTHER);
    assertThat(other.whoAmI().account()).isEqualTo(OTHER);
    assertThat(window.on(() -> window.model.desks().size())).isEqualTo(2);
  }

  /** The way comes first that was gone the last time; one's own password is offered beside it. */
  @Test
  void theWayIsKeptWithTheServer() throws Exception {
    sudo.rule("# nothing for " + ACCOUNT);
    SystemSshd.setPassword(OTHER, "tern");
    DeskModel desk = open();
    ServerEntry kept = desk.entry().withWay(OTHER, WayUp.SU);
    window.run(() -> window.model.book().keep(kept, () -> {}));
    window.until("it is in the book", () -> window.model.book().find("site") != null);
    window.run(() -> desk.actAs(OTHER, RemotePath.of(settings.toString()), again -> {}));
    for (String wrong : List.of("wren", "egret", "heron")) {
      window.giveThePassword(wrong);
    }
    window.until("it is refused", () -> desk.folder().questionProperty().get() != null);
    sudo.rule(ACCOUNT + " ALL=(" + OTHER + ") ALL");
    window.choose(window.on(() -> desk.folder().questionProperty().get()), "Use my own password");
    window.giveThePassword(PASSWORD);
    rootDesk();
    window.until(
        "the other way is kept",
        () -> window.model.book().find("site").ways().get(OTHER) == WayUp.SUDO);
  }

  /** A folder that only root may read is read, and something in it deleted and put back. */
  @Test
  void aFolderThatIsClosedIsReadAsRootAndTheRightEnds() throws Exception {
    Files.setPosixFilePermissions(settings, PosixFilePermissions.fromString("rwx------"));
    DeskModel desk = open();
    window.until("it is refused", () -> desk.folder().questionProperty().get() != null);
    window.choose(window.on(() -> desk.folder().questionProperty().get()), "Do it as root");
    window.giveThePassword(PASSWORD);
    DeskModel root = rootDesk();
    window.until("it is read", () -> !root.folder().rows().isEmpty());
    window.until("it is said", () -> OffscreenWindow.seen("#stop-acting") != null);
    assertThat(root.entry().name()).isEqualTo("site as root");
    window.run(() -> ((Button) OffscreenWindow.seen("#stop-acting")).fire());
    window.until("the desk is gone", () -> window.model.desks().size() == 1);
    window.until("nothing of it runs on the server", () -> !fileServiceOfRoot());
    assertThat(desk.whoAmI().account()).isEqualTo(ACCOUNT);
    search(folder.resolve("here"));
  }

  private static boolean fileServiceOfRoot() {
    return ProcessHandle.allProcesses()
        .map(ProcessHandle::info)
        .filter(one -> one.user().orElse("").equals("root"))
        .anyMatch(one -> one.commandLine().orElse("").startsWith("/usr/lib/openssh/sftp-server"));
  }

  /** The password is in no file of this computer, and in no log of the server. */
  private static void search(Path top) throws Exception {
    try (var all = Files.walk(top)) {
      for (Path one : all.filter(Files::isRegularFile).toList()) {
        String text = new String(Files.readAllBytes(one), StandardCharsets.ISO_8859_1);
        assertThat(text).as(one.toString()).doesNotContain(PASSWORD);
      }
    }
  }
}
