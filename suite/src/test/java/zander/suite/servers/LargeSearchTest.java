package zander.suite.servers;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.CancellationException;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import zander.core.connect.Connection;
import zander.core.files.RemotePath;
import zander.core.find.NameSearch;
import zander.core.find.SearchText;
import zander.core.find.TextSearch;
import zander.core.listing.Narrowing;
import zander.core.work.Cancellation;
import zander.suite.SystemSshd;

/** Searches of the sizes that servers have. */
@Timeout(value = 120, unit = TimeUnit.SECONDS)
class LargeSearchTest {
  private static final int NAMES = 100_000;
  private static final int HITS = 50_000;

  @TempDir static Path folder;
  private static SystemSshd sshd;
  private static RemotePath tree;

  @BeforeAll
  static void start() throws Exception {
    Assumptions.assumeTrue(SystemSshd.isPossible(), "needs openssh-server, and to be root");
    sshd = new SystemSshd(folder, List.of("zndsearch"), List.of());
    Path home = folder.resolve("zndsearch");
    tree = RemotePath.of(home.resolve("tree").toString());
    SystemSshd.run(
        "sh",
        "-c",
        "mkdir $0/tree && cd $0/tree && seq -f 'd%.0f' 1 100 | xargs mkdir && for d in d*; do"
            + " (cd $d && seq -f 'level-%.0f.txt' 1 "
            + NAMES / 100
            + " | xargs touch); done && seq -f 'reading %.0f at Long Reach' 1 "
            + HITS
            + " > d1/readings.csv && chmod -R a+rX .",
        home.toString());
  }

  @AfterAll
  static void stop() throws Exception {
    if (sshd != null) {
      sshd.close();
    }
  }

  @Test
  void aHundredThousandNamesAreFound() throws Exception {
    try (Connection connection = sshd.open("zndsearch")) {
      int[] found = {0, 0};
      NameSearch.Outcome outcome =
          new NameSearch(connection.files(), connection)
              .run(
                  tree,
                  Narrowing.parse("*.txt", 0),
                  part -> {
                    found[0] += part.size();
                    found[1]++;
                  },
                  new Cancellation());
      assertThat(found[0]).isEqualTo(NAMES);
      assertThat(found[1]).as("told in portions").isGreaterThan(100);
      assertThat(outcome.byServer()).isTrue();
      assertThat(connection.isOpen()).isTrue();
    }
  }

  @Test
  void aSearchCanBeStoppedAndTheConnectionLives() throws Exception {
    try (Connection connection = sshd.open("zndsearch")) {
      Cancellation stop = new Cancellation();
      assertThatThrownBy(
              () ->
                  new NameSearch(connection.files(), connection)
                      .run(tree, Narrowing.parse("*.txt", 0), part -> stop.stop(), stop))
          .isInstanceOf(CancellationException.class);
      assertThat(connection.files().list(tree, part -> {})).hasSize(100);
    }
  }

  @Test
  void fiftyThousandHitsStream() throws Exception {
    try (Connection connection = sshd.open("zndsearch")) {
      int[] found = {0};
      new TextSearch(connection.files(), connection)
          .run(
              tree,
              new SearchText("Long Reach", false, true),
              Narrowing.NONE,
              part -> found[0] += part.size(),
              new Cancellation());
      assertThat(found[0]).isEqualTo(HITS);
    }
  }
}
