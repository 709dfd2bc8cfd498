package zander.suite;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.RandomAccessFile;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.time.Duration;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.TimeUnit;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import zander.core.connect.Connection;
import zander.core.connect.Connector;
import zander.core.connect.signin.SignInMethods;
import zander.core.files.RemotePath;
import zander.core.journal.Journal;
import zander.core.transfer.Transfer;
import zander.core.transfer.progress.Progress;
import zander.core.transfer.progress.Progress.Phase;
import zander.core.transfer.remote.RemoteEndpoint;
import zander.core.transfer.resume.ResumeLog;
import zander.core.transfer.rules.ConflictRule;
import zander.core.transfer.rules.TransferRules;
import zander.core.transfer.server.SharedConnectionChannels;
import zander.core.trust.KnownHosts;
import zander.core.work.Cancellation;
import zander.desk.words.Phrases;
import zander.standin.server.Relay;

/**
 * From one {@code sshd} straight to another, with a key lent for it: the same tree as by every
 * other way, and only names and looks over the lines of this computer. Where it cannot go that way,
 * it goes through this computer, and says why.
 */
@Timeout(value = 240, unit = TimeUnit.SECONDS)
class DirectTransferTest {
  private static final int FILES = 600;
  private static final String GOOD = "OpenSSH_9.2p1 peer";

  @TempDir static Path folder;
  private static SystemSshd from;
  private static SystemSshd to;
  private static Relay near;
  private static Relay far;
  private static Connector connector;
  private static Path fromTools;
  private static Path toTools;
  private static Path original;
  private static List<String> wanted;

  @BeforeAll
  static void start() throws Exception {
    Assumptions.assumeTrue(SystemSshd.isPossible(), "needs openssh-server, and to be root");
    Files.setPosixFilePermissions(folder, PosixFilePermissions.fromString("rwxr-xr-x"));
    fromTools = Files.createDirectories(folder.resolve("from-tools"));
    toTools = Files.createDirectories(folder.resolve("to-tools"));
    from = server("from", fromTools);
    to = server("to", toTools);
    near = new Relay(from.port());
    far = new Relay(to.port());
    // This computer's own lines are counted; the servers reach each other without these.
    connector =
        new Connector(
            new KnownHosts(folder.resolve("known")),
            address ->
                List.of(
                    new InetSocketAddress(
                        InetAddress.getLoopbackAddress(),
                        address.port() == from.port() ? near.port() : far.port())),
            null,
            Duration.ofSeconds(30));
    original = folder.resolve("original");
    LargeTree.make(original.resolve("tree"), FILES);
    wanted = LargeTree.describe(original.resolve("tree"));
  }

  private static SystemSshd server(String name, Path tools) throws Exception {
    return new SystemSshd(
        Files.createDirectory(folder.resolve(name)),
        List.of(),
        List.of("SetEnv PATH=" + tools + ":/usr/sbin:/usr/bin:/sbin:/bin"));
  }

  @AfterAll
  static void stop() throws Exception {
    if (connector != null) {
      connector.close();
      near.close();
      far.close();
      from.close();
      to.close();
    }
  }

  @BeforeEach
  void bothCan() throws Exception {
    for (Path tools : List.of(fromTools, toTools)) {
      Files.deleteIfExists(tools.resolve("how"));
      PeerSsh.install(tools, GOOD);
    }
  }

  private static Connection open(SystemSshd server) throws IOException {
    return connector.open(
        server.address("root"), SignInMethods.byKey(server.keyFile()), TestPrompts.accepting());
  }

  private static RemoteEndpoint side(Connection connection, Path at) {
    return new RemoteEndpoint(
        new SharedConnectionChannels(() -> connection),
        RemotePath.of(at.toString()),
        Journal.NONE,
        connection.whoAmI().home());
  }

  private static Transfer transfer(Connection source, Connection target, Path goal) {
    return new Transfer(
        side(source, original).allowDirect(),
        side(target, goal),
        TransferRules.of(ConflictRule.ASK).check(true),
        PathContract.NEVER_ASKED,
        new Cancellation(),
        ResumeLog.NONE);
  }

  private static Path fresh(String name) throws IOException {
    return Files.createDirectory(folder.resolve(name.replace(' ', '-')));
  }

  /** Transfers the tree, and compares it. */
  private static Progress tree(Path goal) throws Exception {
    try (Connection source = open(from);
        Connection target = open(to)) {
      Progress progress = transfer(source, target, goal).run(List.of("tree"));
      assertThat(progress.problems()).isEmpty();
      assertThat(progress.phase()).isEqualTo(Phase.DONE);
      assertThat(progress.bytes()).isEqualTo(progress.bytesInAll());
      assertThat(LargeTree.describe(goal.resolve("tree"))).isEqualTo(wanted);
      LargeTree.remove(goal);
      return progress;
    }
  }

  private static Set<Path> scratch() throws IOException {
    try (Stream<Path> all = Files.list(Path.of("/tmp"))) {
      return all.filter(path -> path.getFileName().toString().matches("zander-\\w{8}"))
          .collect(Collectors.toSet());
    }
  }

  private static List<ProcessHandle> peers() {
    return ProcessHandle.allProcesses()
        .filter(one -> one.info().commandLine().orElse("").contains(PeerSsh.class.getName()))
        .toList();
  }

  @Test
  void theContentsNeverComeHere() throws Exception {
    Set<Path> before = scratch();
    long counted = near.carried() + far.carried();
    Progress progress = tree(fresh("straight"));
    assertThat(Phrases.say(progress.carrier()))
        .startsWith("directly from localhost to localhost, where it signs in");
    assertThat(near.carried() + far.carried() - counted).isLessThan(progress.bytes() / 3);
    assertThat(scratch()).isEqualTo(before);
    assertThat(peers()).isEmpty();
  }

