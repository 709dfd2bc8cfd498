package zander.desk.kept;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import zander.core.journal.JournalRules;
import zander.core.seal.ContentSeal;
import zander.desk.line.Journals;
import zander.desk.work.Background;

/** What is kept is counted while others write there. */
class KeptModelTest {
  private static final Duration PATIENCE = Duration.ofMinutes(1);

  @TempDir Path state;
  private final BlockingQueue<Runnable> shown = new LinkedBlockingQueue<>();
  private final Background background = new Background(shown::add);

  private Journals journals() {
    return new Journals(state.resolve("journal"), background, ContentSeal.ofThisRun());
  }

  private Runnable nextShown() throws InterruptedException {
    return shown.poll(PATIENCE.toSeconds(), TimeUnit.SECONDS);
  }

  @Test
  void aCountThatEndsLateDoesNotHideALaterOne() throws Exception {
    Path draft = Files.createDirectories(state.resolve("drafts/lab-box")).resolve("1.draft");
    Files.writeString(draft, "heron");
    KeptModel kept =
        new KeptModel(state, journals(), background, () -> JournalRules.USUAL, List::of);
    kept.look();
    Runnable early = nextShown();
    Files.delete(draft);
    kept.look();
    Runnable late = nextShown();
    late.run();
    early.run();
    assertThat(kept.rowsProperty().get()).hasSize(4).allMatch(KeptModel.Row::empty);
  }

  @Test
  void whatGoesWhileItIsCountedIsNoFailure() throws Exception {
    Path drafts = Files.createDirectories(state.resolve("drafts/lab-box"));
    Files.writeString(drafts.resolve("stays.draft"), "heron");
    KeptFiles files = new KeptFiles(state, journals());
    Thread others =
        new Thread(
            () -> {
              try {
                for (int i = 0; !Thread.currentThread().isInterrupted(); i++) {
                  Path one = Files.writeString(drafts.resolve(i % 100 + ".draft"), "otter");
                  Files.delete(one);
                }
              } catch (java.io.IOException e) {
                throw new java.io.UncheckedIOException(e);
              }
            });
    others.start();
    try {
      for (int i = 0; i < 2_000; i++) {
        assertThat(files.amount(KeptFiles.Kind.DRAFTS).count()).isGreaterThanOrEqualTo(1);
      }
    } finally {
      others.interrupt();
      others.join();
    }
  }
}
