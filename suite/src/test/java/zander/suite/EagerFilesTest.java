package zander.suite;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.concurrent.TimeUnit;
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
import zander.core.files.RemotePath;
import zander.core.journal.Journal;
import zander.core.transfer.Transfer;
import zander.core.transfer.local.LocalEndpoint;
import zander.core.transfer.progress.Progress;
import zander.core.transfer.remote.RemoteEndpoint;
import zander.core.transfer.resume.ResumeLog;
import zander.core.transfer.rules.ConflictRule;
import zander.core.transfer.rules.IgnorePatterns;
import zander.core.transfer.rules.TransferRules;
import zander.core.transfer.server.SharedConnectionChannels;
import zander.core.work.Cancellation;

/**
 * Small files at the top of what is brought down come before they are asked for, and only those
 * that are wanted; whatever is wrong with it, all is transferred. The server's programs note what
 * they are given.
 */
@Timeout(value = 90, unit = TimeUnit.SECONDS)
class EagerFilesTest {
  private static final String TAR =
      """
      #!/bin/sh
      case "$1" in --version) exec /usr/bin/tar --version;; esac
      how=$(cat %1$s/how)
      case "$how" in
        complains) echo 'tar: ./tree/reading 1: file changed as we read it' >&2;;
        adds)
          echo evil > %1$s/evil
          { printf './tree/much/larger\\0./tree/deep/reading 1\\0%1$s/evil\\0'; cat; } | /usr/bin/tar -P "$@"
          exit;;
      esac
      tee -a %1$s/names | /usr/bin/tar "$@"
      """;

  private static final String MISSING =
      """
      #!/bin/sh
      case "$(cat %1$s/how)" in "no %2$s") exit 127;; esac
      exec /usr/bin/%2$s "$@"
      """;

  /** More than come unasked. */
  private static final int FILES = 4300;

  private static final int MOST_EARLY = 4096;
  private static final int DEEP_FILES = 300;

  @TempDir static Path folder;
  private static SystemSshd sshd;
  private static Path tools;
  private static Path there;
  private static int count;
  private Path here;

  @BeforeAll
  static void start() throws Exception {
    Assumptions.assumeTrue(SystemSshd.isPossible(), "needs openssh-server, and to be root");
    tools = Files.createDirectories(folder.resolve("tools"));
    program("tar", String.format(TAR, tools));
    for (String name : List.of("find", "head", "xargs")) {
      program(name, String.format(MISSING, tools, name));
    }
    sshd = new SystemSshd(folder, List.of(), List.of("SetEnv PATH=" + tools + ":/usr/bin:/bin"));
    there = Files.createDirectories(folder.resolve("there"));
    Random random = new Random(5);
    byte[] content = new byte[600];
    for (int i = 0; i < FILES; i++) {
      random.nextBytes(content);
      write("tree/reading " + i, content);
    }
    for (int i = 0; i < DEEP_FILES; i++) {
      write("tree/deep/reading " + i, content);
    }
    write("tree/empty", new byte[0]);
    write("tree/larger", new byte[20_000]);
    write("tree/-rf\n'$HOME'", content);
    write("tree/much/larger", new byte[3 << 20]);
    Files.createSymbolicLink(there.resolve("tree/link"), Path.of("empty"));
  }

  private static void program(String name, String script) throws Exception {
    Path file = Files.writeString(tools.resolve(name), script);
    Files.setPosixFilePermissions(file, PosixFilePermissions.fromString("rwxr-xr-x"));
  }

  private static void write(String path, byte[] content) throws Exception {
    Path file = there.resolve(path);
    Files.createDirectories(file.getParent());
    Files.write(file, content);
  }

  @AfterAll
  static void stop() throws Exception {
    if (sshd != null) {
      sshd.close();
    }
  }

  @BeforeEach
  void fresh() throws Exception {
    here = Files.createDirectory(folder.resolve("here-" + ++count));
    Files.writeString(tools.resolve("how"), "well");
    Files.deleteIfExists(tools.resolve("names"));
  }

