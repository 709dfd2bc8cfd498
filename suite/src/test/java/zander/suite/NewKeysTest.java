package zander.suite;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Random;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import zander.core.connect.Connection;
import zander.core.files.RemotePath;
import zander.core.journal.Journal;
import zander.core.transfer.Transfer;
import zander.core.transfer.local.LocalEndpoint;
import zander.core.transfer.remote.RemoteEndpoint;
import zander.core.transfer.rules.ConflictRule;
import zander.core.transfer.server.SharedConnectionChannels;
import zander.core.work.Cancellation;

/**
 * A server that wants new keys (RFC 4253, section 9) again and again in the middle of transfers,
 * whose packets are read and written by ways of our own.
 */
@Timeout(value = 120, unit = TimeUnit.SECONDS)
class NewKeysTest {
  private static final String EACH = "2M";

  @TempDir static Path folder;
  private static SystemSshd sshd;
  private static Path from;
  private static int count;

  @BeforeAll
  static void start() throws Exception {
    Assumptions.assumeTrue(SystemSshd.isPossible(), "needs openssh-server, and to be root");
    sshd = new SystemSshd(folder, List.of(), List.of("RekeyLimit " + EACH, "LogLevel DEBUG1"));
    from = Files.createDirectories(folder.resolve("from/tree")).getParent();
    Random random = new Random(9);
    byte[] large = new byte[24 << 20];
    random.nextBytes(large);
    Files.write(from.resolve("tree/large"), large);
    byte[] small = new byte[6000];
    for (int i = 0; i < 1500; i++) {
      random.nextBytes(small);
      Files.write(from.resolve("tree/reading-" + i), small);
    }
  }

  @AfterAll
  static void stop() throws Exception {
    if (sshd != null) {
      sshd.close();
    }
  }

  @ParameterizedTest
  @ValueSource(strings = {"up", "down", "up by files", "down by files"})
  void nothingIsLostOverThem(String way) throws Exception {
    boolean up = way.startsWith("up");
    Path to = Files.createDirectory(folder.resolve("to-" + ++count));
    int before = exchanges();
    try (Connection connection = sshd.open("root")) {
      RemoteEndpoint there =
          new RemoteEndpoint(
              new SharedConnectionChannels(() -> connection),
              RemotePath.of((up ? to : from).toString()),
              Journal.NONE,
              null);
      RemoteEndpoint side = (way.endsWith("files") ? there.byFilesAlone() : there).withFolders();
      LocalEndpoint here = new LocalEndpoint(up ? from : to);
      assertThat(
              new Transfer(
                      up ? here : side,
                      up ? side : here,
                      ConflictRule.ASK,
                      PathContract.NEVER_ASKED,
                      new Cancellation())
                  .run(List.of("tree"))
                  .problems())
          .isEmpty();
    }
    assertThat(LargeTree.describe(to.resolve("tree")))
        .isEqualTo(LargeTree.describe(from.resolve("tree")));
    // The first belongs to the beginning of the session.
    assertThat(exchanges() - before).isGreaterThan(4);
  }

  private static int exchanges() throws Exception {
    return sshd.log().split("SSH2_MSG_NEWKEYS received", -1).length - 1;
  }
}
