package zander.suite;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.lang.reflect.InvocationTargetException;
import java.lang.reflect.Proxy;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.OptionalInt;
import java.util.Set;
import java.util.TreeSet;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import zander.core.change.DeleteTask;
import zander.core.change.Recovery;
import zander.core.change.RemoteChanges;
import zander.core.change.RightsChange;
import zander.core.change.save.AtomicSave;
import zander.core.connect.Connection;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.journal.FileJournal;
import zander.core.journal.JournalEntry;
import zander.core.journal.JournalRules;
import zander.core.rights.Mode;
import zander.core.work.Cancellation;

/**
 * A program that dies after any number of requests: the next start finds what was under way, and
 * finishing it or taking its half away leaves the tree as after the change or as before it.
 */
class RecoveryTest {
  @TempDir static Path folder;
  private static Riverside riverside;
  private static Connection connection;

  @BeforeAll
  static void start() throws IOException {
    riverside = new Riverside(folder);
    connection = riverside.open("lab-box");
  }

  @AfterAll
  static void stop() {
    connection.close();
    riverside.close();
  }

  /** The program is gone: nothing of it runs any more, not even what tidies up. */
  private static final class Killed extends Error {
    Killed() {
      super("killed");
    }
  }

  /** One change of a small site. */
  enum Change {
    SAVE {
      @Override
      void run(RemoteFiles files, FileJournal journal, RemotePath site) throws IOException {
        AtomicSave saver = new AtomicSave(files, connection, journal);
        saver.save(saver.open(site.child("index.html"), 1000).version(), new byte[9], List.of());
      }
    },
    RIGHTS {
      @Override
      void run(RemoteFiles files, FileJournal journal, RemotePath site) throws IOException {
        new RightsChange(files, journal)
            .apply(
                List.of(site.child("index.html"), site.child("empty")),
                OptionalInt.empty(),
                OptionalInt.of(connection.whoAmI().gids().get(1)),
                (mode, isFolder) -> new Mode(0610));
      }
    },
    RENAME {
      @Override
      void run(RemoteFiles files, FileJournal journal, RemotePath site) throws IOException {
        changes(files, journal).rename(site.child("stations"), site.child("gauges"));
      }
    },
    COPY {
      @Override
      void run(RemoteFiles files, FileJournal journal, RemotePath site) throws IOException {
        changes(files, journal)
            .copy(
                List.of(site.child("stations")), site.child("empty"), n -> {}, new Cancellation());
      }
    },
    FOLDERS {
      @Override
      void run(RemoteFiles files, FileJournal journal, RemotePath site) throws IOException {
        changes(files, journal).makeFolders(site, "2026/11");
      }
    },
    DELETE {
      @Override
      void run(RemoteFiles files, FileJournal journal, RemotePath site) throws IOException {
        new DeleteTask(files, new NoShell(), journal, connection.whoAmI().home())
            .hold(List.of(site.child("stations"), site.child("latest")));
      }
    },
    FOR_GOOD {
      @Override
      void run(RemoteFiles files, FileJournal journal, RemotePath site) throws IOException {
        new DeleteTask(files, new NoShell(), journal, connection.whoAmI().home())
            .forGood(List.of(site.child("stations")), n -> {}, new Cancellation());
      }
    };

    abstract void run(RemoteFiles files, FileJournal journal, RemotePath site) throws IOException;

    private static RemoteChanges changes(RemoteFiles files, FileJournal journal) {
      return new RemoteChanges(files, new NoShell(), journal);
    }
  }

  @ParameterizedTest
  @EnumSource(Change.class)
  void whatWasUnderWayIsFoundAndEnded(Change change) throws Exception {
    int requests = requestsOf(change);
    assertThat(requests).isGreaterThan(2);
    Set<Recovery.State> seen = new TreeSet<>();
    for (int after = 0; after < requests; after++) {
      for (boolean finishing : new boolean[] {true, false}) {
        killed(change, after, finishing, seen);
      }
    }
    assertThat(seen).as("states that were found").isNotEmpty();
  }

  private static RemotePath freshSite() throws IOException {
    RemotePath site =
        RemotePath.of("/home/warden/trial/site-" + Long.toHexString(System.nanoTime()));
    connection.files().makeFolder(site, new Mode(0755));
    RemoteTree.makeSite(connection.files(), site);
    return site;
  }

  private static int requestsOf(Change change) throws Exception {
    int[] counted = {0};
    Path journal = folder.resolve("count-" + change);
    try (FileJournal written = new FileJournal(journal, "lab-box", JournalRules.USUAL)) {
      change.run(dyingAfter(Integer.MAX_VALUE, counted), written, freshSite());
    }
    return counted[0];
  }

  private void killed(Change change, int after, boolean finishing, Set<Recovery.State> seen)
      throws Exception {
    String what = change + " killed after " + after + (finishing ? ", finished" : ", undone");
    RemotePath site = freshSite();
    Map<String, String> before = names(site);
    Path place = folder.resolve(change + "-" + after + "-" + finishing);
    try (FileJournal journal = new FileJournal(place, "lab-box", JournalRules.USUAL)) {
      change.run(dyingAfter(after, new int[1]), journal, site);
    } catch (Killed e) {
      // What is tested begins here.
    }
    List<JournalEntry> left;
    try (FileJournal journal = new FileJournal(place, "lab-box", JournalRules.USUAL)) {
      left = new ArrayList<>(journal.unfinished());
      Recovery recovery = new Recovery(connection.files(), new NoShell(), journal);
      for (JournalEntry entry : left) {
        Recovery.Finding finding = recovery.look(entry);
        seen.add(finding.state());
        assertThat(finding.state()).as(what).isNotEqualTo(Recovery.State.OTHER);
        if (finding.state() == Recovery.State.DONE || (finishing && finding.mayFinish())) {
          recovery.finish(finding);
        } else if (change == Change.FOR_GOOD) {
          recovery.leave(finding);
        } else {
          recovery.undo(finding);
        }
      }
      assertThat(journal.unfinished()).isEmpty();
    }
    try (FileJournal journal = new FileJournal(place, "lab-box", JournalRules.USUAL)) {
      assertThat(journal.unfinished()).as(what).isEmpty();
      boolean all = !journal.entries().isEmpty();
      for (JournalEntry entry : journal.entries()) {
        all &= entry.isDone();
      }
      Map<String, String> now = names(site);
      assertThat(now.keySet()).as(what).noneMatch(path -> path.contains(".zander-"));
      if (!all && journal.entries().size() == 1 && change != Change.FOR_GOOD) {
        assertThat(now).as(what).isEqualTo(before);
      }
    }
  }

  /** The tree without folders' times, which making and removing half a thing touches. */
  private static Map<String, String> names(RemotePath site) throws IOException {
    Map<String, String> tree = RemoteTree.describe(connection.files(), site);
    tree.replaceAll(
        (path, line) -> line.startsWith("FOLDER") ? line.replaceAll(" [0-9]+ $", "") : line);
    return tree;
  }

  /** The connection's files until so many requests were made. */
  private static RemoteFiles dyingAfter(int requests, int[] counted) {
    return (RemoteFiles)
        Proxy.newProxyInstance(
            RemoteFiles.class.getClassLoader(),
            new Class<?>[] {RemoteFiles.class},
            (proxy, method, arguments) -> {
              synchronized (counted) {
                if (counted[0]++ >= requests) {
                  throw new Killed();
                }
              }
              try {
                return method.invoke(connection.files(), arguments);
              } catch (InvocationTargetException e) {
                throw e.getCause();
              }
            });
  }
}
