package zander.desk;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.stream.Collectors;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Labeled;
import javafx.scene.control.TextField;
import javafx.scene.input.Clipboard;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.Test;
import zander.core.book.Mark;
import zander.core.book.ServerEntry;
import zander.desk.reach.VaultModel;
import zander.standin.world.Caller;

/** Reaching servers as a person does: the book, keys, secrets, trust, and lines that come back. */
class ReachInTheWindowTest extends ReachInTheWindowFixture {
  @Test
  void serversAreMadeFoundChangedAndRemovedWithAWayBack() throws Exception {
    window.push(KeyCode.CONTROL, KeyCode.N);
    window.fill("#draft-name", "spring gauge");
    window.press("#save-draft");
    untilShown("The host is missing");
    window.fill("#draft-host", "gauge.riverwatch.example");
    window.fill("#draft-account", "deploy");
    window.fill("#draft-port", "70000");
    window.press("#save-draft");
    untilShown("from 1 to 65535");
    window.fill("#draft-port", "2222");
    window.fill("#draft-jump", "gate");
    window.fill("#draft-group", "Public");
    window.press("#mark-trial");
    window.press("#add-folder");
    window.fill("#folder-1-path", "/srv/gauge");
    window.press("#save-draft");
    untilBook("it is saved", now -> now.named("spring gauge").isPresent());
    ServerEntry made = saved().named("spring gauge").orElseThrow();
    assertThat(made.address().toString()).isEqualTo("deploy@gauge.riverwatch.example:2222");
    assertThat(made.jump()).containsExactly("gate");
    assertThat(made.mark()).isEqualTo(Mark.TRIAL);
    assertThat(made.folders()).extracting("path").containsExactly("/srv/gauge");

    window.fill("#search", "spring trial");
    until("it alone is found", () -> window.model.book().rows().size() == 1);
    window.press("#duplicate-entry");
    window.press("#save-draft");
    untilBook("a second is there", now -> now.named("spring gauge 2").isPresent());
    window.press("#edit-entry");
    window.fill("#draft-name", "autumn gauge");
    window.press("#save-draft");
    untilBook("it has its name", now -> now.named("autumn gauge").isPresent());
    window.fill("#search", "autumn");
    window.press("#remove-entry");
    untilBook("it is gone", now -> now.named("autumn gauge").isEmpty());
    assertThat(saved().removed()).extracting(ServerEntry::name).containsExactly("autumn gauge");
    window.press("#removed-autumn-gauge");
    window.press("#put-back");
    untilBook("it is back", now -> now.named("autumn gauge").isPresent());
  }

  @Test
  void aDamagedBookIsToldAndKept() throws Exception {
    Path book = window.setup.places().book();
    Files.writeString(book, "{\"version\": 2, \"serv");
    Window.inWindow(
        () -> {
          window.model.book().read();
          return null;
        });
    untilShown("The server book could not be read");
    assertThat(book).hasContent("{\"version\": 2, \"serv");
    window.push(KeyCode.CONTROL, KeyCode.N);
    window.fill("#draft-host", "gauge.riverwatch.example");
    window.press("#save-draft");
    untilBook("the new book is written", now -> now.named("gauge.riverwatch.example").isPresent());
    try (var files = Files.list(book.getParent())) {
      assertThat(files.filter(f -> f.toString().contains(".kept-")).findFirst().orElseThrow())
          .hasContent("{\"version\": 2, \"serv");
    }
  }

  @Test
  void hostsOfTheOpenSshConfigurationStandBesideTheBook() throws Exception {
    Files.writeString(
        window.setup.home().resolve(".ssh/config"),
        "Host trial-box\n  HostName lab-box.riverwatch.example\n  User warden\n"
            + "  IdentityFile ~/.ssh/warden_ed25519\n  IdentitiesOnly yes\n  AddressFamily inet\nMatch exec x\n  User y\n");
    Window.inWindow(
        () -> {
          window.model.book().read();
          return null;
        });
    untilShown("Parts of your OpenSSH configuration are left out");
    window.press("#config-trial-box");
    until(
        "it is chosen",
        () -> window.model.book().selectedProperty().get().entry().name().equals("trial-box"));
    untilShown("not done here: AddressFamily");
    window.press("#edit-entry");
    window.press("#save-draft");
    untilBook("it is in the book", now -> now.named("trial-box").isPresent());
    window.press("#server-trial-box");
    window.press("#open-entry");
    window.press("#prompt-yes");
    until("the desk is open", () -> window.desk() != null);
    window.press("#open-server");
    window.press("#write-config");
    Path written = window.setup.places().book().resolveSibling("openssh_config");
    until("it is written", () -> Files.exists(written));
    assertThat(written).content().contains("Host readings-store\n").contains("ProxyJump gate");
  }

