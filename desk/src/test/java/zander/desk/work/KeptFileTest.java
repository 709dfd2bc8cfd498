package zander.desk.work;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.core.type.TypeReference;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import java.util.TreeMap;
import java.util.concurrent.Executors;
import java.util.concurrent.ThreadPoolExecutor;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import zander.core.transfer.resume.SavedTransfer;
import zander.core.transfer.rules.ConflictRule;
import zander.desk.transfer.SavedRules;

/** Files of what was chosen: half written by hand, from another version, or damaged. */
class KeptFileTest {
  @TempDir Path folder;
  private Path path;
  private KeptFile<Map<String, Integer>> file;

  @BeforeEach
  void start() {
    path = folder.resolve("settings.json");
    file = new KeptFile<>(path, new TypeReference<>() {}, Map.of("days", 7));
  }

  @Test
  void aDamagedFileIsPutAside() throws IOException {
    Files.writeString(path, "{\"showHidden\": tru");
    file.write(Map.of("days", 7));
    assertThat(folder)
        .isDirectoryContaining(
            kept ->
                kept.toString().contains("settings.json.kept-")
                    && Files.exists(kept)
                    && kept.toFile().length() == "{\"showHidden\": tru".length());
    assertThat(file.read()).isEqualTo(Map.of("days", 7));
  }

  /** What a later version wrote and this one does not understand stays, while nobody changes it. */
  @Test
  void aValueThatIsNotUnderstoodStays() throws IOException {
    Path rules = folder.resolve("rules.json");
    Files.writeString(rules, "{\"a\": {\"links\": \"SOMEHOW\"}, \"b\": {\"links\": \"LEFT_OUT\"}}");
    KeptFile<Map<String, SavedTransfer.Kept>> kept =
        new KeptFile<>(rules, new TypeReference<>() {}, Map.of());
    Map<String, SavedTransfer.Kept> changed = new TreeMap<>(kept.read());
    changed.remove("b");
    kept.write(changed);
    assertThat(rules).content().contains("SOMEHOW").doesNotContain("LEFT_OUT");
  }

  /** A slow disk keeps one thread waiting, not one for each pixel of something dragged. */
  @Test
  void ofManyThatFollowEachOtherTheLastIsWritten() throws Exception {
    ThreadPoolExecutor workers = (ThreadPoolExecutor) Executors.newCachedThreadPool();
    Background background = new Background(Runnable::run, workers);
    KeptFile<Map<String, Integer>> slow = file;
    synchronized (slow) {
      for (int days = 1; days <= 1000; days++) {
        slow.writeSoon(Map.of("days", days), background);
      }
      assertThat(workers.getTaskCount()).isEqualTo(1);
    }
    workers.shutdown();
    assertThat(workers.awaitTermination(30, TimeUnit.SECONDS)).isTrue();
    assertThat(slow.read()).isEqualTo(Map.of("days", 1000));
    background.stop();
  }

  @Test
  void nothingIsNoSetting() throws IOException {
    Files.writeString(path, "null");
    assertThat(file.read()).isEqualTo(Map.of("days", 7));
  }

  @Test
  void rulesOfTransfersToo() throws IOException {
    Path rules = folder.resolve("rules.json");
    Files.writeString(
        rules, "{\"levels-web /srv\": {\"whenExists\": \"NEWER\", \"links\": \"SOMEHOW\"}}");
    KeptFile<Map<String, SavedTransfer.Kept>> kept =
        new KeptFile<>(rules, new TypeReference<>() {}, Map.of());
    assertThat(kept.read().get("levels-web /srv").rules())
        .isEqualTo(SavedRules.USUAL.whenExists(ConflictRule.NEWER));
  }
}
