package zander.suite;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.lang.reflect.InvocationTargetException;
import java.lang.reflect.Proxy;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import zander.core.change.DeleteTask;
import zander.core.change.HeldThings;
import zander.core.change.PutBack;
import zander.core.change.PutBack.Verdict;
import zander.core.change.place.HoldingFolder;
import zander.core.connect.Connection;
import zander.core.facts.TreeSize;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.journal.ChangeKind;
import zander.core.journal.JournalEntry;
import zander.core.rights.Mode;
import zander.core.work.Cancellation;

/**
 * Deleting and replacing, and what is held meanwhile: each way of doing it, by the server's shell
 * and by its file service alone, against the stand-in and the system's own server.
 */
abstract class HoldingContract {
  /** How the work is done. */
  enum Way {
    SHELL,
    FILES
  }

  @TempDir Path local;

  abstract Connection open() throws IOException;

  /** An empty folder that the account owns. */
  abstract RemotePath freshFolder(Connection connection) throws IOException;

  final WorkBench bench(Way way) throws IOException {
    Connection connection = open();
    return new WorkBench(way, connection, freshFolder(connection), local);
  }

  static Cancellation go() {
    return new Cancellation();
  }

  @ParameterizedTest
  @EnumSource(Way.class)
  void guardsWhatMustNotGoAndNeverFollowsALinkOut(Way way) throws IOException {
    try (WorkBench on = bench(way)) {
      assertThat(on.deleting.guard(RemotePath.ROOT)).isEqualTo(DeleteTask.Guard.ROOT);
      assertThat(on.deleting.guard(on.home)).isEqualTo(DeleteTask.Guard.HOME);
      assertThat(on.deleting.guard(on.home.parent())).isEqualTo(DeleteTask.Guard.HOME);
      assertThat(on.deleting.guard(on.folder)).isEqualTo(DeleteTask.Guard.NONE);
      assertThat(on.deleting.hold(List.of(RemotePath.ROOT))).hasSize(1);

      on.changes.makeFolders(on.folder, "outside/inner");
      on.changes.makeFolders(on.folder, "tree/sub");
      RemoteTree.file(on.files, on.at("outside/inner/kept"), "kept");
      on.files.makeLink(on.at("tree/sub/out"), "../../outside");
      on.files.makeLink(on.at("tree/out"), on.at("outside").wire());
      assertThat(on.deleting.forGood(List.of(on.at("tree")), n -> {}, go())).isEmpty();
      assertThat(PathContract.read(on.files, on.at("outside/inner/kept"))).isEqualTo("kept");
      assertThat(on.names()).containsExactly("outside");
    }
  }

  /** As a mirror deletes them: equal names from several folders at once. */
  @ParameterizedTest
  @EnumSource(Way.class)
  void holdsEqualNamesOfSeveralFolders(Way way) throws IOException {
    try (WorkBench on = bench(way)) {
      List<RemotePath> all = new ArrayList<>();
      for (String folder : List.of("a", "b", "c")) {
        on.changes.makeFolders(on.folder, folder);
        all.add(on.at(folder + "/old"));
        RemoteTree.file(on.files, on.at(folder + "/old"), "of " + folder);
      }
      Map<String, String> before = on.tree();
      assertThat(on.deleting.hold(all)).isEmpty();
      for (RemotePath path : all) {
        assertThat(on.files.lookAll(List.of(path)).get(0)).isNull();
      }
      assertThat(on.putBack.runAll(on.journal.entries().subList(0, 3), n -> {}, go()))
          .allMatch(PutBack.Outcome::isDone);
      assertThat(on.tree()).isEqualTo(before);
    }
  }

  /** Places have names by chance, and one may be taken within the same second. */
  @ParameterizedTest
  @EnumSource(Way.class)
  void holdsInTheSameFolderWhereANameIsTaken(Way way) throws IOException {
    try (WorkBench on = bench(way)) {
      RemoteTree.file(on.files, on.at("old"), "old");
      List<RemotePath> taken = new ArrayList<>();
      DeleteTask deleting =
          new DeleteTask(takingTheFirstPlace(on.files, taken), on.commands, on.journal, on.home);
      assertThat(deleting.hold(List.of(on.at("old")))).isEmpty();
      RemotePath held = on.journal.entries().get(0).to();
      assertThat(taken).hasSize(1);
      assertThat(held.parent()).isNotEqualTo(taken.get(0));
      assertThat(held.parent().parent()).isEqualTo(taken.get(0).parent());
    }
  }

