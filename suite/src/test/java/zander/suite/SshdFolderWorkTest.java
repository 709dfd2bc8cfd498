package zander.suite;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.InetSocketAddress;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import zander.core.archive.Archives;
import zander.core.archive.WebFetch;
import zander.core.change.DeleteTask;
import zander.core.change.RemoteChanges;
import zander.core.connect.Connection;
import zander.core.files.RemoteFailure;
import zander.core.files.RemotePath;
import zander.core.journal.FileJournal;
import zander.core.journal.Journal;
import zander.core.journal.JournalRules;
import zander.core.rights.Mode;

/** Work in folders against the system's own server, by an account with a shell and one without. */
class SshdFolderWorkTest extends FolderWorkContract {
  @TempDir static Path folder;
  private static SystemSshd sshd;
  private static final AtomicInteger NUMBER = new AtomicInteger();

  @BeforeAll
  static void start() throws Exception {
    Assumptions.assumeTrue(SystemSshd.isPossible(), "needs openssh-server, and to be root");
    sshd = new SystemSshd(folder, List.of("zndwork", "zndfiles"), List.of());
    SystemSshd.run("usermod", "-s", "/usr/sbin/nologin", "zndfiles");
  }

  @AfterAll
  static void stop() throws Exception {
    if (sshd != null) {
      sshd.close();
    }
  }

  @Override
  Connection open() throws IOException {
    return sshd.open("zndwork");
  }

  @Override
  RemotePath freshFolder(Connection connection) throws IOException {
    RemotePath fresh = connection.whoAmI().home().child("work-" + NUMBER.incrementAndGet());
    connection.files().makeFolder(fresh, new Mode(0755));
    return fresh;
  }

  @Test
  void worksForAnAccountWithoutAShell() throws Exception {
    try (Connection connection = sshd.open("zndfiles")) {
      assertThat(connection.hasShell()).isFalse();
      var files = connection.files();
      RemotePath home = connection.whoAmI().home();
      RemotePath site = home.child("site");
      files.makeFolder(site, new Mode(0755));
      RemoteTree.makeSite(files, site);
      Map<String, String> before = RemoteTree.describe(files, site);
      RemoteChanges changes = new RemoteChanges(files, connection, Journal.NONE);
      assertThat(changes.copiesThroughHere()).as("its sshd copies by itself").isFalse();
      RemotePath copies = home.child("copies");
      files.makeFolder(copies, new Mode(0755));
      changes.copy(List.of(site), copies, n -> {}, go());
      assertThat(RemoteTree.describe(files, copies.child("site"))).isEqualTo(before);
      DeleteTask deleting = new DeleteTask(files, connection, Journal.NONE, home);
      assertThat(deleting.forGood(List.of(copies), n -> {}, go())).isEmpty();
      assertThat(Files.exists(Path.of(copies.text()))).isFalse();
    }
  }

  /** A name is never an instruction: tar itself would read what is behind the backslash. */
  @Test
  void packsNamesAsTheyAre() throws Exception {
    try (Connection connection = open()) {
      RemotePath at = freshFolder(connection);
      RemoteTree.file(connection.files(), at.child("secret"), "the gate's code\n");
      RemotePath site = at.child("site");
      connection.files().makeFolder(site, new Mode(0755));
      List<RemotePath> odd =
          Stream.of("x\\057..\\057..\\057secret", "..\\057secret", "tab\\tnew\\nline", "-f")
              .map(site::child)
              .toList();
      for (RemotePath one : odd) {
        RemoteTree.file(connection.files(), one, one.name());
      }
      RemotePath archive = site.child("odd.tar.gz");
      new Archives(
              connection.files(),
              connection,
              new RemoteChanges(connection.files(), connection, Journal.NONE))
          .pack(odd, archive, go());
      assertThat(SystemSshd.run("tar", "--quoting-style=literal", "-tzf", archive.text()).lines())
          .containsExactlyElementsOf(odd.stream().map(one -> "./" + one.name()).toList());
      assertThat(SystemSshd.run("tar", "-xzOf", archive.text())).doesNotContain("gate");
    }
  }

