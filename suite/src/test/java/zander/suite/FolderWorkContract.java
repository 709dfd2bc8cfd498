package zander.suite;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.OptionalInt;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import zander.core.change.PutBack.Verdict;
import zander.core.change.RightsChange;
import zander.core.change.save.AtomicSave;
import zander.core.connect.command.ExecResult;
import zander.core.facts.Checksums;
import zander.core.facts.MeasuredTree;
import zander.core.facts.TreeSize;
import zander.core.files.RemoteEntry;
import zander.core.files.RemoteFailure;
import zander.core.files.RemotePath;
import zander.core.find.NameSearch;
import zander.core.find.ReplaceTask;
import zander.core.find.SearchMatch;
import zander.core.find.SearchText;
import zander.core.find.TextSearch;
import zander.core.journal.JournalEntry;
import zander.core.listing.Narrowing;
import zander.core.rights.Mode;

/** The rest of the work in folders, in the same ways. */
abstract class FolderWorkContract extends HoldingContract {
  @ParameterizedTest
  @EnumSource(Way.class)
  void everyChangePutBackLeavesTheTreeAsItWas(Way way) throws IOException {
    try (WorkBench on = bench(way)) {
      RemoteTree.makeSite(on.files, on.folder);
      Map<String, String> before = on.tree();

      on.changes.rename(on.at("index.html"), on.at("-index old.html"));
      on.changes.move(
          List.of(on.at("gauge run"), on.at("latest")),
          on.at("stations"),
          on.deleting,
          n -> {},
          go());
      on.changes.copy(List.of(on.at("stations")), on.at("empty"), n -> {}, go());
      on.changes.duplicate(on.at("-index old.html"), n -> {}, go());
      on.changes.makeFile(on.at("new.conf"));
      on.changes.makeFolders(on.folder, "2026/11/photos");
      on.changes.makeLink(on.at("to-new"), "new.conf");
      AtomicSave saver = new AtomicSave(on.files, on.commands, on.journal);
      var opened = saver.open(on.at("-index old.html"), 1 << 20);
      var saved = saver.save(opened.version(), "one".getBytes(UTF_8), List.of());
      saver.save(saved.version(), "two".getBytes(UTF_8), List.of());
      new RightsChange(on.files, on.journal)
          .apply(
              List.of(on.at("stations/station-3.html"), on.at("empty")),
              OptionalInt.empty(),
              OptionalInt.empty(),
              (mode, folder) -> new Mode(0777));
      assertThat(on.deleting.hold(List.of(on.at("stations"), on.at("gone")))).isEmpty();
      assertThat(on.names()).doesNotContain("stations", "gone").contains("2026", "to-new");
      assertThat(on.tree()).isNotEqualTo(before);

      assertThat(on.putBack.since(0)).isEqualTo(on.journal.entries());
      putBack(on, on.journal.entries());
      assertThat(on.tree()).isEqualTo(before);
      assertThat(on.putBack.since(0)).isEmpty();

      // Putting back can be put back: all of it again, and back once more by what is in force.
      long half = on.journal.entries().size() / 2;
      putBack(on, on.journal.entries().subList(0, (int) half));
      assertThat(on.names()).doesNotContain("stations", "gone").contains("2026", "to-new");
      List<JournalEntry> inForce = on.putBack.since(0);
      assertThat(inForce).hasSize((int) half);
      putBack(on, inForce);
      assertThat(on.names()).containsExactlyInAnyOrderElementsOf(topNames(before));
    }
  }

  private static List<String> topNames(Map<String, String> tree) {
    return tree.keySet().stream()
        .filter(path -> !path.equals(".") && path.lastIndexOf('/') == 0)
        .map(path -> path.substring(1))
        .toList();
  }

