package zander.desk.model;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.time.Duration;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import zander.core.files.RemotePath;
import zander.core.journal.JournalEntry;
import zander.desk.history.JournalModel;
import zander.desk.sheet.Question;
import zander.desk.sheet.Texts;
import zander.standin.world.Caller;
import zander.standin.world.World;

/** Rights of many files: how far it is, and a stop that leaves each with its old or new ones. */
class RightsOfManyTest {
  private static final String FOLDER = "/home/warden/many";
  private static final int FILES = 5_000;

  @TempDir Path folder;
  private ModelDesk work;
  private DeskModel desk;
  private World world;

  @BeforeEach
  void open() throws Exception {
    work = new ModelDesk(folder);
    world = work.demo.server("lab-box").machine().world();
    desk = work.openLabBox("/home/warden", null);
    world.mkdir(Caller.ROOT, FOLDER, 0755);
    world.chown(Caller.ROOT, FOLDER, 1004, 1004, false);
    int uid = desk.whoAmI().uid();
    for (int i = 0; i < FILES; i++) {
      world.open(
          Caller.ROOT, FOLDER + "/f" + i, new World.Open(false, true, true, true, false, 0644));
      world.chown(Caller.ROOT, FOLDER + "/f" + i, uid, uid, false);
    }
    work.on(
        () -> {
          desk.folder().go(RemotePath.of(FOLDER));
          return null;
        });
    work.until("all are listed", () -> desk.folder().rows().size() == FILES);
  }

  @AfterEach
  void close() throws Exception {
    work.close();
  }

  private boolean isChanged(long count) {
    try {
      return changed() == count;
    } catch (Exception e) {
      throw new IllegalStateException(e);
    }
  }

  private static int listed(JournalModel journal) {
    return journal.entries().size();
  }

  private static String said(JournalModel journal) {
    Question asked = journal.questionProperty().get();
    return asked == null ? "" : asked.said().headline();
  }

  private long changed() throws Exception {
    long count = 0;
    for (int i = 0; i < FILES; i++) {
      count += (world.stat(Caller.ROOT, FOLDER + "/f" + i).fullMode() & 0777) == 0600 ? 1 : 0;
    }
    return count;
  }

  @Test
  void tellsHowFarItIsAndStops() throws Exception {
    work.on(
        () -> {
          desk.folder().select(desk.folder().rows());
          return null;
        });
    work.until("they are looked through", () -> desk.rights().entries().size() == FILES);
    work.demo.server("lab-box").faults().setDelay(Duration.ofMillis(2));
    work.on(
        () -> {
          desk.rights().typeOctal("0600");
          desk.rights().apply();
          return null;
        });
    work.until(
        "it tells how far it is",
        () -> desk.rights().outcomeProperty().get().matches("setting, [0-9,]+ of 5,000"));
    work.on(
        () -> {
          desk.rights().stop();
          return null;
        });
    work.until("it ended", () -> !desk.rights().busyProperty().get());
    assertThat(work.on(() -> desk.rights().outcomeProperty().get())).startsWith("stopped: ");
    assertThat(changed()).isBetween(1L, FILES - 1L);
    assertThat(desk.journal().entries())
        .extracting(JournalEntry::group)
        .as("one change in the journal")
        .doesNotContain(0L)
        .containsOnly(desk.journal().entries().get(0).group());
    long set = changed();
    JournalModel journal = work.on(() -> new JournalModel(desk));
    work.until("it is listed as one", () -> journal.entries().size() == 1);
    JournalEntry one = journal.entries().get(0);
    assertThat(journal.where(one)).endsWith(" and " + Texts.count(set - 1) + " more");
    work.demo.server("lab-box").faults().setDelay(Duration.ZERO);
    // One of them goes back alone: the rest stays one, and can go back still.
    JournalEntry last = desk.journal().entries().get((int) set - 1);
    work.on(
        () -> {
          journal.putBack(last);
          return null;
        });
    work.until("one is put back", () -> isChanged(set - 1));
    work.until("and told apart", () -> listed(journal) == 3);
    work.on(
        () -> {
          journal.putBack(one);
          journal.questionProperty().get().choices().get(0).chosen().accept(false);
          return null;
        });
    work.until("it is put back", () -> said(journal).startsWith(Texts.count(set - 1, "change")));
    assertThat(changed()).isZero();
    // What was set, and that it was put back: not a line for each.
    work.until("it is two lines", () -> listed(journal) == 2);
  }
}