  @Test
  void unpacksNoSpecialFiles() throws Exception {
    try (Connection connection = sshd.open("root")) {
      RemotePath at = RemotePath.of(folder.resolve("special").toString());
      connection.files().makeFolder(at, new Mode(0755));
      connection.files().makeFolder(at.child("site"), new Mode(0755));
      Path here = Path.of(at.text());
      SystemSshd.run("mkfifo", here.resolve("pipe").toString());
      SystemSshd.run("mknod", here.resolve("null").toString(), "c", "1", "3");
      for (String one : List.of("pipe", "null")) {
        RemotePath archive = at.child(one + ".tar");
        SystemSshd.run("tar", "-cf", archive.text(), "-C", here.toString(), one, "site");
        SystemSshd.run("rm", here.resolve(one).toString());
        Archives archives =
            new Archives(
                connection.files(),
                connection,
                new RemoteChanges(connection.files(), connection, Journal.NONE));
        assertThatThrownBy(() -> archives.unpack(archive, true, go()))
            .hasMessageContaining("HOLDS_DEVICES");
        assertThat(here.resolve(one)).doesNotExist();
      }
      assertThat(SystemSshd.run("ls", "-A", at.text()).lines())
          .containsExactlyInAnyOrder("null.tar", "pipe.tar", "site");
    }
  }

  @Test
  void packsAndUnpacksAndKeepsWhatLeadsOutsideOut() throws Exception {
    try (Connection connection = open()) {
      RemotePath at = freshFolder(connection);
      var files = connection.files();
      RemotePath site = at.child("site");
      files.makeFolder(site, new Mode(0755));
      RemoteTree.makeSite(files, site);
      Map<String, String> before = RemoteTree.describe(files, site);
      Archives archives =
          new Archives(files, connection, new RemoteChanges(files, connection, Journal.NONE));
      RemotePath packed = at.child("-site.tar.gz");
      archives.pack(List.of(site), packed, go());
      assertThat(archives.look(packed, go()).count()).isEqualTo(before.size());
      files.rename(site, at.child("first"));
      assertThat(archives.unpack(packed, true, go())).isEqualTo(site);
      assertThat(RemoteTree.describe(files, site)).isEqualTo(before);

      Path evil = Path.of(at.text(), "evil.tar");
      SystemSshd.run(
          "tar", "-cPf", evil.toString(), "-C", site.text(), "stations/../../site/empty");
      SystemSshd.run("chmod", "644", evil.toString());
      assertThatThrownBy(() -> archives.unpack(at.child("evil.tar"), false, go()))
          .hasMessageContaining("LEADS_OUTSIDE");
      assertThat(files.list(at, part -> {}))
          .extracting(entry -> entry.name())
          .containsExactlyInAnyOrder("site", "first", "-site.tar.gz", "evil.tar");
    }
  }

