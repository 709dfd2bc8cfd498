package zander.desk.model;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.List;
import java.util.zip.GZIPInputStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import zander.core.files.RemotePath;
import zander.core.rights.Mode;
import zander.core.seal.ContentSeal;
import zander.core.transfer.endpoint.Direction;
import zander.core.transfer.resume.ResumeFolder;
import zander.core.transfer.resume.SavedTransfer;
import zander.core.transfer.rules.ConflictRule;
import zander.core.transfer.rules.TransferRules;
import zander.desk.file.FileModel;
import zander.desk.history.JournalModel;
import zander.desk.kept.KeptModel;
import zander.desk.reach.VaultModel;
import zander.desk.sheet.Question;
import zander.desk.transfer.TransferListModel;

/** What a desk leaves on this computer of a file that others may not read on the server. */
class SealedDeskTest {
  private static final RemotePath FILE = RemotePath.of("/home/warden/trial/index.html");
  private static final String MASTER = "weir under nine stars";
  private static final String NEW_TEXT = "token: heron-at-dusk\n";
  private static final String DRAFT = "token: otter-at-dawn\n";

  @TempDir Path folder;
  private String oldText;

  private interface Step {
    void run() throws Exception;
  }

  private static void on(ModelDesk window, Step step) throws Exception {
    window.on(
        () -> {
          step.run();
          return null;
        });
  }

  /** Opens a desk, closes the file to others, saves it and types on. */
  private FileModel work(ModelDesk window) throws Exception {
    DeskModel desk = window.openLabBox("/home/warden/trial", null);
    desk.files().setMode(FILE, new Mode(0600));
    on(window, () -> desk.openFile(FILE));
    window.until("it is open", () -> desk.currentProperty().get() instanceof FileModel);
    FileModel file = (FileModel) window.on(() -> desk.currentProperty().get());
    oldText = window.on(file::text);
    on(window, () -> file.edited(NEW_TEXT));
    on(window, file::save);
    window.until("it is saved", () -> !file.isUnsaved() && !file.busyProperty().get());
    return file;
  }

  private static void makeVault(ModelDesk window) throws Exception {
    on(window, () -> window.app.vault().make(MASTER.toCharArray(), MASTER.toCharArray()));
    window.until(
        "there is a vault",
        () -> window.app.vault().stateProperty().get() == VaultModel.State.OPEN);
    window.until("it has the key", () -> window.app.vault().names().size() == 1);
  }

  /** All that is on this computer, packed contents unpacked. */
  private String onTheDisk() throws IOException {
    StringBuilder all = new StringBuilder();
    List<Path> files;
    try (var walk = Files.walk(folder.resolve("state"))) {
      files = walk.filter(Files::isRegularFile).toList();
    }
    for (Path file : files) {
      byte[] bytes = Files.readAllBytes(file);
      if (file.toString().endsWith(".gz")) {
        bytes = new GZIPInputStream(new ByteArrayInputStream(bytes)).readAllBytes();
      }
      all.append(new String(bytes, StandardCharsets.UTF_8)).append('\n');
    }
    return all.toString();
  }

  private KeptModel.Row kept(ModelDesk window, String id) throws Exception {
    on(window, window.app.kept()::look);
    window.until("it is counted", () -> !window.app.kept().rowsProperty().get().isEmpty());
    return window.on(
        () ->
            window.app.kept().rowsProperty().get().stream()
                .filter(row -> row.id().equals(id))
                .findFirst()
                .orElseThrow());
  }

  @Test
  void withoutAVaultNothingOfAClosedFileIsInClearAndItIsSaid() throws Exception {
    try (ModelDesk window = new ModelDesk(folder)) {
      FileModel file = work(window);
      assertThat(window.on(file.stateProperty()::get)).contains("put back until Zander ends");
      on(window, () -> file.edited(DRAFT));
      window.until(
          "it is told", () -> file.stateProperty().get().contains("no draft without a vault"));
      assertThat(onTheDisk()).doesNotContain(oldText.strip()).doesNotContain("otter");
      assertThat(kept(window, "versions").amount()).startsWith("1 version").endsWith(", sealed");
      makeVault(window);
      on(window, () -> file.edited(DRAFT + "more"));
      window.until("a draft is kept", () -> hasDraft());
      assertThat(onTheDisk()).doesNotContain(oldText.strip()).doesNotContain("otter");
    }
  }

  private boolean hasDraft() {
    return hasDraft(Instant.EPOCH);
  }

  private boolean hasDraft(Instant since) {
    try (var walk = Files.walk(folder.resolve("state"))) {
      for (Path file : walk.filter(one -> one.toString().endsWith(".draft")).toList()) {
        if (Files.getLastModifiedTime(file).toInstant().isAfter(since)) {
          return true;
        }
      }
      return false;
    } catch (IOException e) {
      throw new AssertionError(e);
    }
  }