  @Test
  void goesThroughTheGateToTheStore() {
    window.openServer("readings-store");
    window.press("#prompt-yes");
    window.press("#prompt-yes");
    until("the desk is open", () -> window.desk() != null);
    assertThat(window.desk().folder().path().text()).isEqualTo("/srv/readings");
    untilShown("through gate");
    window.demo().server("gate").dropAll();
    until("it is away", () -> window.desk().line().awayProperty().get());
    until("it is back by itself", () -> !window.desk().line().awayProperty().get());
  }

  @Test
  void aServerThatRefusesIsToldAtItsStepAndTheReportCanBeCopied() throws Exception {
    window.openServer("flood-siren");
    untilShown("refuses connections on port 22");
    untilShown("The SSH server may be stopped");
    window.press("#copy-report");
    String report = Window.inWindow(() -> Clipboard.getSystemClipboard().getString());
    assertThat(report)
        .contains("opening flood-siren")
        .containsPattern("name +done")
        .containsPattern("port +failed")
        .contains("Connection refused")
        .doesNotContain("Exception")
        .doesNotContain("Future");
    window.press("#edit-failed");
    window.fill("#draft-host", "no-such-host.invalid");
    window.press("#save-draft");
    window.press("#open-entry");
    untilShown("No computer of the name no-such-host.invalid");
    window.fill("#search", "warden@never-seen.invalid");
    window.push(KeyCode.ENTER);
    untilShown("No computer of the name never-seen.invalid");
    window.press("#edit-failed");
    until("it is a new entry", () -> window.shownOrNull("#draft-host") != null);
    assertThat(window.text("#draft-host")).isEqualTo("never-seen.invalid");
  }

  @Test
  void aChangedHostKeyIsReplacedOnlyByWhoKnowsTheNewOne() throws Exception {
    window.openServer("mirror");
    untilShown("The host key of mirror.riverwatch.example has changed");
    until("it may not be replaced yet", () -> window.shown("#replace-key").isDisabled());
    String print = window.model.signInProperty().get().failure().shown().fingerprint();
    window.fill("#replace-proof", print.substring(print.length() - 6));
    window.press("#replace-key");
    until("the desk is open", () -> window.desk() != null);
    assertThat(Files.readAllLines(window.setup.knownHosts()))
        .filteredOn(line -> line.startsWith("mirror"))
        .hasSize(1);
    closeDesk();
    window.openServer("mirror");
    until("it is open without a question", () -> window.desk() != null);
  }

  @Test
  void aKeyIsMadePutOnAServerAndProved() throws Exception {
    openLabUploads("now");
    until("the desk is open", () -> window.desk() != null);
    window.press("#open-server");
    window.press("#page-keys");
    window.press("#make-key");
    window.fill("#key-name", "uploads");
    window.fill("#key-passphrase", PASSPHRASE);
    window.fill("#key-again", "not the same");
    untilShown("strong");
    window.press("#make-it");
    untilShown("not the same");
    window.fill("#key-again", PASSPHRASE);
    window.press("#make-it");
    until("it is shown", () -> window.shownOrNull("#public-line") != null);
    Path key = window.setup.home().resolve(".ssh/uploads");
    until("its line is shown", () -> window.text("#public-line").startsWith("ssh-ed25519 "));
    assertThat(Path.of(key + ".pub")).content().startsWith(window.text("#public-line"));
    window.press("#put-on-lab-uploads");
    untilShown("Make /home/deploy/.ssh, mode 0700");
    var world = window.world("lab-box");
    assertThat(world.list(Caller.ROOT, "/home/deploy")).doesNotContain(".ssh");
    window.press("#put-key");
    until("the passphrase is asked", () -> window.shownOrNull("#secret") != null);
    window.press("#keep-now");
    window.fill("#secret", PASSPHRASE);
    window.push(KeyCode.ENTER);
    untilShown("The key lets you in");
    assertThat(world.stat(Caller.ROOT, "/home/deploy/.ssh").mode()).isEqualTo(0700);
    assertThat(world.stat(Caller.ROOT, "/home/deploy/.ssh/authorized_keys").mode()).isEqualTo(0600);
    var signIn = saved().named("lab-uploads").orElseThrow().signIn();
    assertThat(signIn.keyFile()).isEqualTo(key.toString());
    assertThat(signIn.password()).isFalse();
  }

