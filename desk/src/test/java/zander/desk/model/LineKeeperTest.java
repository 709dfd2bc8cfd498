package zander.desk.model;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.time.Duration;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import zander.core.files.RemotePath;

/** How a desk notices that its line died, and how it comes back. */
class LineKeeperTest {
  @TempDir Path folder;
  private ModelDesk work;
  private DeskModel desk;

  @BeforeEach
  void start() throws Exception {
    work = new ModelDesk(folder);
    desk = work.openLabBox(null, null);
  }

  @AfterEach
  void stop() throws Exception {
    work.close();
  }

  @Test
  void aLineThatDiedInSleepIsNoticedOnWaking() throws Exception {
    work.until("the delay is known", () -> desk.line().delayProperty().get() != null);
    work.relay.stallAfter(0);
    desk.line().look(System.currentTimeMillis() + Duration.ofHours(8).toMillis());
    work.until("it is seen to be dead", () -> desk.line().awayProperty().get());
    work.relay.heal();
    work.until("it is back", () -> !desk.line().awayProperty().get());
    assertThat(work.on(() -> desk.folder().path().text())).isEqualTo("/home/warden");
  }

  /** Told after some seconds, long before the line is given up, and for what it waits. */
  @Test
  void aSilentServerIsToldOf() throws Exception {
    work.until("the delay is known", () -> desk.line().delayProperty().get() != null);
    work.relay.stallAfter(0);
    work.on(
        () -> {
          desk.folder().go(RemotePath.of("/home/warden/trial"));
          return null;
        });
    work.until("it is told", () -> !desk.line().silenceProperty().get().isEmpty());
    assertThat(work.on(() -> desk.line().silenceProperty().get()))
        .startsWith("The server has not answered for ")
        .endsWith(" s. Waiting for the listing of /home/warden/trial.");
    assertThat(work.on(() -> desk.line().awayProperty().get())).isFalse();
    work.on(
        () -> {
          desk.line().dropNow();
          return null;
        });
    work.relay.heal();
    work.until("it is opened anew", () -> desk.line().awayProperty().get());
    work.until("it is back", () -> !desk.line().awayProperty().get());
    assertThat(work.on(() -> desk.line().silenceProperty().get())).isEmpty();
  }

  @Test
  void aServerThatStaysDownIsTriedWithGrowingPauses() throws Exception {
    work.demo.server("lab-box").close();
    work.until(
        "the pauses grow", () -> desk.line().wordsProperty().get().contains("Next one in 2 s"));
    work.on(
        () -> {
          desk.line().stopTrying();
          return null;
        });
    assertThat(work.on(() -> desk.line().tryingProperty().get())).isFalse();
    assertThat(work.on(() -> desk.line().awayProperty().get())).isTrue();
    assertThat(work.on(() -> desk.folder().rows().size())).isPositive();
  }

  @Test
  void whoWaitsForALineIsToldWhenTheDeskIsClosed() throws Exception {
    work.demo.server("lab-box").close();
    work.until("it is away", () -> desk.line().awayProperty().get());
    var waiting = java.util.concurrent.CompletableFuture.supplyAsync(desk.line()::awaitBack);
    work.on(
        () -> {
          work.app.close(desk);
          return null;
        });
    assertThat(waiting.get(30, java.util.concurrent.TimeUnit.SECONDS)).isFalse();
  }
}
