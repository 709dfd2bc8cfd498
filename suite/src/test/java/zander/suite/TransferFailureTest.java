package zander.suite;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import zander.core.connect.Connection;
import zander.core.files.RemotePath;
import zander.core.journal.Journal;
import zander.core.phrase.TransferPhrase;
import zander.core.transfer.Transfer;
import zander.core.transfer.local.LocalEndpoint;
import zander.core.transfer.progress.Progress;
import zander.core.transfer.progress.Progress.Phase;
import zander.core.transfer.progress.Progress.Problem;
import zander.core.transfer.remote.RemoteEndpoint;
import zander.core.transfer.rules.ConflictRule;
import zander.core.work.Cancellation;
import zander.standin.server.Relay;
import zander.standin.world.Caller;

/** Full disks, lies and cuts in a transfer; the rest always goes on. */
class TransferFailureTest extends TransferFixture {
  @Test
  void saysWhatCouldNotBeWrittenAndGoesOn() throws IOException {
    world.mkdir(Caller.ROOT, TRIAL + "/closed", 0755);
    Files.createDirectories(local.resolve("closed"));
    Files.writeString(local.resolve("closed/in.txt"), "x");
    Files.writeString(local.resolve("open.txt"), "x");
    Progress progress =
        up(ConflictRule.ASK, PathContract.NEVER_ASKED).run(List.of("closed", "open.txt"));
    assertThat(progress.phase()).isEqualTo(Phase.DONE);
    assertThat(progress.problems())
        .extracting(Problem::path)
        .anyMatch(p -> p.endsWith("closed/in.txt"));
    assertThat(progress.problems())
        .extracting(Problem::why)
        .anyMatch(why -> why.is(TransferPhrase.NO_PERMISSION));
    assertThat(there("open.txt")).isEqualTo("x");
  }

  @Test
  void tellsAFullDiskAndKeepsWhatWasThere() throws IOException {
    makeThere("levels.bin", "old and whole");
    byte[] content = new byte[1 << 20];
    new Random(3).nextBytes(content);
    Files.write(local.resolve("levels.bin"), content);
    world.setFree(300_000);
    Progress progress =
        up(ConflictRule.REPLACE, PathContract.NEVER_ASKED).run(List.of("levels.bin"));
    assertThat(progress.problems())
        .extracting(Problem::why)
        .containsExactly(TransferPhrase.DISK_FULL.of());
    assertThat(there("levels.bin")).isEqualTo("old and whole");
    assertNoParts();
  }

  @Test
  void writesNothingOutsideTheFolderWhateverTheServerNames() throws IOException {
    makeThere("good.txt", "good");
    riverside
        .demo
        .server("lab-box")
        .faults()
        .setExtraNames(List.of("../evil", "/etc/evil", "..", "a/b", "nul\0name", ""));
    Progress progress = down(ConflictRule.ASK, PathContract.NEVER_ASKED).run(List.of("good.txt"));
    assertThat(progress.problems()).isEmpty();
    Path inner = Files.createDirectory(local.resolve("inner"));
    Progress whole =
        new Transfer(
                new RemoteEndpoint(connection.files(), RemotePath.of("/home/warden"), Journal.NONE),
                new LocalEndpoint(inner),
                ConflictRule.ASK,
                PathContract.NEVER_ASKED,
                new Cancellation())
            .run(List.of("trial"));
    assertThat(whole.phase()).isEqualTo(Phase.DONE);
    try (var files = Files.walk(folder)) {
      assertThat(files.map(Path::toString)).noneMatch(name -> name.contains("evil"));
    }
    assertThat(inner.resolve("trial/good.txt")).hasContent("good");
  }

  @Test
  void takesShortAnswersAndServersWithoutExtensions() throws IOException {
    byte[] content = new byte[300_000];
    new Random(2).nextBytes(content);
    Files.write(local.resolve("feed.bin"), content);
    riverside.demo.server("lab-box").faults().setShortReads(true);
    riverside.demo.server("lab-box").faults().setPlainProtocol(true);
    connection.close();
    connection = riverside.open("lab-box");
    assertThat(up(ConflictRule.ASK, PathContract.NEVER_ASKED).run(List.of("feed.bin")).problems())
        .isEmpty();
    Files.delete(local.resolve("feed.bin"));
    assertThat(down(ConflictRule.ASK, PathContract.NEVER_ASKED).run(List.of("feed.bin")).problems())
        .isEmpty();
    assertThat(local.resolve("feed.bin")).hasBinaryContent(content);
  }

  @Test
  void aCutLineLeavesOnlyWholeFiles() throws IOException {
    List<String> names = new ArrayList<>();
    byte[] content = new byte[40_000];
    for (int i = 0; i < 12; i++) {
      new Random(i).nextBytes(content);
      names.add("part-" + i);
      Files.write(local.resolve("part-" + i), content);
    }
    for (int cut = 20_000; cut < 500_000; cut += 60_000) {
      for (String name : world.list(Caller.ROOT, TRIAL)) {
        world.unlink(Caller.ROOT, TRIAL + "/" + name);
      }
      try (Relay relay = new Relay(riverside.demo.server("lab-box").port())) {
        riverside.redirectTo(relay.port());
        try (Connection cuttable = riverside.open("lab-box")) {
          relay.cutAfter(cut);
          Progress progress =
              new Transfer(
                      new LocalEndpoint(local),
                      new RemoteEndpoint(cuttable.files(), RemotePath.of(TRIAL), Journal.NONE),
                      ConflictRule.ASK,
                      PathContract.NEVER_ASKED,
                      new Cancellation())
                  .run(names);
          assertThat(progress.phase()).isEqualTo(Phase.BROKEN);
          assertThat(progress.problems())
              .extracting(Problem::why)
              .contains(TransferPhrase.LINE_LOST.of());
        }
      }
      for (String name : world.list(Caller.ROOT, TRIAL)) {
        if (!name.contains(".zander-")) {
          assertThat(there(name).length())
              .as(name)
              .isEqualTo(new String(Files.readAllBytes(local.resolve(name)), UTF_8).length());
        }
      }
    }
  }
}