  @ParameterizedTest
  @EnumSource(Way.class)
  void saysWhenSomethingElseChangedMeanwhile(Way way) throws IOException {
    try (WorkBench on = bench(way)) {
      RemotePath file = on.at("feed.xml");
      RemoteTree.file(on.files, file, "old");
      AtomicSave saver = new AtomicSave(on.files, on.commands, on.journal);
      saver.save(saver.open(file, 1 << 20).version(), "mine".getBytes(UTF_8), List.of());
      JournalEntry save = on.journal.entries().get(0);
      on.files.removeFile(file);
      RemoteTree.file(on.files, file, "theirs");
      assertThat(on.putBack.run(save, false)).isEqualTo(Verdict.CHANGED_SINCE);
      assertThat(PathContract.read(on.files, file)).isEqualTo("theirs");
      assertThat(on.putBack.run(save, true)).isEqualTo(Verdict.READY);
      assertThat(PathContract.read(on.files, file)).isEqualTo("old");
      JournalEntry back = on.journal.entries().get(0);
      assertThat(on.journal.contentBefore(back))
          .as("theirs is kept")
          .asString()
          .isEqualTo("theirs");
      assertThat(on.putBack.look(save)).isEqualTo(Verdict.ALREADY_PUT_BACK);

      on.deleting.hold(List.of(file));
      JournalEntry deleted = on.journal.entries().get(0);
      RemoteTree.file(on.files, file, "another of that name");
      assertThat(on.putBack.run(deleted, true)).isEqualTo(Verdict.NAME_TAKEN);
      on.files.removeFile(deleted.to());
      assertThat(on.putBack.look(deleted)).isEqualTo(Verdict.GONE);

      assertThat(on.deleting.forGood(List.of(file), n -> {}, go())).isEmpty();
      assertThat(on.putBack.look(on.journal.entries().get(0))).isEqualTo(Verdict.FOR_GOOD);
    }
  }

  /** Not only at its top. */
  @ParameterizedTest
  @EnumSource(Way.class)
  void whatCameIntoACopiedFolderMeanwhileIsNotTakenAwayUnasked(Way way) throws IOException {
    try (WorkBench on = bench(way)) {
      RemoteTree.makeSite(on.files, on.folder);
      on.changes.makeFolders(on.folder, "deep/in/it");
      RemoteTree.file(on.files, on.at("deep/in/it/feed.xml"), "old");
      on.changes.copy(List.of(on.at("deep")), on.at("empty"), n -> {}, go());
      JournalEntry copy = on.journal.entries().get(0);
      assertThat(on.putBack.look(copy)).isEqualTo(Verdict.READY);
      RemotePath theirs = on.at("empty/deep/in/it/theirs");
      RemoteTree.file(on.files, theirs, "theirs");
      assertThat(on.putBack.look(copy)).isEqualTo(Verdict.CHANGED_SINCE);
      on.files.removeFile(theirs);
      assertThat(on.putBack.look(copy)).isEqualTo(Verdict.READY);
      RemotePath file = on.at("empty/deep/in/it/feed.xml");
      on.files.setTimes(file, 1_000_000, 1_000_000);
      assertThat(on.putBack.run(copy, false)).isEqualTo(Verdict.CHANGED_SINCE);
      assertThat(PathContract.read(on.files, file)).isEqualTo("old");
      assertThat(on.putBack.run(copy, true)).isEqualTo(Verdict.READY);
      assertThat(on.files.list(on.at("empty"), portion -> {})).isEmpty();
    }
  }

