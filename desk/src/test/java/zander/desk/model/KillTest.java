package zander.desk.model;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;

import java.io.BufferedReader;
import java.io.File;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Random;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import zander.core.change.Recovery;
import zander.core.connect.Connection;
import zander.core.files.RemotePath;
import zander.core.files.TreeWalk;
import zander.core.journal.FileJournal;
import zander.core.journal.JournalEntry;
import zander.core.journal.JournalRules;
import zander.core.seal.ContentSeal;
import zander.core.work.Cancellation;
import zander.desk.file.Drafts;
import zander.standin.server.Relay;

/** A program killed at random moments: the next start finds everything that was under way. */
class KillTest {
  private static final int KILLS = 6;
  private static final String TRIAL = "/home/warden/trial";

  @TempDir Path folder;

  @Test
  void losesNoEntryAndLeavesNoHalfThatIsNotFound() throws Exception {
    Random random = new Random(20261123);
    try (ModelDesk parent = new ModelDesk(folder.resolve("parent"))) {
      String key = parent.demo.keyFile().toString();
      Path work = Files.createDirectories(folder.resolve("work"));
      for (int kill = 0; kill < KILLS; kill++) {
        List<String> said = runAndKill(parent.relay, work, key, 700 + random.nextInt(3500));
        try (Connection connection = parent.connect()) {
          check(connection, work, said, "kill " + kill);
        }
      }
    }
  }

  /** What it said until it was killed, some time after its first words. */
  private static List<String> runAndKill(Relay relay, Path work, String key, int millis)
      throws Exception {
    List<String> command =
        List.of(
            Path.of(System.getProperty("java.home"), "bin", "java").toString(),
            "-cp",
            System.getProperty("surefire.test.class.path", System.getProperty("java.class.path")),
            KilledWorker.class.getName(),
            work.toString(),
            String.valueOf(relay.port()),
            key);
    File errors = work.resolve("errors").toFile();
    Process process = new ProcessBuilder(command).redirectError(errors).start();
    List<String> said = Collections.synchronizedList(new ArrayList<>());
    CompletableFuture<Void> first = new CompletableFuture<>();
    Thread reader =
        new Thread(
            () -> {
              try (BufferedReader lines = process.inputReader()) {
                for (String line; (line = lines.readLine()) != null; ) {
                  if (line.matches("(kept|did) [0-9]+ [0-9]+")) {
                    said.add(line);
                  }
                  if (line.startsWith("kept ")) {
                    first.complete(null);
                  }
                }
              } catch (IOException e) {
                // It was killed.
              }
            });
    reader.start();
    try {
      first.get(120, TimeUnit.SECONDS);
      // How long it works is the random part of the test, not something waited for.
      process.waitFor(millis, TimeUnit.MILLISECONDS);
      assertThat(process.isAlive()).as(() -> "it ended by itself: " + errors).isTrue();
    } finally {
      process.destroyForcibly().waitFor();
      reader.join();
    }
    return said;
  }

  private static void check(Connection connection, Path work, List<String> said, String what)
      throws Exception {
    Path journals = work.resolve("state/journal/warden@lab-box.riverwatch.example");
    try (FileJournal journal = new FileJournal(journals, "lab-box", JournalRules.USUAL)) {
      assertThat(journal.damaged()).as(what).isLessThanOrEqualTo(KILLS);
      assertThat(journal.entries().size()).as(what).isGreaterThanOrEqualTo(last(said, "did"));
      Recovery recovery = new Recovery(connection.files(), connection, journal);
      for (JournalEntry entry : journal.unfinished()) {
        Recovery.Finding finding = recovery.look(entry);
        assertThat(finding.state()).as(what).isNotEqualTo(Recovery.State.OTHER);
        if (finding.state() == Recovery.State.DONE || finding.mayFinish()) {
          recovery.finish(finding);
        } else {
          recovery.undo(finding);
        }
      }
      assertThat(journal.unfinished()).isEmpty();
    }
    new TreeWalk(connection.files(), new Cancellation())
        .below(
            RemotePath.of(TRIAL),
            entry -> assertThat(entry.path().wireName()).as(what).doesNotContain(".zander-"));
    checkText(connection, work, said, what);
  }

  private static int last(List<String> said, String word) {
    return said.stream()
        .filter(line -> line.startsWith(word))
        .mapToInt(line -> Integer.parseInt(line.split(" ")[1]))
        .max()
        .orElse(0);
  }

  /** What was in a draft before the kill is in one still, or on the server. */
  private static void checkText(Connection connection, Path work, List<String> said, String what)
      throws Exception {
    List<String> texts = new ArrayList<>(drafts(work));
    texts.add(
        new String(
            connection.files().readAll(RemotePath.of(TRIAL + "/index.html"), 1 << 20), UTF_8));
    int found = texts.stream().mapToInt(KillTest::numberOf).max().orElse(-1);
    assertThat(found).as(what).isGreaterThanOrEqualTo(last(said, "kept"));
  }

  /** The drafts that a worker has kept in its folder. */
  static List<String> drafts(Path work) throws IOException {
    Path drafts = work.resolve("state/drafts/warden@lab-box.riverwatch.example");
    return new Drafts(drafts, ContentSeal.ofThisRun())
        .all().stream().map(Drafts.Draft::text).toList();
  }

  /** Which of the texts that were typed this is; -1 for none of them. */
  static int numberOf(String text) {
    return text.startsWith("typed ")
        ? Integer.parseInt(text.lines().findFirst().orElseThrow().substring(6))
        : -1;
  }
}
