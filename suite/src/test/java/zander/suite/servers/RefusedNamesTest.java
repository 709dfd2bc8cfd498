package zander.suite.servers;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Instant;
import java.util.List;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import zander.core.connect.Connection;
import zander.core.journal.Journal;
import zander.core.phrase.CarrierPhrase;
import zander.core.transfer.Transfer;
import zander.core.transfer.local.LocalEndpoint;
import zander.core.transfer.progress.Progress;
import zander.core.transfer.remote.RemoteEndpoint;
import zander.core.transfer.rules.ConflictRule;
import zander.core.transfer.server.SharedConnectionChannels;
import zander.core.work.Cancellation;
import zander.desk.words.Phrases;
import zander.suite.SystemSshd;

/** Names that one of the two ends cannot have: told by name, and nothing else stays behind. */
@Timeout(value = 60, unit = TimeUnit.SECONDS)
class RefusedNamesTest {
  @TempDir static Path folder;
  @TempDir Path local;
  private static OpenServer server;

  @BeforeAll
  static void start() throws Exception {
    Assumptions.assumeTrue(
        SystemSshd.isPossible() && Files.exists(Path.of("/usr/sbin/mount.exfat-fuse")),
        "needs exfat-fuse and exfatprogs, and to be root");
    server = Mounts.exFat(folder);
  }

  @AfterAll
  static void stop() throws Exception {
    if (server != null) {
      server.stop().run();
    }
  }

  @Test
  void oneRefusedNameStopsNoOther() throws Exception {
    Path tree = Files.createDirectories(local.resolve("tree"));
    for (int i = 0; i < 60; i++) {
      Path page = Files.writeString(tree.resolve("page-" + i), "level " + i);
      // The file system there keeps no time that it is given, and that is no fault of the page.
      Files.setLastModifiedTime(page, FileTime.from(Instant.parse("2026-03-01T06:00:00Z")));
    }
    Files.writeString(tree.resolve("10:00.html"), "no colon there");
    SystemSshd.run("bash", "-c", "echo x > \"$0\"/$'p\\344gel'", tree.toString());
    try (Connection connection = server.connecting().open()) {
      RemoteEndpoint side =
          new RemoteEndpoint(
              new SharedConnectionChannels(() -> connection), server.remote(), Journal.NONE, null);
      Progress progress =
          new Transfer(new LocalEndpoint(local), side, ConflictRule.ASK, null, new Cancellation())
              .run(List.of("tree"));
      assertThat(progress.problems()).hasSize(2);
      assertThat(progress.problems())
          .anyMatch(problem -> problem.path().contains("10:00"))
          .anyMatch(problem -> Phrases.say(problem.why()).contains("not UTF-8"));
      assertThat(side.carrier().is(CarrierPhrase.PACKED)).isTrue();
    }
    assertThat(server.disk().resolve("tree").toFile().list()).hasSize(60);
    assertThat(Files.readString(server.disk().resolve("tree/page-59"), StandardCharsets.UTF_8))
        .isEqualTo("level 59");
  }
}