  @ParameterizedTest
  @EnumSource(Way.class)
  void anyNameSurvivesEveryOperation(Way way) throws IOException {
    try (WorkBench on = bench(way)) {
      List<String> names = OddNames.some(6, 20261123);
      RemotePath first = on.at("first");
      RemotePath second = on.at("second");
      on.changes.makeFolders(on.folder, "first");
      on.changes.makeFolders(on.folder, "second");
      RemotePath odd = null;
      for (String name : names) {
        RemotePath path = first.child(name);
        on.changes.makeFile(path);
        odd = second.child(name);
        on.changes.makeFolders(odd, ".");
        RemoteTree.file(on.files, odd.child(name), "level of " + name.length());
      }
      assertThat(wireNames(on, first)).containsExactlyInAnyOrderElementsOf(names);

      List<RemotePath> found = new ArrayList<>();
      new NameSearch(on.files, on.commands)
          .run(
              second,
              Narrowing.parse("type:file", 0),
              part -> part.forEach(entry -> found.add(entry.path())),
              go());
      assertThat(found)
          .containsExactlyInAnyOrderElementsOf(
              names.stream().map(name -> second.child(name).child(name)).toList());
      List<RemotePath> hits = new ArrayList<>();
      new TextSearch(on.files, on.commands)
          .run(
              second,
              new SearchText("level of", false, true),
              Narrowing.NONE,
              part -> part.forEach(hit -> hits.add(hit.file())),
              go());
      assertThat(hits).containsExactlyInAnyOrderElementsOf(found);
      for (RemotePath path : found) {
        assertThat(new Checksums(on.files, on.commands).of(path, go()).digest())
            .isEqualTo(sha256(on.files.readAll(path, 1 << 20)));
      }

      on.changes.copy(List.of(second), first, n -> {}, go());
      assertThat(RemoteTree.describe(on.files, first.child("second")))
          .isEqualTo(RemoteTree.describe(on.files, second));
      MeasuredTree measured =
          new TreeSize(on.files, on.commands).of(List.of(second), progress -> {}, go());
      assertThat(measured.files()).isEqualTo(names.size());
      assertThat(measured.folders()).isEqualTo(names.size() + 1);
      assertThat(measured.unreadable()).isZero();

      for (String name : names) {
        RemotePath copy = on.changes.duplicate(first.child(name), n -> {}, go());
        on.changes.rename(copy, on.folder.child(name));
      }
      assertThat(on.names()).containsAll(names);
      List<RemotePath> all = names.stream().map(on.folder::child).toList();
      assertThat(on.deleting.hold(all)).isEmpty();
      assertThat(on.names()).containsExactlyInAnyOrder("first", "second");
      for (JournalEntry entry : on.journal.entries().subList(0, names.size())) {
        assertThat(on.putBack.run(entry, false)).isEqualTo(Verdict.READY);
      }
      assertThat(on.names()).containsAll(names);
      assertThat(on.deleting.forGood(all, n -> {}, go())).isEmpty();
      assertThat(on.deleting.forGood(List.of(first, second), n -> {}, go())).isEmpty();
      assertThat(on.names()).isEmpty();
      assertThat(wireNames(on, on.home)).doesNotContain(OddNames.CANARY);
    }
  }

  private static List<String> wireNames(WorkBench on, RemotePath folder) throws IOException {
    return on.files.list(folder, portion -> {}).stream()
        .map(entry -> entry.path().wireName())
        .toList();
  }

  static String sha256(byte[] content) {
    try {
      return java.util.HexFormat.of()
          .formatHex(java.security.MessageDigest.getInstance("SHA-256").digest(content));
    } catch (java.security.NoSuchAlgorithmException e) {
      throw new AssertionError(e);
    }
  }

  @ParameterizedTest
  @EnumSource(Way.class)
  void findsTheSameByEitherWayAndReplacesWhatWasChosen(Way way) throws IOException {
    try (WorkBench on = bench(way)) {
      RemoteTree.makeSite(on.files, on.folder);
      RemoteTree.file(on.files, on.at("big.log"), new byte[20_000], 0606);
      RemoteTree.file(
          on.files,
          on.at("latin.txt"),
          "P\u00e4gel Long Reach\r\n".getBytes(StandardCharsets.ISO_8859_1),
          0644);
      RemoteTree.file(
          on.files, on.at("utf.txt"), "first\nP\u00e4gel\n".getBytes(StandardCharsets.UTF_8), 0644);
      RemoteTree.file(
          on.files,
          on.at("binary"),
          "P\u00e4gel\0Long Reach".getBytes(StandardCharsets.UTF_8),
          0644);

      assertThat(found(on, "*.html")).hasSize(13);
      assertThat(found(on, "STATION type:file !station-1")).hasSize(9);
      assertThat(found(on, ">10K")).containsExactly("/big.log");
      assertThat(found(on, "mode:o+w")).contains("/big.log").doesNotContain("/index.html");
      assertThat(found(on, "changed:>5y type:file")).hasSize(15).doesNotContain("/big.log");
      assertThat(found(on, "changed:<1h")).contains("/big.log").doesNotContain("/index.html");
      assertThat(found(on, "owner:" + on.connection.whoAmI().account() + " latest"))
          .containsExactly("/latest");
      assertThat(found(on, "owner:nobody-of-that-name")).isEmpty();

      assertThat(lines(on, new SearchText("P\u00e4gel", false, true), ""))
          .containsExactlyInAnyOrder("/latin.txt:1", "/utf.txt:2");
      assertThat(lines(on, new SearchText("LONG REACH 1", false, false), "*.html")).hasSize(3);
      assertThat(lines(on, new SearchText("Reach [0-3]$", true, true), "")).hasSize(4);
      assertThat(lines(on, new SearchText("-rf", false, true), "")).isEmpty();

      ReplaceTask replacing = new ReplaceTask(new AtomicSave(on.files, on.commands, on.journal));
      SearchText wanted = new SearchText("e(v)el", true, true);
      var proposal = replacing.propose(on.at("index.html"), wanted, "$1-$1");
      assertThat(proposal.places()).hasSize(1);
      assertThat(proposal.places().get(0).after()).isEqualTo("lv-v");
      var latin =
          replacing.propose(on.at("latin.txt"), new SearchText("Reach", false, true), "R\u00f6ch");
      replacing.apply(latin, java.util.Set.of(0), 0);
      assertThat(on.files.readAll(on.at("latin.txt"), 100))
          .isEqualTo("P\u00e4gel Long R\u00f6ch\r\n".getBytes(StandardCharsets.ISO_8859_1));
      on.files.removeFile(on.at("index.html"));
      RemoteTree.file(on.files, on.at("index.html"), "theirs, same level\n");
      assertThatThrownBy(() -> replacing.apply(proposal, java.util.Set.of(0), 0))
          .hasMessageContaining("CHANGED_MEANWHILE");
    }
  }