  /** Somebody else makes the first place that is asked for, just before. */
  private static RemoteFiles takingTheFirstPlace(RemoteFiles files, List<RemotePath> taken) {
    return (RemoteFiles)
        Proxy.newProxyInstance(
            RemoteFiles.class.getClassLoader(),
            new Class<?>[] {RemoteFiles.class},
            (proxy, method, arguments) -> {
              if (method.getName().equals("makeFolder")
                  && arguments[0] instanceof RemotePath place
                  && place.parent().wireName().equals(HoldingFolder.NAME)
                  && taken.isEmpty()) {
                taken.add(place);
                files.makeFolder(place, (Mode) arguments[1]);
              }
              try {
                return method.invoke(files, arguments);
              } catch (InvocationTargetException e) {
                throw e.getCause();
              }
            });
  }

  @ParameterizedTest
  @EnumSource(Way.class)
  void letsGoOfHeldThingsByTheRules(Way way) throws IOException {
    try (WorkBench on = bench(way)) {
      HeldThings held = new HeldThings(on.files, on.commands, on.journal);
      for (String name : List.of("first", "second", "third")) {
        RemoteTree.file(on.files, on.at(name), new byte[1000], 0644);
        on.deleting.hold(List.of(on.at(name)));
      }
      assertThat(held.entries()).hasSize(3).allMatch(entry -> HoldingFolder.isHeld(entry.to()));
      TreeSize measure = new TreeSize(on.files, on.commands);
      HeldThings.Sizes sizes = paths -> measure.each(paths, go());
      assertThat(held.letGo(new HeldThings.Rules(30, 2500), sizes, go())).isEqualTo(1);
      assertThat(held.entries())
          .extracting(entry -> entry.path().name())
          .containsExactly("third", "second");
      assertThat(on.putBack.run(held.entries().get(1), false)).isEqualTo(Verdict.READY);
      assertThat(held.letGo(new HeldThings.Rules(30, 10), sizes, go()))
          .as("what was deleted last stays, however large")
          .isZero();
      assertThat(held.letGo(new HeldThings.Rules(0, 0), sizes, go())).isEqualTo(1);
      assertThat(held.entries()).isEmpty();
      assertThat(on.names()).containsExactly("second");
    }
  }

  @ParameterizedTest
  @EnumSource(Way.class)
  void replacedFilesOfATransferCanBePutBack(Way way) throws IOException {
    try (WorkBench on = bench(way)) {
      RemoteTree.makeSite(on.files, on.folder);
      RemotePath stations = on.at("stations");
      Map<String, String> before = RemoteTree.describe(on.files, stations);
      Path tree = java.nio.file.Files.createDirectories(local.resolve("up/stations/new"));
      java.nio.file.Files.writeString(tree.resolveSibling("station-3.html"), "from here");
      java.nio.file.Files.writeString(tree.resolve("more.html"), "more");
      var progress =
          new zander.core.transfer.Transfer(
                  new zander.core.transfer.local.LocalEndpoint(local.resolve("up")),
                  new zander.core.transfer.remote.RemoteEndpoint(
                      zander.core.transfer.server.ServerChannels.of(on.files),
                      on.folder,
                      on.journal,
                      on.home),
                  zander.core.transfer.rules.ConflictRule.REPLACE,
                  PathContract.NEVER_ASKED,
                  go())
              .run(List.of("stations"));
      assertThat(progress.problems()).isEmpty();
      assertThat(PathContract.read(on.files, stations.child("station-3.html")))
          .isEqualTo("from here");
      assertThat(on.journal.entries()).anyMatch(entry -> entry.kind() == ChangeKind.REPLACE);
      putBack(on, on.putBack.since(0));
      Map<String, String> after = RemoteTree.describe(on.files, stations);
      // A transfer of thousands of files does not look at its folders' times.
      before.keySet().removeIf(path -> path.equals("."));
      after.keySet().removeIf(path -> path.equals("."));
      assertThat(after).isEqualTo(before);
    }
  }

  /** Newest first; each must be ready, because nobody else was here. */
  static void putBack(WorkBench on, List<JournalEntry> entries) throws IOException {
    for (JournalEntry entry : entries) {
      assertThat(on.putBack.run(entry, false))
          .as("%s %s", entry.kind(), entry.path())
          .isEqualTo(Verdict.READY);
    }
  }
}
