package zander.suite;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import zander.core.change.save.AtomicSave;
import zander.core.connect.Connection;
import zander.core.connect.channel.ActFailure;
import zander.core.connect.channel.Elevation;
import zander.core.files.FileKind;
import zander.core.files.RemoteBatch;
import zander.core.files.RemoteEntry;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.files.RemoteWriter;
import zander.core.journal.Journal;
import zander.core.phrase.FilePhrase;
import zander.core.rights.Mode;
import zander.core.work.Cancellation;
import zander.desk.words.Phrases;

/**
 * Acting as another account on servers with no file service that could be started: the system's own
 * {@code sshd} and {@code sudo}, with the tools of GNU and of BusyBox.
 */
@Timeout(value = 120, unit = TimeUnit.SECONDS)
class SshdScriptsTest {
  private static final String OWN = "zndscripts";
  private static final String OTHER = "zndscripted";
  private static final String PASSWORD = "heron-at-dusk";
  private static final String NO_SERVICE =
      "mount --make-rprivate /; for f in /usr/lib/openssh/sftp-server /usr/lib/sftp-server; do"
          + " if [ -e $f ]; then mount --bind /dev/null $f; fi; done";

  enum Tools {
    GNU(NO_SERVICE),
    /** The first place that sudo looks in. */
    BUSYBOX(
        NO_SERVICE
            + "; mount -t tmpfs none /usr/local/sbin; busybox --install -s /usr/local/sbin"
            + "; rm /usr/local/sbin/su*");

    final String mounts;

    Tools(String mounts) {
      this.mounts = mounts;
    }
  }

  @TempDir Path folder;
  private final SystemSudo sudo = new SystemSudo("scripts");
  private SystemSshd sshd;
  private Path home;

  private Connection open(Tools tools) throws Exception {
    Assumptions.assumeTrue(
        SystemSudo.isPossible() && mayMount(), "needs openssh-server, sudo, and to mount");
    sshd = new SystemSshd(folder, List.of(OWN, OTHER), List.of(), tools.mounts);
    home = folder.resolve(OTHER);
    SystemSshd.setPassword(OWN, PASSWORD);
    sudo.rule(OWN + " ALL=(ALL) ALL");
    return sshd.open(OWN);
  }

  private static boolean mayMount() {
    try {
      SystemSshd.run("unshare", "-m", "mount", "--make-rprivate", "/");
      return Files.exists(Path.of("/bin/busybox"));
    } catch (IOException | InterruptedException e) {
      return false;
    }
  }

  private static Connection as(Connection own, String account) throws IOException {
    return own.actAs(new Elevation(account, wrong -> PASSWORD.toCharArray()), "/");
  }

  @AfterEach
  void stop() throws Exception {
    sudo.close();
    if (sshd != null) {
      sshd.close();
    }
  }

  private RemotePath at(String name) {
    return RemotePath.of(home.resolve(name).toString());
  }

  private static String stat(Path file) throws Exception {
    return SystemSshd.run("stat", "-c", "%F %a %U:%G %s %X %Y", file.toString()).strip();
  }

  private static void put(RemoteFiles files, RemotePath path, byte[] content) throws IOException {
    try (RemoteWriter writer = files.create(path, new Mode(0640))) {
      writer.write(content, 0, content.length);
      writer.finish();
    }
  }

  @ParameterizedTest
  @EnumSource
  void entriesAreListedReadMadeAndRemoved(Tools tools) throws Exception {
    try (Connection own = open(tools);
        Connection other = as(own, OTHER)) {
      RemoteFiles files = other.files();
      assertThat(other.whoAmI().account()).isEqualTo(OTHER);
      byte[] all = new byte[300_000];
      for (int i = 0; i < all.length; i++) {
        all[i] = (byte) (i ^ i >> 8);
      }
      put(files, at("every byte"), all);
      assertThat(home.resolve("every byte")).hasBinaryContent(all);
      assertThat(stat(home.resolve("every byte")))
          .startsWith("regular file 640 " + OTHER + ":" + OTHER + " 300000 ");
      assertThat(files.readAll(at("every byte"), all.length)).isEqualTo(all);
      files.makeFolder(at("in"), new Mode(0750));
      RemotePath strange = RemotePath.ofWire(at("in").wire() + "/-\nL81a4 5 0 0 0 0 x\u00ff");
      put(files, strange, "x".getBytes(UTF_8));
      put(files, at("in/-"), new byte[0]);
      files.makeLink(at("in/link"), "../every byte");
      List<RemoteEntry> listed = files.list(at("in"), portion -> {});
      assertThat(listed)
          .extracting(entry -> entry.path().wire())
          .containsExactlyInAnyOrder(strange.wire(), at("in/-").wire(), at("in/link").wire());
      assertThat(files.readLink(at("in/link"))).isEqualTo("../every byte");
      assertThat(files.realPath(at("in/link").wire())).isEqualTo(at("every byte"));
      assertThat(files.look(at("in/link")).kind()).isEqualTo(FileKind.LINK);
      assertThat(files.lookThrough(at("in/link")).size()).isEqualTo(all.length);

      files.setTimes(at("every byte"), 1_000_000_000, 1_100_000_000);
      files.setMode(at("every byte"), new Mode(02604));
      assertThat(stat(home.resolve("every byte")))
          .isEqualTo("regular file 2604 " + OTHER + ":" + OTHER + " 300000 1000000000 1100000000");
      files.hardLink(at("every byte"), at("twice"));
      assertThat(Files.getAttribute(home.resolve("twice"), "unix:nlink")).isEqualTo(2);
      files.rename(at("twice"), at("in/moved"));
      assertThat(refusal(() -> files.rename(at("in/moved"), at("every byte"))).reason())
          .isIn(Reason.FAILED, Reason.ALREADY_EXISTS);
      assertThat(refusal(() -> put(files, at("every byte"), all)).reason())
          .isEqualTo(Reason.ALREADY_EXISTS);
      put(files, at("new"), "new\n".getBytes(UTF_8));
      files.renameOver(at("new"), at("in/moved"));
      assertThat(home.resolve("in/moved")).hasContent("new");
      assertThat(refusal(() -> files.look(at("new"))).reason()).isEqualTo(Reason.NO_SUCH_FILE);
      assertThat(refusal(() -> files.list(at("new"), portion -> {})).reason())
          .isEqualTo(Reason.NO_SUCH_FILE);
      assertThat(refusal(() -> files.readAll(RemotePath.of("/etc/shadow"), 1 << 20)).reason())
          .isEqualTo(Reason.PERMISSION_DENIED);
      assertThat(refusal(() -> files.removeFolder(at("in"))).said()).containsIgnoringCase("empty");
      manyAtOnce(files);
      for (String name : List.of("in/moved", "in/-", "in/link")) {
        files.removeFile(at(name));
      }
      files.removeFile(strange);
      files.removeFolder(at("in"));
      assertThat(Files.exists(home.resolve("in"), LinkOption.NOFOLLOW_LINKS)).isFalse();
    }
  }