  @Test
  void whatAnEarlierRunKeptAsksForTheVaultOnce() throws Exception {
    try (ModelDesk window = new ModelDesk(folder)) {
      makeVault(window);
      FileModel file = work(window);
      assertThat(window.on(file.stateProperty()::get)).isEqualTo("saved to the server");
      on(window, () -> file.edited(DRAFT));
      window.until("a draft is kept", () -> hasDraft());
      assertThat(onTheDisk()).doesNotContain(oldText.strip()).doesNotContain("otter");
    }
    try (ModelDesk window = new ModelDesk(folder)) {
      DeskModel desk = window.openLabBox("/home/warden/trial", null);
      window.until("the draft is offered", () -> desk.folder().questionProperty().get() != null);
      assertThat(window.prompts.asked).hasValue(0);
      JournalModel journal = window.on(() -> new JournalModel(desk));
      window.until("it is read", () -> !journal.entries().isEmpty());
      on(window, () -> journal.select(journal.entries().get(0)));
      window.until("it is said to be sealed", () -> journal.sealedProperty().get());
      on(window, journal::openVault);
      window.until("who keeps it closed is told", () -> journal.questionProperty().get() != null);
      assertThat(journal.questionProperty().get().said().headline()).contains("vault is closed");

      window.prompts.secret = MASTER;
      on(window, journal::openVault);
      window.until("it is not sealed any more", () -> !journal.sealedProperty().get());
      assertThat(window.prompts.asked).hasValue(2);
      assertThat(desk.journal().contentBefore(desk.journal().entries().get(0)))
          .asString(StandardCharsets.UTF_8)
          .isEqualTo(oldText);
      Question offer = window.on(() -> desk.folder().questionProperty().get());
      on(window, () -> offer.choices().get(0).chosen().accept(false));
      window.until("the draft is open", () -> desk.currentProperty().get() instanceof FileModel);
      FileModel file = (FileModel) window.on(() -> desk.currentProperty().get());
      window.until("it has the text", () -> DRAFT.equals(file.draftedProperty().get()));
      assertThat(window.prompts.asked).as("asked once").hasValue(2);
    }
  }

  @Test
  void listsOfTransfersAreSealedAndOpenedWithTheVault() throws Exception {
    ResumeFolder logs;
    try (ModelDesk window = new ModelDesk(folder)) {
      makeVault(window);
      logs = new ResumeFolder(folder.resolve("state/transfers"), sealOf(window));
      logs.begin(saved()).close();
      assertThat(onTheDisk()).doesNotContain("/srv/levels/secret-place");
    }
    try (ModelDesk window = new ModelDesk(folder)) {
      DeskModel desk = window.openLabBox("/home/warden/trial", null);
      on(window, () -> desk.transfers().openList());
      TransferListModel list =
          window.on(() -> desk.openSheets().of(TransferListModel.class).get(0));
      window.until("it is counted", () -> list.sealedProperty().get() == 1);
      assertThat(list.beforeProperty().get()).isEmpty();
      window.prompts.secret = MASTER;
      on(window, list::openSealed);
      window.until("it is listed", () -> list.beforeProperty().get().size() == 1);
      assertThat(list.sealedProperty().get()).isZero();
    }
  }

  private static ContentSeal sealOf(ModelDesk window) {
    return window.app.keptTransfers().folder().seal();
  }

  private static SavedTransfer saved() {
    return new SavedTransfer(
        "1-0badcafe",
        System.currentTimeMillis(),
        "lab-box",
        Direction.SEND_UP,
        "/home/warden",
        "/srv/levels/secret-place",
        List.of("pages"),
        "0badcafe",
        SavedTransfer.Kept.of(TransferRules.of(ConflictRule.REPLACE)));
  }

  @Test
  void allOfItCanBeSeenAndEmptied() throws Exception {
    try (ModelDesk window = new ModelDesk(folder)) {
      makeVault(window);
      FileModel file = work(window);
      // On a slow machine there was one of the text before: it is written once more, later.
      Instant before = Instant.now().minusMillis(10);
      on(window, () -> file.edited(DRAFT));
      window.until("a draft is kept", () -> hasDraft(before));
      new ResumeFolder(folder.resolve("state/transfers"), sealOf(window)).begin(saved()).close();
      for (String id : List.of("versions", "history", "drafts", "transfers")) {
        KeptModel.Row row = kept(window, id);
        assertThat(row.empty()).as(id).isFalse();
        assertThat(row.amount()).doesNotContain("not sealed");
        on(window, () -> window.app.kept().askToEmpty(row));
        Question asked = window.on(() -> window.app.kept().questionProperty().get());
        on(window, () -> asked.choices().get(0).chosen().accept(false));
        window.until(id + " is empty", () -> isEmpty(window, id));
      }
      assertThat(window.on(() -> window.app.desks().get(0).journal().entries())).isEmpty();
    }
  }

  private static boolean isEmpty(ModelDesk window, String id) {
    return window.app.kept().rowsProperty().get().stream()
        .anyMatch(row -> row.id().equals(id) && row.empty());
  }
}