  @Test
  void fetchesFromTheWebWithTheServersOwnTool() throws Exception {
    Assumptions.assumeTrue(
        Files.isExecutable(Path.of("/usr/bin/curl"))
            || Files.isExecutable(Path.of("/usr/bin/wget")),
        "needs curl or wget");
    HttpServer web =
        HttpServer.create(new InetSocketAddress(java.net.InetAddress.getLoopbackAddress(), 0), 0);
    byte[] content = "level,2.48\n".repeat(9000).getBytes(UTF_8);
    List<String> arguments = new CopyOnWriteArrayList<>();
    web.createContext(
        "/a b.csv",
        exchange -> {
          // Whoever fetches is running now, and everybody on the machine sees its arguments.
          ProcessHandle.allProcesses()
              .flatMap(process -> process.info().commandLine().stream())
              .filter(words -> words.matches(".*\\b(curl|wget)\\b.*"))
              .forEach(arguments::add);
          exchange.sendResponseHeaders(200, content.length);
          exchange.getResponseBody().write(content);
          exchange.close();
        });
    web.start();
    try (Connection connection = open();
        FileJournal journal =
            new FileJournal(folder.resolve("web-journal"), "lab-box", JournalRules.USUAL)) {
      RemotePath at = freshFolder(connection);
      var files = connection.files();
      WebFetch fetch =
          new WebFetch(files, connection, new RemoteChanges(files, connection, journal));
      var address =
          WebFetch.address("http://127.0.0.1:" + web.getAddress().getPort() + "/a%20b.csv");
      RemotePath target = at.child(WebFetch.nameOf(address));
      assertThatThrownBy(() -> fetch.fetch(address, target, "0".repeat(64), n -> {}, go()))
          .hasMessageContaining("CHECKSUM_DIFFERS");
      assertThat(files.list(at, part -> {})).isEmpty();
      assertThat(fetch.fetch(address, target, sha256(content), n -> {}, go()))
          .isEqualTo(sha256(content));
      assertThat(files.readAll(at.child("a b.csv"), 1 << 20)).isEqualTo(content);
      var secret = WebFetch.address(address + "?token=kingfisher-41");
      fetch.fetch(secret, at.child("again.csv"), "", n -> {}, go());
      assertThat(arguments).isNotEmpty().noneMatch(words -> words.contains("kingfisher"));
      assertThat(journal.entries().get(0).note())
          .endsWith("/a%20b.csv?...")
          .doesNotContain("kingfisher");
    } finally {
      web.stop(0);
    }
  }

  @Test
  void knowsWhereAnotherFileSystemBegins() throws Exception {
    try (Connection connection = sshd.open("root")) {
      DeleteTask deleting =
          new DeleteTask(connection.files(), connection, Journal.NONE, connection.whoAmI().home());
      assertThat(deleting.guard(RemotePath.of("/proc"))).isEqualTo(DeleteTask.Guard.MOUNT_POINT);
      assertThat(deleting.guard(RemotePath.of("/usr"))).isEqualTo(DeleteTask.Guard.NONE);
    }
  }

  /** Where the account's home is on another file system, the holding folder is elsewhere. */
  @Test
  void holdsOnTheFileSystemOfWhatIsDeleted() throws Exception {
    Path other = Path.of("/dev/shm");
    Assumptions.assumeTrue(
        Files.isDirectory(other) && !Files.getFileStore(other).equals(Files.getFileStore(folder)),
        "needs a second file system");
    Path base = Files.createTempDirectory(other, "zander-suite");
    try (Connection connection = sshd.open("root")) {
      RemotePath at = RemotePath.of(base.toString());
      RemoteTree.makeSite(connection.files(), at);
      DeleteTask deleting =
          new DeleteTask(connection.files(), connection, Journal.NONE, connection.whoAmI().home());
      List<RemoteFailure> failed = deleting.hold(List.of(at.child("stations")));
      assertThat(failed).isEmpty();
      assertThat(Files.exists(base.resolve("stations"))).isFalse();
      assertThat(other.resolve(".zander-held")).isDirectory();
      // Moving to the other file system copies, and holds the original.
      RemotePath goal = connection.whoAmI().home().child("zander-suite-moved");
      connection.files().makeFolder(goal, new Mode(0700));
      new RemoteChanges(connection.files(), connection, Journal.NONE)
          .move(List.of(at.child("gauge run")), goal, deleting, n -> {}, go());
      assertThat(Files.readString(Path.of(goal.text(), "gauge run"))).isEqualTo("#!/bin/sh\n");
      assertThat(Files.exists(base.resolve("gauge run"))).isFalse();
      SystemSshd.run("rm", "-rf", goal.text());
    } finally {
      SystemSshd.run("rm", "-rf", base.toString(), other.resolve(".zander-held").toString());
    }
  }
}
