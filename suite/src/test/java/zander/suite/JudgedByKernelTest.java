package zander.suite;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.concurrent.TimeUnit;
import java.util.stream.Collectors;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import zander.core.access.ServiceAccess;
import zander.core.connect.Connection;
import zander.core.connect.command.Commands;
import zander.core.files.FileKind;
import zander.core.files.RemoteEntry;
import zander.core.files.RemotePath;

/**
 * What a service account may read, as the kernel answers it to a process of that account.
 *
 * <p>Judged: what an account may read: modes, access lists, masks, groups, links on the way | the
 * kernel, asked by a process of that account | 5,037 ({@code access.folders})
 */
@Timeout(value = 300, unit = TimeUnit.SECONDS)
class JudgedByKernelTest {
  /** Folders, each with as many files. */
  private static final int FOLDERS = Integer.getInteger("access.folders", 40);

  private static final int FILES = 40;
  private static final String OWNER = "zndowner";
  private static final String MEMBER = "zndmember";
  private static final String STRANGER = "zndstranger";
  private static final List<String> ACCOUNTS = List.of(OWNER, MEMBER, STRANGER);

  @TempDir Path top;
  private SystemSshd sshd;

  @BeforeEach
  void start() throws Exception {
    Assumptions.assumeTrue(
        SystemSshd.isPossible() && Files.isExecutable(Path.of("/usr/bin/setfacl")),
        "needs openssh-server and acl, and to be root");
    sshd = new SystemSshd(top, ACCOUNTS, List.of());
    // A further group for one, so that two groups of a list may fit.
    SystemSshd.run("usermod", "-a", "-G", STRANGER, MEMBER);
  }

  @AfterEach
  void stop() throws Exception {
    if (sshd != null) {
      SystemSshd.run("gpasswd", "-d", MEMBER, STRANGER);
      sshd.close();
    }
  }

  private static final String[] LETTERS = {"---", "r--", "-w-", "--x", "rw-", "r-x", "rwx"};

  private static String any(Random random, String... from) {
    return from[random.nextInt(from.length)];
  }

  private static String entry(Random random) {
    String who = any(random, "u", "g") + ":" + any(random, OWNER, MEMBER, STRANGER);
    return who + ":" + any(random, LETTERS);
  }

  /** The commands that make a tree of folders in folders, some behind links. */
  private String tree(Random random, List<Path> folders) {
    StringBuilder script = new StringBuilder();
    Path all = top.resolve("tree");
    folders.add(all);
    script.append("mkdir ").append(all).append("; cd ").append(all).append('\n');
    for (int i = 1; i < FOLDERS; i++) {
      Path folder = folders.get(random.nextInt(folders.size())).resolve("in-" + i);
      folders.add(folder);
      script.append("mkdir ").append(folder).append('\n');
    }
    for (Path folder : folders) {
      script.append("cd ").append(folder).append('\n');
      for (int i = 0; i < FILES; i++) {
        String name = any(random, "'a b-", "'x\\y-", "'n\nl-", "'plain-") + i + "'";
        boolean inner = random.nextInt(4) == 0;
        script.append(inner ? "mkdir " : ": > ").append(name).append('\n');
        rights(random, name, random.nextInt(010000) & 0777, script);
      }
    }
    // From the innermost on, as nobody needs to enter them any more.
    for (int i = folders.size() - 1; i > 0; i--) {
      int mode = random.nextInt(3) == 0 ? random.nextInt(01000) : 0755;
      rights(random, folders.get(i).toString(), mode, script);
    }
    return script.append("cd ").append(top).append("; chmod 755 tree\n").toString();
  }

  private static void rights(Random random, String name, int mode, StringBuilder script) {
    String owner = any(random, "root", OWNER, MEMBER) + ":" + any(random, "root", OWNER, STRANGER);
    script.append("chown ").append(owner).append(' ').append(name).append('\n');
    script.append("chmod ").append(Integer.toOctalString(mode)).append(' ').append(name);
    script.append('\n');
    if (random.nextInt(3) == 0) {
      String entries = entry(random) + (random.nextBoolean() ? "," + entry(random) : "");
      String mask = random.nextBoolean() ? ",m::" + any(random, LETTERS) : "";
      script.append("setfacl -m ").append(entries).append(mask).append(' ').append(name);
      script.append('\n');
    }
  }