  @Test
  void theTargetFetchesWhereTheSourceCannotGoThere() throws Exception {
    Files.writeString(fromTools.resolve("how"), "no route");
    long counted = near.carried() + far.carried();
    Progress progress = tree(fresh("fetched"));
    assertThat(Phrases.say(progress.carrier()))
        .startsWith("directly from localhost to localhost, which signs in");
    assertThat(near.carried() + far.carried() - counted).isLessThan(progress.bytes() / 3);
  }

  @ParameterizedTest
  @ValueSource(strings = {"no route", "unbound", "OpenSSH_8.4p1", "another program"})
  void goesThroughThisComputerOtherwiseAndSaysWhy(String how) throws Exception {
    for (Path tools : List.of(fromTools, toTools)) {
      Files.writeString(tools.resolve("how"), how);
      PeerSsh.install(tools, how.contains("o") && how.length() < 9 ? GOOD : how);
    }
    Progress progress = tree(fresh("around " + how));
    assertThat(Phrases.say(progress.carrier()))
        .startsWith("through this computer's memory, not its disk, because")
        .contains(
            switch (how) {
              case "no route" -> "No route to host";
              case "unbound" -> "the agent refused to sign";
              case "OpenSSH_8.4p1" -> "has an ssh before 8.9";
              default -> "has no ssh of OpenSSH";
            });
  }

  @Test
  void aLargeFileThatBreaksOffIsGoneOnWith() throws Exception {
    Path goal = fresh("broken");
    byte[] content = new byte[150 << 20];
    new Random(5).nextBytes(content);
    Files.write(original.resolve("years"), content);
    try (Connection source = open(from);
        Connection target = open(to)) {
      Transfer transfer = transfer(source, target, goal);
      CompletableFuture<Progress> end =
          CompletableFuture.supplyAsync(() -> transfer.run(List.of("years")));
      while (transfer.progress().bytes() < 10 << 20 && !end.isDone()) {
        Thread.onSpinWait();
      }
      assertThat(peers()).isNotEmpty().allMatch(ProcessHandle::destroyForcibly);
      Progress progress = end.get();
      assertThat(progress.problems()).isEmpty();
      assertThat(progress.bytes()).isEqualTo(content.length);
    }
    assertThat(goal.resolve("years")).hasBinaryContent(content);
    try (Stream<Path> left = Files.list(goal)) {
      assertThat(left).hasSize(1);
    }
    Files.delete(original.resolve("years"));
  }

  @Test
  void aStopEndsTheProgramsAtBothServers() throws Exception {
    Path goal = fresh("stopped");
    Files.write(original.resolve("long"), new byte[1]);
    try (RandomAccessFile large = new RandomAccessFile(original.resolve("long").toFile(), "rw")) {
      large.setLength(8L << 30);
    }
    try (Connection source = open(from);
        Connection target = open(to)) {
      Cancellation stop = new Cancellation();
      Transfer transfer =
          new Transfer(
              side(source, original).allowDirect(),
              side(target, goal),
              TransferRules.of(ConflictRule.ASK),
              PathContract.NEVER_ASKED,
              stop,
              ResumeLog.NONE);
      CompletableFuture<Progress> end =
          CompletableFuture.supplyAsync(() -> transfer.run(List.of("long")));
      while (peers().isEmpty()) {
        assertThat(end).isNotDone();
      }
      List<ProcessHandle> running = peers();
      stop.stop();
      assertThat(end.get().phase()).isEqualTo(Phase.STOPPED);
      for (ProcessHandle one : running) {
        one.onExit().get();
      }
    }
    try (Stream<Path> left = Files.list(goal)) {
      assertThat(left).isEmpty();
    }
    Files.delete(original.resolve("long"));
  }

  /**
   * The target fetches, and the source sends more than was asked for, and other than it listed. Its
   * file service tells the truth, so that all is there in the end, as it should be.
   */
  @Test
  void aSourceThatSendsMoreThanWasAskedForPlacesNothing() throws Exception {
    Files.writeString(fromTools.resolve("how"), "no route");
    Path goal = fresh("hostile");
    Path tree = Files.createDirectory(goal.resolve("tree"));
    Path precious = Files.writeString(tree.resolve("precious"), "of the target");
    Set<String> before = names(goal);
    Path stream = folder.resolve("hostile.tar");
    HostileTar.write(stream, original.resolve("tree"), List.of(".bashrc", "tree/added"));
    Path tar = fromTools.resolve("tar");
    Files.writeString(tar, "#!/bin/sh\ncat " + stream + "\n");
    Files.setPosixFilePermissions(tar, PosixFilePermissions.fromString("rwxr-xr-x"));
    try (Connection source = open(from);
        Connection target = open(to)) {
      Progress progress = transfer(source, target, goal).run(List.of("tree"));
      assertThat(progress.phase()).isEqualTo(Phase.DONE);
    } finally {
      Files.delete(tar);
    }
    assertThat(precious).hasContent("of the target");
    Set<String> expected = names(original);
    expected.removeIf(name -> !name.startsWith("tree"));
    expected.addAll(before);
    assertThat(names(goal)).isEqualTo(expected);
    Files.delete(precious);
    // The folder itself was there before, and keeps its mode and time.
    assertThat(LargeTree.describe(tree).subList(1, wanted.size()))
        .isEqualTo(wanted.subList(1, wanted.size()));
    LargeTree.remove(goal);
  }

  private static Set<String> names(Path top) throws IOException {
    try (Stream<Path> all = Files.walk(top)) {
      return all.map(path -> top.relativize(path).toString()).collect(Collectors.toSet());
    }
  }
}