  @Test
  void theVaultGivesWhatItKeepsAndNothingWithoutItsPassphrase() {
    openLabUploads("vault");
    untilShown("A master passphrase for the vault");
    window.fill("#secret", MASTER);
    window.push(KeyCode.ENTER);
    untilShown("The same passphrase again");
    window.fill("#secret", "not the same");
    window.push(KeyCode.ENTER);
    untilShown("The two passphrases are not the same");
    window.fill("#secret", MASTER);
    window.push(KeyCode.ENTER);
    untilShown("The same passphrase again");
    window.fill("#secret", MASTER);
    window.push(KeyCode.ENTER);
    until("the desk is open", () -> window.desk() != null);
    closeDesk();
    window.openServer("lab-uploads");
    until("it is open without a question", () -> window.desk() != null);
    window.press("#open-server");
    window.press("#page-vault");
    untilShown("password deploy@lab-box.riverwatch.example");
    window.press("#lock-vault");
    untilShown("The vault is locked");
    window.press("#page-servers");
    window.clickOn(window.shown(".tab-close"));
    window.openServer("lab-uploads");
    untilShown("Open the vault");
    window.fill("#secret", "wrong");
    window.push(KeyCode.ENTER);
    untilShown("That does not open it");
    window.fill("#secret", MASTER);
    window.push(KeyCode.ENTER);
    until("the desk is open", () -> window.desk() != null);
    assertThat(window.model.vault().stateProperty().get()).isEqualTo(VaultModel.State.OPEN);
  }

  @Test
  void severalQuestionsAreAnsweredInTheirFields() {
    window.demo().server("lab-box").setOneTimeCode(CODE);
    window.openServer("lab-uploads");
    window.press("#prompt-yes");
    until("two are asked", () -> window.shownOrNull("#answer-2") != null);
    untilShown("The code is on your key fob.");
    window.fill("#answer-1", PASSWORD);
    window.fill("#answer-2", "wren-2");
    window.push(KeyCode.ENTER);
    untilShown("One wrong try so far");
    window.fill("#answer-1", PASSWORD);
    window.push(KeyCode.ENTER);
    window.fill("#answer-2", CODE);
    window.push(KeyCode.ENTER);
    until("the desk is open", () -> window.desk() != null);
  }

  @Test
  void aKeyFileThatOthersCanReadIsClosedFirst() throws Exception {
    Path key = window.demo().keyFile();
    Files.setPosixFilePermissions(key, PosixFilePermissions.fromString("rw-r--r--"));
    window.openServer("gate");
    window.press("#prompt-yes");
    untilShown("Others on this computer can read the key file");
    window.press("#close-key");
    until("the desk is open", () -> window.desk() != null);
    assertThat(Files.getPosixFilePermissions(key)).hasSize(2);
  }

  @Test
  void theFormShowsWhatTheEntryHas() {
    window.press("#server-lab-uploads");
    window.press("#edit-entry");
    until("the form is shown", () -> window.shownOrNull("#draft-account") != null);
    assertThat(((TextField) window.shown("#draft-account")).getText()).isEqualTo("deploy");
    assertThat(((CheckBox) window.shown("#draft-password")).isSelected()).isTrue();
    assertThat(
            window.lookup(".page-title").queryAllAs(Labeled.class).stream()
                .map(Labeled::getText)
                .collect(Collectors.toSet()))
        .contains("Edit lab-uploads");
    window.press("#cancel-draft");
    until("the entry is shown", () -> window.shownOrNull("#open-entry") != null);
  }
}