  /** More than are open at once. */
  private void manyAtOnce(RemoteFiles files) throws Exception {
    List<RemoteBatch.NewFile> many = new ArrayList<>();
    for (int i = 0; i < 20; i++) {
      many.add(
          new RemoteBatch.NewFile(
              at("many-" + i), ("number " + i).getBytes(UTF_8), new Mode(0604), 1_200_000_000L));
    }
    assertThat(files.batch().put(many, new Cancellation())).containsOnlyNulls();
    for (int i = 0; i < 20; i++) {
      assertThat(home.resolve("many-" + i)).hasContent("number " + i);
      assertThat(stat(home.resolve("many-" + i))).contains(" 604 ").endsWith(" 1200000000");
    }
    List<RemotePath> paths = many.stream().map(RemoteBatch.NewFile::path).toList();
    assertThat(files.lookAll(paths)).doesNotContainNull().hasSize(20);
    assertThat(files.removeFiles(paths)).isEmpty();
  }

  private static RemoteFailure refusal(org.assertj.core.api.ThrowableAssert.ThrowingCallable call) {
    return catchThrowableOfType(RemoteFailure.class, call);
  }

  @ParameterizedTest
  @EnumSource
  void rootSavesWhereNobodyElseCanTurnAPathAndNowhereElse(Tools tools) throws Exception {
    try (Connection own = open(tools)) {
      Path closed = Files.createDirectory(folder.resolve("closed"));
      Path file = Files.writeString(closed.resolve("site.conf"), "level 3\n");
      SystemSshd.run("chown", "root:" + OTHER, file.toString());
      Files.setPosixFilePermissions(file, PosixFilePermissions.fromString("rw-r-----"));
      Path open = Files.writeString(home.resolve("site.conf"), "level 3\n");
      // Only root's folders are on the way.
      for (Path on = folder; on != null; on = on.getParent()) {
        Assumptions.assumeTrue(
            Files.getOwner(on).getName().equals("root"), on + " belongs to another");
      }
      try (Connection root = as(own, "root")) {
        AtomicSave saver = new AtomicSave(root.files(), root, Journal.NONE);
        RemotePath path = RemotePath.of(file.toString());
        AtomicSave.Opened opened = saver.open(path, 1 << 20);
        saver.save(opened.version(), "level 4\n".getBytes(UTF_8), List.of());
        assertThat(file).hasContent("level 4");
        assertThat(stat(file)).startsWith("regular file 640 root:" + OTHER + " 8 ");
        root.files().setOwner(path, 0, 0);
        assertThat(stat(file)).startsWith("regular file 640 root:root 8 ");
        assertThat(root.script("id -u").outText()).isEqualTo("0\n");

        RemotePath others = RemotePath.of(open.toString());
        assertThat(root.files().list(others.parent(), portion -> {})).isNotEmpty();
        RemoteFailure refused = refusal(() -> root.files().setMode(others, new Mode(0666)));
        assertThat(refused.reason()).isEqualTo(Reason.NOT_SUPPORTED);
        assertThat(refused.detail()).isEqualTo(FilePhrase.NO_SAFE_FILE_SERVICE.of());
        assertThat(refusal(() -> root.files().removeFile(others))).isNotNull();
        assertThat(open).hasContent("level 3");
      }
    }
  }

  @ParameterizedTest
  @EnumSource(names = "GNU")
  void whatIsMissingIsNamed(Tools tools) throws Exception {
    try (Connection own = open(tools)) {
      Path few = Files.createDirectory(folder.resolve("few"));
      for (String name : List.of("sh", "stat", "readlink", "xargs", "id", "cat")) {
        Files.createSymbolicLink(few.resolve(name), Path.of("/usr/bin").resolve(name));
      }
      sudo.rule("Defaults:" + OWN + " secure_path=" + few, OWN + " ALL=(ALL) ALL");
      ActFailure refused = catchThrowableOfType(ActFailure.class, () -> as(own, OTHER));
      assertThat(refused.reason()).isEqualTo(ActFailure.Reason.NO_FILE_SERVICE);
      assertThat(Phrases.say(refused.detail())).contains("there is no base64");
    }
  }
}