  /** What a process of the account may read, or list and enter. */
  private Set<String> mayRead(String account, List<RemoteEntry> entries) throws Exception {
    Path asked = top.resolve("asked");
    StringBuilder script = new StringBuilder();
    for (RemoteEntry entry : entries) {
      String path = "'" + entry.path().wire() + "'";
      String also = entry.kind() == FileKind.FOLDER ? " && test -x " + path : "";
      script.append("test -r ").append(path).append(also).append("; echo $?\n");
    }
    Files.writeString(asked, script, UTF_8);
    List<String> answers =
        SystemSshd.run("runuser", "-u", account, "--", "sh", asked.toString()).lines().toList();
    Set<String> may = new HashSet<>();
    for (int i = 0; i < entries.size(); i++) {
      if (answers.get(i).equals("0")) {
        may.add(entries.get(i).path().wire());
      }
    }
    return may;
  }

  @Test
  void itIsWhatTheKernelAnswers() throws Exception {
    List<Path> folders = new ArrayList<>();
    Path script = top.resolve("make");
    Files.writeString(script, tree(new Random(21), folders), UTF_8);
    SystemSshd.run("sh", "-e", script.toString());
    Path link = Files.createSymbolicLink(top.resolve("link"), folders.get(FOLDERS / 2));
    folders.add(Files.createSymbolicLink(top.resolve("linked"), link.getFileName()));
    int cases = 0;
    int refused = 0;
    try (Connection root = sshd.open("root")) {
      for (Path folder : folders) {
        RemotePath path = RemotePath.of(folder.toString());
        List<RemoteEntry> entries = root.files().list(path, portion -> {});
        for (String account : ACCOUNTS) {
          ServiceAccess access = ServiceAccess.of(account, root.files(), root, path);
          assertThat(access.seesLists()).isTrue();
          Set<String> told =
              entries.stream()
                  .filter(entry -> !access.isRefused(entry))
                  .map(entry -> entry.path().wire())
                  .collect(Collectors.toSet());
          Set<String> may = mayRead(account, entries);
          assertThat(told).as(account + " in " + folder).containsExactlyInAnyOrderElementsOf(may);
          cases += entries.size();
          refused += entries.size() - may.size();
        }
      }
      withoutLists(root, folders.get(0));
    }
    assertThat(refused).isBetween(cases / 10, cases - cases / 10);
  }

  /** Where nothing tells of lists, that is told. */
  private static void withoutLists(Connection root, Path folder) throws Exception {
    ServiceAccess access =
        ServiceAccess.of(STRANGER, root.files(), Commands.NONE, RemotePath.of(folder.toString()));
    assertThat(access.seesLists()).isFalse();
  }

  /** More names than one command line holds. */
  @Test
  void aListIsSeenAmongFiftyThousandFiles() throws Exception {
    Path many = Files.createDirectory(top.resolve("many"));
    String name = "a-reading-of-the-river-with-a-name-as-long-as-some-programs-like-them-";
    SystemSshd.run(
        "sh",
        "-ec",
        "cd $0; seq -f '"
            + name
            + "%.0f' 1 50000 | xargs touch; setfacl -m u:$1:--- "
            + name
            + "777",
        many.toString(),
        STRANGER);
    RemotePath path = RemotePath.of(many.toString());
    try (Connection root = sshd.open("root")) {
      ServiceAccess access = ServiceAccess.of(STRANGER, root.files(), root, path);
      assertThat(access.seesLists()).isTrue();
      List<RemoteEntry> entries = root.files().list(path, portion -> {});
      assertThat(entries).hasSize(50_000);
      assertThat(entries.stream().filter(access::isRefused).map(RemoteEntry::name))
          .containsExactly(name + "777");
    }
  }
}