  private Progress bringDown(TransferRules rules) throws Exception {
    try (Connection connection = sshd.open("root")) {
      return new Transfer(
              new RemoteEndpoint(
                      new SharedConnectionChannels(() -> connection),
                      RemotePath.of(there.toString()),
                      Journal.NONE,
                      null)
                  .withFolders(),
              new LocalEndpoint(here),
              rules,
              PathContract.NEVER_ASKED,
              new Cancellation(),
              ResumeLog.NONE)
          .run(List.of("tree"));
    }
  }

  private void assertAllIsHere() throws Exception {
    assertThat(LargeTree.describe(here.resolve("tree")))
        .isEqualTo(LargeTree.describe(there.resolve("tree")));
  }

  /** The files that the program was given, and how often. */
  private static List<String> named(String kind) throws Exception {
    List<String> names = new ArrayList<>();
    String all = Files.readString(tools.resolve("names"), StandardCharsets.ISO_8859_1);
    for (String name : all.split("\0")) {
      if (name.startsWith(kind)) {
        names.add(name);
      }
    }
    return names;
  }

  private static boolean someCameEarly() throws Exception {
    return !named("././.").isEmpty();
  }

  @Test
  void eachComesOnceAndUnasked() throws Exception {
    assertThat(bringDown(TransferRules.of(ConflictRule.ASK)).problems()).isEmpty();
    assertAllIsHere();
    assertThat(someCameEarly()).isTrue();
    assertThat(named("./tree/reading")).hasSize(FILES).doesNotHaveDuplicates();
    assertThat(named("./tree/deep/")).hasSize(DEEP_FILES).doesNotHaveDuplicates();
    // Names are not waited for: those of the top are given before the first that was asked for.
    List<String> all = named("./tree/");
    assertThat(all.subList(0, MOST_EARLY)).allMatch(name -> name.lastIndexOf('/') == 6);
  }

  @Test
  void noneComesWhereSomethingIsInItsPlace() throws Exception {
    Files.createDirectories(here.resolve("tree"));
    Files.writeString(here.resolve("tree/reading 1"), "mine");
    assertThat(bringDown(TransferRules.of(ConflictRule.SKIP)).skipped()).isEqualTo(1);
    assertThat(someCameEarly()).isFalse();
    assertThat(here.resolve("tree/reading 1")).hasContent("mine");
    assertThat(here.resolve("tree/reading 2")).exists();
  }

  @Test
  void whatIsLeftOutAndComesAllTheSameIsDropped() throws Exception {
    Progress progress =
        bringDown(
            TransferRules.of(ConflictRule.ASK).leaveOut(new IgnorePatterns("reading 1*\ndeep/")));
    assertThat(progress.problems()).isEmpty();
    assertThat(someCameEarly()).isTrue();
    assertThat(here.resolve("tree/reading 1")).doesNotExist();
    assertThat(here.resolve("tree/reading 2"))
        .hasSameBinaryContentAs(there.resolve("tree/reading 2"));
    assertThat(here.resolve("tree/deep")).doesNotExist();
  }

  @Test
  void noneComesOfWhatIsLeftOutAsAWhole() throws Exception {
    bringDown(TransferRules.of(ConflictRule.ASK).leaveOut(new IgnorePatterns("tree")));
    assertThat(here).isEmptyDirectory();
    assertThat(tools.resolve("names"))
        .satisfiesAnyOf(
            none -> assertThat(none).doesNotExist(), empty -> assertThat(empty).isEmptyFile());
  }

  @ParameterizedTest
  @ValueSource(strings = {"no find", "no head", "no xargs", "complains", "adds"})
  void allCrossesWhateverIsWrong(String how) throws Exception {
    Files.writeString(tools.resolve("how"), how);
    assertThat(bringDown(TransferRules.of(ConflictRule.ASK)).problems()).isEmpty();
    assertAllIsHere();
  }
}
