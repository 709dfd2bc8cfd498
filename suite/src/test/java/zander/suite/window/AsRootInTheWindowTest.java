package zander.suite.window;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
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
import zander.core.files.RemotePath;
import zander.core.journal.ChangeKind;
import zander.core.journal.JournalEntry;
import zander.desk.file.FileModel;
import zander.desk.history.JournalModel;
import zander.desk.model.DeskModel;
import zander.desk.sheet.Question;
import zander.suite.SystemSshd;
import zander.suite.SystemSudo;

/** An administrator's ordinary work as root, in the window, by the system's own sudo. */
@Timeout(value = 240, unit = TimeUnit.SECONDS)
class AsRootInTheWindowTest {
  private static final String ACCOUNT = "zndasroot";
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
    server = new SystemSshd(folder, List.of(ACCOUNT), List.of());
    SystemSudo.password(ACCOUNT, PASSWORD);
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

  private void giveThePassword(String password) throws Exception {
    window.until("it is asked for", () -> seen("#secret") != null);
    window.run(
        () -> {
          ((PasswordField) seen("#secret")).setText(password);
          ((Button) seen("#prompt-yes")).fire();
        });
  }

  /** On the interface thread: a part of the window if it can be seen, else {@code null}. */
  private static Node seen(String id) {
    Node node =
        javafx.stage.Window.getWindows().stream()
            .map(one -> one.getScene().lookup(id))
            .filter(java.util.Objects::nonNull)
            .findFirst()
            .orElse(null);
    for (Node at = node; at != null; at = at.getParent()) {
      if (!at.isVisible()) {
        return null;
      }
    }
    return node;
  }

  private FileModel openFile(DeskModel desk) throws Exception {
    window.run(() -> desk.openFile(RemotePath.of(file.toString())));
    window.until("it is open", () -> desk.currentProperty().get() instanceof FileModel);
    return (FileModel) window.on(() -> desk.currentProperty().get());
  }

  private void choose(Question question, String words) throws Exception {
    window.run(
        () ->
            question.choices().stream()
                .filter(choice -> choice.words().equals(words))
                .findFirst()
                .orElseThrow()
                .chosen()
                .accept(false));
  }

  /** A save that is refused goes on as root, with the text that was typed. */
  @Test
  void aRefusedSaveGoesOnAsRoot() throws Exception {
    DeskModel desk = open();
    FileModel mine = openFile(desk);
    window.run(() -> mine.edited("level 4\n"));
    window.run(mine::save);
    window.until("it is refused", () -> mine.questionProperty().get() != null);
    Question refused = window.on(() -> mine.questionProperty().get());
    choose(refused, "Go on as root");
    giveThePassword("wren");
    window.until(
        "it is asked again",
        () -> {
          Node field = seen("#secret");
          return field != null && ((PasswordField) field).getText().isEmpty();
        });
    giveThePassword(PASSWORD);
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

    window.run(() -> root.openJournal());
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

  /** A folder that only root may read is read, and something in it deleted and put back. */
  @Test
  void aFolderThatIsClosedIsReadAsRootAndTheRightEnds() throws Exception {
    Files.setPosixFilePermissions(settings, PosixFilePermissions.fromString("rwx------"));
    DeskModel desk = open();
    window.until("it is refused", () -> desk.folder().questionProperty().get() != null);
    choose(window.on(() -> desk.folder().questionProperty().get()), "Do it as root");
    giveThePassword(PASSWORD);
    DeskModel root = rootDesk();
    window.until("it is read", () -> !root.folder().rows().isEmpty());
    window.until("it is said", () -> seen("#stop-acting") != null);
    assertThat(root.entry().name()).isEqualTo("site as root");
    window.run(() -> ((Button) seen("#stop-acting")).fire());
    window.until("the desk is gone", () -> window.model.desks().size() == 1);
    assertThat(
            SystemSshd.run("sh", "-c", "pgrep -u root -f '^/usr/lib/openssh/sftp-server' || true"))
        .as("nothing of it runs on the server")
        .isEmpty();
    assertThat(desk.whoAmI().account()).isEqualTo(ACCOUNT);
    search(folder.resolve("here"));
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
