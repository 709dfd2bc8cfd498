package zander.desk.work;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import zander.core.change.HeldThings;
import zander.core.journal.JournalRules;

/** What was chosen: half written by hand, from another version, and by a setting of tomorrow. */
class SettingsTest {
  private static final Setting<Long> TOMORROWS = Setting.number("gaugeMinutes", 15, 1);

  @TempDir Path folder;
  private final BlockingQueue<Runnable> shown = new LinkedBlockingQueue<>();
  private final ExecutorService workers = Executors.newCachedThreadPool();
  private final Background background = new Background(shown::add, workers);
  private Path path;

  @BeforeEach
  void start() {
    path = folder.resolve("settings.json");
  }

  /** What is being written comes to its end before its folder is taken away. */
  @AfterEach
  void stop() throws InterruptedException {
    workers.shutdown();
    assertThat(workers.awaitTermination(30, TimeUnit.SECONDS)).isTrue();
    background.stop();
  }

  /** This is the thread of the window: it does what comes until something holds. */
  private void until(String what, Callable<Boolean> holds) throws Exception {
    long end = System.nanoTime() + TimeUnit.SECONDS.toNanos(30);
    while (!holds.call()) {
      assertThat(System.nanoTime()).as("waited in vain until " + what).isLessThan(end);
      Runnable next = shown.poll(20, TimeUnit.MILLISECONDS);
      if (next != null) {
        next.run();
      }
    }
  }

  private Settings read() throws Exception {
    Settings read = new Settings(path, background);
    shown.take().run();
    return read;
  }

  private Settings read(String json) throws Exception {
    Files.writeString(path, json);
    return read();
  }

  private void untilWritten(String text) throws Exception {
    until(text + " is in the file", () -> contains(text));
  }

  private boolean contains(String text) throws IOException {
    // It is put aside before it is written anew.
    return Files.exists(path) && Files.readString(path).contains(text);
  }

  /** As the program of 2026-11-27 wrote it; what that one looks for stays when this one writes. */
  @Test
  void thoseOfAnOlderProgramHold() throws Exception {
    String old = Files.readString(Path.of("src/test/resources/zander/old/settings.json"));
    Settings read = read(old);
    assertThat(read.get(Settings.SHOW_HIDDEN)).isTrue();
    assertThat(read.get(Settings.FOLDERS_FIRST)).isFalse();
    assertThat(read.get(Settings.HIDDEN_COLUMNS)).containsExactly("OWNER");
    assertThat(read.now().held()).isEqualTo(new HeldThings.Rules(9, 5_000_000));
    assertThat(read.now().journal()).isEqualTo(new JournalRules(40, 7_000_000));
    read.set(Settings.DARK, true);
    untilWritten("dark");
    String now = Files.readString(path).replaceAll("\\s", "");
    for (String line : old.replaceAll("[{}\\s]", "").split(",(?=\")")) {
      assertThat(now).contains(line);
    }
  }

  @Test
  void oneFieldLeavesTheOthersAsUsual() throws Exception {
    Settings read = read("{\"showHidden\": true, \"journalDays\": null}");
    assertThat(read.get(Settings.SHOW_HIDDEN)).isTrue();
    assertThat(read.get(Settings.FOLDERS_FIRST)).isTrue();
    assertThat(read.now().held()).isEqualTo(HeldThings.Rules.USUAL);
    assertThat(read.now().journal()).isEqualTo(JournalRules.USUAL);
  }

  @Test
  void whatIsNotUnderstoodIsAsUsualAndStays() throws Exception {
    Settings read =
        read("{\"heldDays\": \"a month\", \"journalDays\": -4, \"flow\": {\"gauge\": [1]}}");
    assertThat(read.now().held()).isEqualTo(HeldThings.Rules.USUAL);
    assertThat(read.now().journal().days()).isEqualTo(1);
    read.set(Settings.HIDDEN_COLUMNS, Set.of("OWNER"));
    untilWritten("OWNER");
    assertThat(path).content().contains("a month", "gauge", "-4");
    assertThat(read().get(Settings.HIDDEN_COLUMNS)).containsExactly("OWNER");
  }

  @Test
  void aDamagedFileIsAsUsualAndPutAside() throws Exception {
    Settings read = read("{\"showHidden\": tru");
    assertThat(read.now()).isEqualTo(Settings.Values.USUAL);
    read.set(Settings.FOLDERS_FIRST, false);
    untilWritten("foldersFirst");
    assertThat(folder).isDirectoryContaining(file -> file.toString().contains(".kept-"));
    assertThat(read().get(Settings.FOLDERS_FIRST)).isFalse();
  }

  /** Whatever order the disk takes them in, the last choice is the one that is kept. */
  @Test
  void theLastOfManyChoicesIsKept() throws Exception {
    Settings read = read("{}");
    for (long i = 0; i <= 200; i++) {
      read.set(Settings.HELD_DAYS, i);
    }
    untilWritten("200");
    assertThat(path).content().contains("\"heldDays\" : 200");
  }

  /** Whoever orders a hundred thousand rows must not do so for each pixel of an edge. */
  @Test
  void whoListensHearsOfNoOtherSetting() throws Exception {
    Settings read = read("{}");
    List<Object> heard = new ArrayList<>();
    Subscriptions subscriptions = new Subscriptions();
    subscriptions.on(read.value(Settings.SHOW_HIDDEN), heard::add);
    subscriptions.on(read.value(Settings.PANEL_WIDTH), heard::add);
    for (long width = 300; width < 310; width++) {
      read.set(Settings.PANEL_WIDTH, width);
      read.set(Settings.PANEL_WIDTH, width);
    }
    read.set(Settings.SHOW_HIDDEN, true);
    assertThat(heard).hasSize(11).endsWith(309L, true);
    subscriptions.end();
    read.set(Settings.SHOW_HIDDEN, false);
    assertThat(heard).hasSize(11);
  }

  /** Nothing but the constant is needed. */
  @Test
  void aSettingIsAddedByNamingIt() throws Exception {
    Settings read = read("{\"showHidden\": true}");
    assertThat(read.get(TOMORROWS)).isEqualTo(15);
    read.set(TOMORROWS, 0L);
    untilWritten("gaugeMinutes");
    assertThat(read().get(TOMORROWS)).isEqualTo(1);
    assertThat(read().get(Settings.SHOW_HIDDEN)).isTrue();
  }
}