  private static List<String> found(WorkBench on, String what) throws IOException {
    List<String> found = new ArrayList<>();
    new NameSearch(on.files, on.commands)
        .run(
            on.folder,
            Narrowing.parse(what, System.currentTimeMillis() / 1000),
            part -> {
              for (RemoteEntry entry : part) {
                found.add(entry.path().wire().substring(on.folder.wire().length()));
              }
            },
            go());
    return found;
  }

  private static List<String> lines(WorkBench on, SearchText wanted, String names)
      throws IOException {
    List<String> lines = new ArrayList<>();
    new TextSearch(on.files, on.commands)
        .run(
            on.folder,
            wanted,
            Narrowing.parse(names, 0),
            part -> {
              for (SearchMatch hit : part) {
                lines.add(
                    hit.file().wire().substring(on.folder.wire().length()) + ":" + hit.line());
              }
            },
            go());
    return lines;
  }

  @ParameterizedTest
  @EnumSource(Way.class)
  void refusesWhatWouldReplaceOrLoop(Way way) throws IOException {
    try (WorkBench on = bench(way)) {
      RemoteTree.makeSite(on.files, on.folder);
      on.changes.copy(List.of(on.at("latest")), on.at("empty"), n -> {}, go());
      Map<String, String> before = on.tree();
      for (RemoteFailure failure :
          List.of(
              failure(() -> on.changes.rename(on.at("index.html"), on.at("gauge run"))),
              failure(() -> on.changes.makeFile(on.at("index.html"))),
              failure(() -> on.changes.makeFolders(on.folder, "index.html")),
              failure(() -> on.changes.makeLink(on.at("latest"), "x")),
              failure(
                  () ->
                      on.changes.copy(List.of(on.at("latest")), on.at("empty"), n -> {}, go())))) {
        assertThat(failure.reason()).isEqualTo(RemoteFailure.Reason.ALREADY_EXISTS);
      }
      failure(() -> on.changes.rename(on.at("stations"), on.at("stations/old/inside")));
      failure(
          () -> on.changes.copy(List.of(on.at("stations")), on.at("stations/old"), n -> {}, go()));
      assertThat(on.tree()).isEqualTo(before);
      assertThat(on.journal.entries()).noneMatch(JournalEntry::isUnderWay);
    }
  }

  @org.junit.jupiter.api.Test
  void aCommandMayComplainAndEndWithAnyStatus() throws IOException {
    try (WorkBench on = bench(Way.SHELL)) {
      ExecResult result = on.connection.script("ls /not-there-at-all; echo over");
      assertThat(result.outText()).isEqualTo("over\n");
      assertThat(result.errorText()).contains("not-there-at-all");
      assertThat(on.connection.script("exit 7").exit()).isEqualTo(7);
      RemoteTree.file(on.files, on.at("closed.txt"), "level".getBytes(UTF_8), 0);
      RemoteTree.file(on.files, on.at("open.txt"), "level");
      assertThat(lines(on, new SearchText("level", false, false), "*.txt"))
          .containsExactly("/open.txt:1");
    }
  }

  private interface Failing {
    void run() throws IOException;
  }

  private static RemoteFailure failure(Failing failing) {
    return catchThrowableOfType(RemoteFailure.class, failing::run);
  }
}
