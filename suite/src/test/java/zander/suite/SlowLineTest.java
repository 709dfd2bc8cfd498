package zander.suite;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.List;
import java.util.Random;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import zander.core.connect.Connection;
import zander.core.files.RemotePath;
import zander.core.journal.Journal;
import zander.core.phrase.CarrierPhrase;
import zander.core.transfer.Transfer;
import zander.core.transfer.local.LocalEndpoint;
import zander.core.transfer.progress.Progress;
import zander.core.transfer.progress.Progress.Phase;
import zander.core.transfer.remote.RemoteEndpoint;
import zander.core.transfer.rules.ConflictRule;
import zander.core.transfer.server.SharedConnectionChannels;
import zander.core.work.Cancellation;
import zander.standin.server.Relay;

/**
 * Over a line of a few megabytes a second, what becomes smaller is compressed, and only that: once
 * the line was found slow, so that what is under way by then goes as it is.
 */
@Timeout(value = 90, unit = TimeUnit.SECONDS)
class SlowLineTest {
  private static final int FILES = 2000;
  private static final int FILE_BYTES = 3000;
  private static final long RATE = 3 << 20;

  private static final String TAR =
      """
      #!/bin/sh
      PATH=/usr/bin:/bin
      [ -e %1$s/cut ] || exec tar "$@"
      case "$*" in
        *-x*) head -c 60000 | tar "$@";;
        *) tar "$@" | head -c 60000;;
      esac
      """;

  @TempDir static Path folder;
  private static SystemSshd sshd;
  private static Path tools;
  private static int count;

  @BeforeAll
  static void start() throws Exception {
    Assumptions.assumeTrue(SystemSshd.isPossible(), "needs openssh-server, and to be root");
    tools = Files.createDirectories(folder.resolve("tools"));
    Path tar = Files.writeString(tools.resolve("tar"), String.format(TAR, tools));
    Files.setPosixFilePermissions(tar, PosixFilePermissions.fromString("rwxr-xr-x"));
    sshd = new SystemSshd(folder, List.of(), List.of("SetEnv PATH=" + tools + ":/usr/bin:/bin"));
    Random random = new Random(3);
    for (int i = 0; i < FILES; i++) {
      StringBuilder text = new StringBuilder();
      while (text.length() < FILE_BYTES) {
        text.append("2026-11-24,station-").append(i).append(",level,");
        text.append(random.nextInt(1000)).append("\n");
      }
      byte[] noise = new byte[FILE_BYTES / 2];
      random.nextBytes(noise);
      write("text", i, text.toString().getBytes(UTF_8));
      write("noise", i, noise);
    }
  }

  private static void write(String tree, int number, byte[] content) throws Exception {
    Path in = Files.createDirectories(folder.resolve("from").resolve(tree));
    Files.write(in.resolve("station-" + number), content);
  }

  @AfterAll
  static void stop() throws Exception {
    if (sshd != null) {
      sshd.close();
    }
  }

  private record Transferred(Progress progress, long wire) {}

  /** Transfers a tree over the line, and compares it. */
  private static Transferred transfer(Connection connection, Relay relay, String tree, boolean up)
      throws Exception {
    Path from = folder.resolve("from");
    Path to = Files.createDirectory(folder.resolve("to-" + ++count));
    RemoteEndpoint there =
        new RemoteEndpoint(
                new SharedConnectionChannels(() -> connection),
                RemotePath.of((up ? to : from).toString()),
                Journal.NONE,
                null)
            .withFolders();
    LocalEndpoint here = new LocalEndpoint(up ? from : to);
    long before = relay.carried();
    Progress progress =
        new Transfer(
                up ? here : there,
                up ? there : here,
                ConflictRule.ASK,
                question -> null,
                new Cancellation())
            .run(List.of(tree));
    assertThat(progress.problems()).isEmpty();
    assertThat(LargeTree.describe(to.resolve(tree)))
        .isEqualTo(LargeTree.describe(from.resolve(tree)));
    return new Transferred(progress, relay.carried() - before);
  }

  @BeforeEach
  void makeWhole() throws Exception {
    Files.deleteIfExists(tools.resolve("cut"));
  }

  /** The shell around it goes on, and has nothing more to say. */
  @ParameterizedTest
  @ValueSource(booleans = {true, false})
  void aTarThatEndsWhileItIsFedIsNotWaitedFor(boolean up) throws Exception {
    try (Relay relay = new Relay(sshd.port());
        Connection connection = sshd.openThrough("root", relay.port())) {
      relay.slow(RATE);
      transfer(connection, relay, "text", up);
      Files.createFile(tools.resolve("cut"));
      assertThat(transfer(connection, relay, "text", up).progress().phase()).isEqualTo(Phase.DONE);
    }
  }

  @ParameterizedTest
  @ValueSource(booleans = {true, false})
  void textIsCompressedAndNoiseIsNot(boolean up) throws Exception {
    try (Relay relay = new Relay(sshd.port());
        Connection connection = sshd.openThrough("root", relay.port())) {
      relay.slow(RATE);
      // This one finds out, and goes as it is meanwhile.
      transfer(connection, relay, "text", up);
      Transferred text = transfer(connection, relay, "text", up);
      assertThat(text.progress().carrier().values())
          .contains(CarrierPhrase.SMALL_PACKED_COMPRESSED.of());
      assertThat(text.wire()).isLessThan(text.progress().bytes() * 3 / 4);
      Transferred noise = transfer(connection, relay, "noise", up);
      assertThat(noise.wire()).isGreaterThan(noise.progress().bytes());
    }
  }
}
