package zander.desk.template;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import zander.desk.template.Templates.Template;
import zander.desk.work.Background;

class TemplatesTest {
  private static final String GATE = "warden@gate.example";
  private static final String STORE = "warden@store.example";

  @TempDir Path folder;

  private final BlockingQueue<Runnable> shown = new LinkedBlockingQueue<>();
  private final ExecutorService workers = Executors.newCachedThreadPool();
  private final Background background = new Background(shown::add, workers);

  /** Once all is written: the folder goes then. */
  @AfterEach
  void stop() throws InterruptedException {
    workers.shutdown();
    assertThat(workers.awaitTermination(30, TimeUnit.SECONDS)).isTrue();
    background.stop();
  }

  /** With both of its files read. */
  private Templates templates() throws InterruptedException {
    Templates made = new Templates(folder, background);
    for (int files = 0; files < 2; files++) {
      Runnable read = shown.poll(30, TimeUnit.SECONDS);
      assertThat(read).isNotNull();
      read.run();
    }
    return made;
  }

  @Test
  void serversHaveTheirOwnOfOneName() throws Exception {
    Templates kept = templates();
    Template all = new Template("", "/srv", "a.html", "all");
    Template own = new Template(GATE, "/srv", "a.html", "own");
    kept.keep("page", all);
    kept.keep("page", own);
    assertThat(kept.names(GATE)).containsExactly("page");
    assertThat(kept.template(GATE, "page")).isEqualTo(own);
    assertThat(kept.template(STORE, "page")).isEqualTo(all);
    kept.remove("page", own);
    assertThat(kept.template(GATE, "page")).isEqualTo(all);
  }

  /** Under its name alone. */
  @Test
  void oneOfAServerFromAVersionBeforeIsFoundAndLeavesForGood() throws Exception {
    Files.writeString(
        folder.resolve("templates.json"),
        "{\"page\":{\"server\":\""
            + GATE
            + "\",\"folder\":\"/srv\",\"file\":\"a\",\"text\":\"x\"}}");
    Templates kept = templates();
    Template before = new Template(GATE, "/srv", "a", "x");
    assertThat(kept.names(GATE)).containsExactly("page");
    assertThat(kept.template(GATE, "page")).isEqualTo(before);
    assertThat(kept.names(STORE)).isEmpty();
    assertThat(kept.template(STORE, "page")).isNull();
    kept.remove("page", before);
    assertThat(kept.names(GATE)).isEmpty();
  }
}
