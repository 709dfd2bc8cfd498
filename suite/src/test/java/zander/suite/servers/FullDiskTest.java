package zander.suite.servers;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import zander.core.connect.Connection;
import zander.core.files.RemotePath;
import zander.core.journal.Journal;
import zander.core.phrase.TransferPhrase;
import zander.core.transfer.Transfer;
import zander.core.transfer.local.LocalEndpoint;
import zander.core.transfer.progress.Progress;
import zander.core.transfer.progress.Progress.Phase;
import zander.core.transfer.remote.RemoteEndpoint;
import zander.core.transfer.rules.ConflictRule;
import zander.core.transfer.rules.DiskFullPrompt;
import zander.core.transfer.server.SharedConnectionChannels;
import zander.core.work.Cancellation;
import zander.suite.SystemSshd;

/** A transfer into a real file system that becomes full on the way: it asks, once. */
@Timeout(value = 120, unit = TimeUnit.SECONDS)
class FullDiskTest {
  private static final String ACCOUNT = "zndfull";
  private static final int FILES = 300;
  private static final int SIZE = 64 * 1024;

  @TempDir static Path folder;
  @TempDir Path local;
  private static SystemSshd sshd;
  private Path disk;
  private final List<DiskFullPrompt.Question> asked = new ArrayList<>();

  @BeforeAll
  static void start() throws Exception {
    Assumptions.assumeTrue(SystemSshd.isPossible(), "needs openssh-server, and to be root");
    sshd = new SystemSshd(folder, List.of(ACCOUNT), List.of());
  }

  @AfterAll
  static void stop() throws Exception {
    if (sshd != null) {
      sshd.close();
    }
  }

  /** 24 MiB, 16 of them taken by a file that can be removed. */
  @BeforeEach
  void mount() throws Exception {
    disk = Files.createDirectories(folder.resolve(ACCOUNT + "/disk"));
    SystemSshd.run(
        "mount", "-t", "tmpfs", "-o", "size=24m,nr_inodes=1000", "none", disk.toString());
    SystemSshd.run(
        "sh",
        "-c",
        "head -c 16777216 /dev/zero > $0/ballast; chown -R " + ACCOUNT + ": $0",
        disk.toString());
    Random random = new Random(20261127);
    for (int i = 0; i < FILES; i++) {
      byte[] content = new byte[SIZE];
      random.nextBytes(content);
      Files.write(
          Files.createDirectories(local.resolve("tree/" + i % 7)).resolve("f" + i), content);
    }
  }

  @AfterEach
  void unmount() throws Exception {
    Mounts.unmount(disk);
  }

  private Progress send(String name, DiskFullPrompt answers) throws Exception {
    try (Connection connection = sshd.open(ACCOUNT)) {
      RemotePath home = connection.whoAmI().home();
      return new Transfer(
              new LocalEndpoint(local),
              new RemoteEndpoint(
                  new SharedConnectionChannels(() -> connection),
                  RemotePath.of(disk.toString()),
                  Journal.NONE,
                  home),
              ConflictRule.ASK,
              null,
              new Cancellation())
          .whenFull(
              question -> {
                asked.add(question);
                return answers.ask(question);
              })
          .run(List.of(name));
    }
  }

  private void makeRoom() {
    assertThat(disk.resolve("ballast").toFile().delete()).isTrue();
  }

  @Test
  void goesOnWhereSomebodyMakesRoom() throws Exception {
    Progress end =
        send(
            "tree",
            question -> {
              makeRoom();
              return DiskFullPrompt.Answer.TRY_AGAIN;
            });
    assertThat(end.problems()).isEmpty();
    assertThat(end.phase()).isEqualTo(Phase.DONE);
    assertThat(end.files()).isEqualTo(FILES);
    assertThat(end.bytes()).isEqualTo((long) FILES * SIZE);
    assertThat(asked).hasSize(1);
    assertThat(asked.get(0).why()).isEqualTo(TransferPhrase.DISK_FULL.of());
    assertThat(asked.get(0).free()).isBetween(0L, 8L << 20);
    SystemSshd.run("diff", "-r", local.resolve("tree").toString(), disk.resolve("tree").toString());
  }

  /** Asked once, and counted exactly. */
  @Test
  void leavesOutWhatDoesNotFit() throws Exception {
    Progress end = send("tree", question -> DiskFullPrompt.Answer.SKIP);
    assertThat(asked).hasSize(1);
    assertThat(end.phase()).isEqualTo(Phase.DONE);
    long arrived =
        Long.parseLong(
            SystemSshd.run("sh", "-c", "find $0/tree -type f | wc -l", disk.toString()).strip());
    assertThat(arrived).isBetween(20L, 130L);
    assertThat(end.failed()).isEqualTo(FILES - arrived);
    assertThat(end.files() - end.skipped()).isEqualTo(arrived);
  }

  @Test
  void stopsWithoutTryingTheRest() throws Exception {
    Progress end = send("tree", question -> DiskFullPrompt.Answer.STOP);
    assertThat(asked).hasSize(1);
    assertThat(end.phase()).isEqualTo(Phase.STOPPED);
    assertThat(SystemSshd.run("sh", "-c", "find $0 -name '*.zander-*'", disk.toString())).isEmpty();
  }

  /** This computer's disk is the one that is full. */
  @Test
  void asksForThisComputersDiskToo() throws Exception {
    SystemSshd.run(
        "cp", "-r", local.resolve("tree").toString(), folder.resolve(ACCOUNT).toString());
    try (Connection connection = sshd.open(ACCOUNT)) {
      RemotePath home = connection.whoAmI().home();
      Progress end =
          new Transfer(
                  new RemoteEndpoint(
                      new SharedConnectionChannels(() -> connection), home, Journal.NONE, home),
                  new LocalEndpoint(disk),
                  ConflictRule.ASK,
                  null,
                  new Cancellation())
              .whenFull(
                  question -> {
                    asked.add(question);
                    makeRoom();
                    return DiskFullPrompt.Answer.TRY_AGAIN;
                  })
              .run(List.of("tree"));
      assertThat(end.problems()).isEmpty();
      assertThat(asked).hasSize(1);
    }
    SystemSshd.run("diff", "-r", local.resolve("tree").toString(), disk.resolve("tree").toString());
  }

  /** One file that is larger than what is free, and folders for which there are no names left. */
  @ParameterizedTest
  @CsvSource({"large", "folders"})
  void aLargeFileAndFoldersWaitForRoomToo(String what) throws Exception {
    if (what.equals("large")) {
      byte[] content = new byte[20 << 20];
      new Random(1).nextBytes(content);
      Files.write(local.resolve("large"), content);
    } else {
      for (int i = 0; i < 300; i++) {
        Files.createDirectories(local.resolve("folders/" + i));
      }
      SystemSshd.run(
          "sh",
          "-c",
          "cd $0 && mkdir b && cd b && seq 1 1200 | xargs touch 2>/dev/null; true",
          disk.toString());
      SystemSshd.run("chown", "-R", ACCOUNT + ":", disk.toString());
    }
    Progress end =
        send(
            what,
            question -> {
              makeRoom();
              try {
                SystemSshd.run("rm", "-rf", disk.resolve("b").toString());
              } catch (Exception e) {
                throw new IllegalStateException(e);
              }
              return DiskFullPrompt.Answer.TRY_AGAIN;
            });
    assertThat(end.problems()).isEmpty();
    assertThat(asked).hasSize(1);
    SystemSshd.run("diff", "-r", local.resolve(what).toString(), disk.resolve(what).toString());
  }
}
