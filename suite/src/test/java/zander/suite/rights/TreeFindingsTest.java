package zander.suite.rights;

import static java.nio.charset.StandardCharsets.ISO_8859_1;
import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import zander.core.change.rights.look.FindingKind;
import zander.core.change.rights.look.TreeFindings;
import zander.core.change.rights.look.TreeFindings.Found;
import zander.core.change.rights.look.TreeFindings.Report;
import zander.core.connect.Connection;
import zander.core.connect.command.Commands;
import zander.core.files.RemotePath;
import zander.core.files.WireName;
import zander.core.rights.AccessList.Asker;
import zander.core.work.Cancellation;
import zander.suite.SystemSshd;

/**
 * What is found of the rights below a folder.
 *
 * <p>Judged: what an account can write below a folder | {@code find -writable} of that account | 8
 * trees, by shell and by file service
 */
@Timeout(value = 300, unit = TimeUnit.SECONDS)
class TreeFindingsTest {
  @TempDir Path top;
  private SystemSshd sshd;
  private Connection root;

  @BeforeEach
  void start() throws Exception {
    Assumptions.assumeTrue(
        SystemSshd.isPossible() && Files.isExecutable(Path.of("/usr/bin/setfacl")),
        "needs openssh-server and acl, and to be root");
    sshd = new SystemSshd(top, List.of(RightsGround.OWNER, RightsGround.OTHER), List.of());
    root = sshd.open("root");
  }

  @AfterEach
  void stop() throws Exception {
    if (sshd != null) {
      root.close();
      sshd.close();
    }
  }

  private Report look(Commands commands, Path tree) throws Exception {
    var names = root.files().names();
    Asker asker =
        new Asker(
            names.uidOf(RightsGround.OTHER).orElseThrow(), names.groupsOf(RightsGround.OTHER));
    return new TreeFindings(root.files(), commands)
        .look(RemotePath.of(tree.toString()), asker, seen -> {}, new Cancellation());
  }

  private static List<String> paths(Report report, FindingKind kind) {
    Found found = report.found().get(kind);
    return found == null
        ? List.of()
        : found.first().stream().map(one -> one.path().wire()).toList();
  }

  @Test
  void whatAnAccountCanWriteIsWhatItsOwnFindSays() throws Exception {
    int writable = 0;
    for (int i = 0; i < 8; i++) {
      Path in = Files.createDirectory(top.resolve("tree-" + i));
      SystemSshd.run("chmod", "755", top.toString(), in.toString());
      RightsGround.run(in, RightsGround.script(new Random(500 + i), 60));
      Path tree = in.resolve("t");
      // Lists of what is inside are not looked at.
      SystemSshd.run("setfacl", "-R", "-P", "-b", tree.toString());
      String said =
          SystemSshd.run(
              "runuser",
              "-u",
              RightsGround.OTHER,
              "--",
              "sh",
              "-c",
              "find \"$0\" \\( -type d -writable -executable -o -type f -writable"
                  + " -o -type p -writable \\) -print0 2>/dev/null || true",
              tree.toString());
      List<String> expected =
          said.isEmpty()
              ? List.of()
              : List.of(said.split("\0")).stream().map(WireName::fromText).toList();
      for (Commands commands : List.of(root, Commands.NONE)) {
        List<String> told = paths(look(commands, tree), FindingKind.ACCOUNT_WRITES);
        assertThat(told).as("tree " + i).containsAll(expected);
        // What it cannot see listed it can write all the same, by name.
        assertThat(refused(told)).as("tree " + i).isEmpty();
      }
      writable += expected.size();
    }
    assertThat(writable).isGreaterThan(20);
  }

  private String refused(List<String> told) throws Exception {
    Path list = top.resolve("told");
    Files.write(list, String.join("\0", told).getBytes(ISO_8859_1));
    return SystemSshd.run(
        "sh",
        "-c",
        "runuser -u $0 -- xargs -0 -n 1 sh -c"
            + " 'test -w \"$0\" && { test ! -d \"$0\" || test -x \"$0\"; } || echo \"$0\"' < $1",
        RightsGround.OTHER,
        list.toString());
  }

  @Test
  void whatIsTooWideIsFound() throws Exception {
    Path tree = Files.createDirectory(top.resolve("site"));
    SystemSshd.run("chmod", "755", top.toString());
    SystemSshd.run(
        "sh",
        "-ec",
        "cd $0; mkdir up shared closed; chmod 777 up; chmod 1777 shared; chmod 700 closed;"
            + " touch page .env closed/.env run; chmod 666 page; chmod 644 .env; chmod 4755 run;"
            + " touch closed/open; chmod 666 closed/open; touch lost; chown 54321:54321 lost",
        tree.toString());
    Report report = look(root, tree);
    assertThat(paths(report, FindingKind.ANYONE_WRITES))
        .containsExactlyInAnyOrder(tree + "/up", tree + "/page");
    assertThat(paths(report, FindingKind.SECRET_READABLE)).containsExactly(tree + "/.env");
    assertThat(paths(report, FindingKind.OWNED_BY_NOBODY)).containsExactly(tree + "/lost");
    assertThat(paths(report, FindingKind.RUNS_AS_OWNER)).containsExactly(tree + "/run");
    assertThat(report.looked()).isEqualTo(10);
    assertThat(Set.copyOf(paths(report, FindingKind.ACCOUNT_WRITES)))
        .contains(tree + "/shared", tree + "/up", tree + "/page")
        .doesNotContain(tree + "/closed/open");
  }
}
