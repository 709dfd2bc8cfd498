package zander.suite.servers;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import zander.core.change.DeleteTask;
import zander.core.change.RemoteChanges;
import zander.core.connect.Connection;
import zander.core.files.FileKind;
import zander.core.files.RemoteFailure;
import zander.core.files.RemotePath;
import zander.core.journal.Journal;
import zander.core.work.Cancellation;
import zander.suite.SystemSshd;

/** A server that looks through links where it is asked not to: nothing may go by them. */
@Timeout(value = 60, unit = TimeUnit.SECONDS)
class FollowedLinksTest {
  @TempDir static Path folder;
  private static OtherServer server;
  private static Path home;

  @BeforeAll
  static void start() throws Exception {
    Assumptions.assumeTrue(
        SystemSshd.isPossible() && Files.isExecutable(Path.of("/usr/sbin/proftpd")),
        "needs proftpd-core with its crypto module, and to be root");
    server = OtherServer.proftpd(folder, "zndlinks");
    home = server.account().home();
    SystemSshd.run(
        "sh",
        "-c",
        "cd $0 && mkdir -p site old/in && echo level > site/index.html && echo page >"
            + " site/feed.xml && ln -s site current && ln -s ../site old/in/out && ln -s"
            + " site/index.html page && chown -hR zndlinks: .",
        home.toString());
  }

  @AfterAll
  static void stop() throws Exception {
    if (server != null) {
      server.close();
    }
  }

  private static RemotePath at(String name) {
    return RemotePath.of(home.resolve(name).toString());
  }

  @Test
  void whatALinkLeadsToStaysWhereItIs() throws Exception {
    try (Connection connection = server.open()) {
      assertThat(connection.hasShell()).isFalse();
      assertThat(connection.files().list(at("."), part -> {}))
          .filteredOn(entry -> entry.name().equals("current"))
          .allMatch(entry -> entry.kind() == FileKind.LINK);
      DeleteTask deleting =
          new DeleteTask(connection.files(), connection, Journal.NONE, connection.whoAmI().home());
      List<RemotePath> paths = List.of(at("current"), at("page"), at("old"));
      List<RemoteFailure> failed = deleting.forGood(paths, gone -> {}, new Cancellation());
      assertThat(home.resolve("site/index.html")).exists();
      assertThat(home.resolve("site/feed.xml")).exists();
      assertThat(Files.isSymbolicLink(home.resolve("current"))).isTrue();
      assertThat(failed)
          .allMatch(e -> e.reason() == RemoteFailure.Reason.LINKS_FOLLOWED)
          .extracting(RemoteFailure::path)
          .contains(at("current"), at("page"));

      assertThat(deleting.hold(List.of(at("current"), at("page"))))
          .hasSize(2)
          .allMatch(e -> e.reason() == RemoteFailure.Reason.LINKS_FOLLOWED);
      assertThat(home.resolve("site/index.html")).exists();
      RemoteChanges changes = new RemoteChanges(connection.files(), connection, Journal.NONE);
      assertRefused(() -> changes.rename(at("current"), at("earlier")));
      assertRefused(() -> changes.duplicate(at("current"), n -> {}, new Cancellation()));
      assertThat(home.resolve("site/index.html")).exists();
    }
  }

  private interface Work {
    void run() throws Exception;
  }

  private static void assertRefused(Work work) {
    RemoteFailure failure = catchThrowableOfType(RemoteFailure.class, work::run);
    assertThat(failure).isNotNull();
    assertThat(failure.reason()).isEqualTo(RemoteFailure.Reason.LINKS_FOLLOWED);
  }
}
