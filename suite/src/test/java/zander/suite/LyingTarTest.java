package zander.suite;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.ByteBuffer;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import zander.core.connect.Connection;
import zander.core.files.RemotePath;
import zander.core.journal.Journal;
import zander.core.transfer.Transfer;
import zander.core.transfer.endpoint.Source;
import zander.core.transfer.endpoint.Target;
import zander.core.transfer.local.LocalEndpoint;
import zander.core.transfer.progress.Progress;
import zander.core.transfer.remote.RemoteEndpoint;
import zander.core.transfer.rules.ConflictRule;
import zander.core.transfer.server.SharedConnectionChannels;
import zander.core.work.Cancellation;

/** A server whose {@code tar} does not do what it says: everything is transferred all the same. */
@Timeout(value = 90, unit = TimeUnit.SECONDS)
class LyingTarTest {
  private static final int FILES = 400;
  private static final String TAR =
      """
      #!/bin/sh
      case "$1" in --version) exec /usr/bin/tar --version;; esac
      case "$(cat %1$s/how)" in
        garbage) head -c 300000 /dev/zero | tr '\\0' x;;
        endless) exec yes;;
        names)
          case "$*" in
            *-x*) echo ./other; echo ./names; exec cat > /dev/null;;
            *) exec /usr/bin/tar "$@";;
          esac;;
        otherwise) exec /usr/bin/tar "$@";;
        dies) exit 1;;
        cut)
          case "$*" in
            *-x*) head -c 60000 | /usr/bin/tar "$@";;
            *) /usr/bin/tar "$@" | head -c 60000;;
          esac;;
        stops) kill -9 $$;;
        missing) exit 127;;
        mute) exec cat > /dev/null;;
      esac
      """;

  @TempDir static Path folder;
  private static SystemSshd sshd;
  private static Path tools;

  @BeforeAll
  static void start() throws Exception {
    Assumptions.assumeTrue(SystemSshd.isPossible(), "needs openssh-server, and to be root");
    tools = Files.createDirectories(folder.resolve("tools"));
    Path tar = tools.resolve("tar");
    Files.writeString(tar, String.format(TAR, tools));
    Files.setPosixFilePermissions(tar, PosixFilePermissions.fromString("rwxr-xr-x"));
    sshd =
        new SystemSshd(
            folder, List.of("zndliar"), List.of("SetEnv PATH=" + tools + ":/usr/bin:/bin"));
  }

  @AfterAll
  static void stop() throws Exception {
    if (sshd != null) {
      sshd.close();
    }
  }

  @ParameterizedTest
  @ValueSource(
      strings = {"garbage", "endless", "names", "otherwise", "dies", "cut", "stops", "missing"})
  void allCrosses(String how) throws Exception {
    Files.writeString(tools.resolve("how"), how);
    Path here = Files.createDirectories(folder.resolve("here-" + how + "/tree"));
    Random random = new Random(how.hashCode());
    for (int i = 0; i < FILES; i++) {
      byte[] content = new byte[random.nextInt(3000)];
      random.nextBytes(content);
      Files.write(here.resolve("reading " + i), content);
    }
    Path there = folder.resolve("zndliar/" + how);
    Files.createDirectory(there);
    SystemSshd.run("chown", "zndliar:", there.toString());
    Path back = Files.createDirectory(folder.resolve("back-" + how));
    Path early = Files.createDirectory(folder.resolve("early-" + how));
    try (Connection connection = sshd.open("zndliar")) {
      transfer(new LocalEndpoint(here.getParent()), remote(connection, there));
      assertThat(contents(there)).isEqualTo(contents(here.getParent()));
      transfer(remote(connection, there), new LocalEndpoint(back));
      assertThat(contents(back)).isEqualTo(contents(here.getParent()));
      // With files that come before they are asked for.
      transfer(remote(connection, there).withFolders(), new LocalEndpoint(early));
      assertThat(contents(early)).isEqualTo(contents(here.getParent()));
    }
  }

  @Test
  void oneThatSaysNothingIsNotWaitedForAfterAStop() throws Exception {
    Files.writeString(tools.resolve("how"), "mute");
    Path here = Files.createDirectories(folder.resolve("here-mute/tree"));
    for (int i = 0; i < FILES; i++) {
      Files.writeString(here.resolve("reading " + i), "level " + i);
    }
    Path there = folder.resolve("zndliar/mute");
    Files.createDirectory(there);
    SystemSshd.run("chown", "zndliar:", there.toString());
    try (Connection connection = sshd.open("zndliar")) {
      Cancellation stop = new Cancellation();
      Transfer transfer =
          new Transfer(
              new LocalEndpoint(here.getParent()),
              remote(connection, there),
              ConflictRule.ASK,
              question -> null,
              stop);
      CompletableFuture<Progress> end =
          CompletableFuture.supplyAsync(() -> transfer.run(List.of("tree")));
      while (!transfer.progress().current().contains("reading")) {
        Thread.onSpinWait();
      }
      stop.stop();
      assertThat(end.get().phase()).isEqualTo(Progress.Phase.STOPPED);
    }
  }

  private static RemoteEndpoint remote(Connection connection, Path path) {
    return new RemoteEndpoint(
        new SharedConnectionChannels(() -> connection),
        RemotePath.of(path.toString()),
        Journal.NONE,
        null);
  }

  private static void transfer(Source from, Target to) {
    Progress progress =
        new Transfer(from, to, ConflictRule.ASK, question -> null, new Cancellation())
            .run(List.of("tree"));
    assertThat(progress.problems()).isEmpty();
    assertThat(progress.phase()).isEqualTo(Progress.Phase.DONE);
  }

  /** Every name below, so that a temporary file that was left shows too. */
  private static Map<String, ByteBuffer> contents(Path top) throws Exception {
    Map<String, ByteBuffer> all = new TreeMap<>();
    try (Stream<Path> paths = Files.walk(top)) {
      for (Path path : (Iterable<Path>) paths.filter(Files::isRegularFile)::iterator) {
        all.put(top.relativize(path).toString(), ByteBuffer.wrap(Files.readAllBytes(path)));
      }
    }
    return all;
  }
}
