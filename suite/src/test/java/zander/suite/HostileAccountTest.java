package zander.suite;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;

import com.sun.net.httpserver.HttpServer;
import java.lang.reflect.InvocationTargetException;
import java.lang.reflect.Proxy;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URI;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.OptionalInt;
import java.util.Set;
import java.util.concurrent.CancellationException;
import org.junit.jupiter.api.Test;
import zander.core.archive.Archives;
import zander.core.archive.WebFetch;
import zander.core.change.Recovery;
import zander.core.change.RightsChange;
import zander.core.change.place.TemporaryName;
import zander.core.change.rights.AccessListChange;
import zander.core.change.rights.TreePlan;
import zander.core.change.rights.TreePlanner;
import zander.core.change.rights.TreeRightsTask;
import zander.core.change.rights.look.TreeRoots;
import zander.core.change.save.AtomicSave;
import zander.core.change.save.FileVersion;
import zander.core.change.save.InPlaceWrite;
import zander.core.change.save.SaveFailure;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.files.RemoteWriter;
import zander.core.journal.FileJournal;
import zander.core.journal.JournalEntry;
import zander.core.journal.JournalRules;
import zander.core.rights.AccessList.Asker;
import zander.core.rights.Mode;
import zander.core.rights.ModeRule;
import zander.core.rights.TreeRights;
import zander.core.transfer.Transfer;
import zander.core.transfer.local.LocalEndpoint;
import zander.core.transfer.progress.Progress;
import zander.core.transfer.remote.RemoteEndpoint;
import zander.core.transfer.resume.ResumeLog;
import zander.core.transfer.rules.ConflictPrompt;
import zander.core.transfer.rules.ConflictRule;
import zander.core.transfer.rules.TransferRules;
import zander.core.transfer.server.SharedConnectionChannels;
import zander.core.work.Cancellation;

/**
 * Root works in a folder of another account, which swaps it and all that is in it for links while
 * that goes on: nothing outside the folder changes its owner, mode or content, nothing comes to be
 * there, and what is done in between is done. {@code -Dhostile.rounds=2000} swaps, or more.
 */
class HostileAccountTest extends HostileGround {
  private static final Asker ROOT = new Asker(0, Set.of(0));

  private boolean send(ConflictRule rule, String... names) {
    RemoteEndpoint there =
        new RemoteEndpoint(
            new SharedConnectionChannels(() -> on.connection), on.folder, on.journal, on.home);
    Progress progress =
        new Transfer(
                new LocalEndpoint(local),
                there,
                TransferRules.of(rule).owner(ACCOUNT, ""),
                question -> new ConflictPrompt.Answer(ConflictRule.SKIP, ConflictPrompt.For.THIS),
                new Cancellation(),
                ResumeLog.NONE)
            .run(List.of(names));
    return progress.problems().isEmpty();
  }

  @Test
  void sendingSmallFilesUp() throws Exception {
    holdsWhile(
        round -> {
          Path tree = Files.createDirectories(local.resolve("new-" + round + "/tree"));
          for (int i = 0; i < 30; i++) {
            Files.writeString(tree.resolve("file-" + i), "mine " + i);
          }
          return send(ConflictRule.REPLACE, "new-" + round);
        });
  }

  @Test
  void sendingALargeFileUp() throws Exception {
    Files.write(local.resolve("large.bin"), new byte[6 << 20]);
    holdsWhile(round -> send(ConflictRule.REPLACE, "large.bin"));
  }

  @Test
  void replacing() throws Exception {
    fill(local, "mine ");
    holdsWhile(
        round -> {
          Files.writeString(local.resolve("tree/a.conf"), "mine in round " + round);
          return send(ConflictRule.REPLACE, "tree", "a.conf", "b.conf", "c.conf");
        });
  }

  @Test
  void saving() throws Exception {
    AtomicSave saver = new AtomicSave(on.files, on.commands, on.journal);
    holdsWhile(
        round -> {
          try {
            AtomicSave.Opened opened = saver.open(on.at("tree/a.conf"), 1 << 20);
            saver.save(opened.version(), ("round " + round).getBytes(UTF_8), List.of());
            return true;
          } catch (SaveFailure e) {
            return false;
          }
        });
  }

  @Test
  void givingRightsToATree() throws Exception {
    List<RemotePath> all = new ArrayList<>();
    for (String place : List.of("", "tree/", "tree/deep/")) {
      NAMES.forEach(name -> all.add(on.at(place + name)));
    }
    all.add(on.at("tree"));
    all.add(on.at("tree/deep"));
    holdsWhile(
        round ->
            new RightsChange(on.files, on.journal)
                    .apply(
                        all,
                        OptionalInt.of(uid),
                        OptionalInt.empty(),
                        (mode, isFolder) -> new Mode(isFolder ? 0777 : 0600 + round % 8))
                    .stream()
                    .allMatch(result -> result.failure() == null));
  }

  @Test
  void settingRightsOfAllThatIsInside() throws Exception {
    TreeRoots roots =
        TreeRoots.of(List.of(on.at("tree"), on.at("a.conf"), on.at("b.conf"), on.at("c.conf")));
    holdsWhile(
        round -> {
          TreeRights wanted =
              new TreeRights(
                  OptionalInt.of(uid),
                  OptionalInt.empty(),
                  new ModeRule.Exact(new Mode(0600 + round % 8), false),
                  new ModeRule.Exact(new Mode(0770 + round % 8), false));
          try {
            TreePlan plan =
                new TreePlanner(on.files, on.commands)
                    .plan(roots, wanted, ROOT, false, seen -> {}, new Cancellation());
            return new TreeRightsTask(on.files, on.commands, on.journal)
                .run(
                    plan.choose(new HashSet<>(plan.groups()), Set.of()),
                    TreeRightsTask.Progress.NONE,
                    new Cancellation())
                .isWhole();
          } catch (RemoteFailure e) {
            return false;
          }
        });
  }

  @Test
  void addingToAnAccessList() throws Exception {
    AccessListChange lists = new AccessListChange(on.files, on.commands, on.journal);
    holdsWhile(
        round -> {
          try {
            lists.allow(on.at("tree/a.conf"), 65_000 + round % 8, 6);
            return true;
          } catch (RemoteFailure e) {
            return false;
          }
        });
  }

  @Test
  void deletingForGood() throws Exception {
    holdsWhile(
        round -> {
          Path tree = Files.createDirectories(local.resolve("gone-" + round + "/tree/deep"));
          Files.writeString(tree.resolve("a.conf"), "mine");
          boolean sent = send(ConflictRule.REPLACE, "gone-" + round);
          return on.deleting
                      .forGood(
                          List.of(on.at("gone-" + round), on.at("tree/deep/gone")),
                          n -> {},
                          new Cancellation())
                      .size()
                  <= 1
              && sent;
        });
  }

  @Test
  void deletingWhatIsTheirs() throws Exception {
    holdsWhile(
        round ->
            round == 0
                || on.deleting
                    .forGood(List.of(on.at("tree")), n -> {}, new Cancellation())
                    .isEmpty());
  }

  @Test
  void holdingAndPuttingBack() throws Exception {
    holdsWhile(
        round -> {
          List<RemoteFailure> failed = on.deleting.hold(List.of(on.at("tree"), on.at("a.conf")));
          List<JournalEntry> entries = on.journal.entries();
          boolean back = true;
          for (JournalEntry entry : entries.subList(0, Math.min(2, entries.size()))) {
            back &= on.putBack.run(entry, true).isPossible();
          }
          return failed.isEmpty() && back;
        });
  }

  @Test
  void packingAndUnpacking() throws Exception {
    Archives archives = new Archives(on.files, on.commands, on.changes);
    holdsWhile(
        round -> {
          String name = "pack-" + round;
          archives.pack(
              List.of(on.at("tree"), on.at("b.conf")), on.at(name + ".tar.gz"), new Cancellation());
          archives.unpack(on.at(name + ".tar.gz"), true, new Cancellation());
          return true;
        });
  }

  @Test
  void fetchingFromTheWeb() throws Exception {
    HttpServer web =
        HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
    web.createContext(
        "/",
        exchange -> {
          exchange.sendResponseHeaders(200, 7);
          exchange.getResponseBody().write("fetched".getBytes(UTF_8));
          exchange.close();
        });
    web.start();
    try {
      WebFetch fetch = new WebFetch(on.files, on.commands, on.changes);
      URI address = URI.create("http://127.0.0.1:" + web.getAddress().getPort() + "/a.conf");
      holdsWhile(
          round -> {
            try {
              fetch.fetch(address, on.at("fetched-" + round), "", n -> {}, new Cancellation());
              return true;
            } catch (CancellationException e) {
              return false;
            }
          });
    } finally {
      web.stop(0);
    }
  }

  @Test
  void copyingAndRenaming() throws Exception {
    holdsWhile(
        round -> {
          on.changes.makeFolders(on.folder, "copies/" + round);
          RemotePath copies = on.at("copies/" + round);
          on.changes.copy(List.of(on.at("tree/deep")), copies, n -> {}, new Cancellation());
          on.changes.rename(copies.child("deep"), on.at("copy-" + round));
          on.changes.makeFile(on.at("tree/made-" + round));
          on.changes.makeFolders(on.folder, "tree/made/" + round);
          on.changes.makeLink(on.at("tree/link-" + round), "made");
          return true;
        });
  }

  /** What is opened by its handle must not go on in a folder that has been put away. */
  @Test
  void aFolderThatIsMadeAnewIsTheNewOne() throws Exception {
    RemotePath place = on.at("place");
    for (int round = 0; round < 5; round++) {
      on.files.makeFolder(place, new Mode(0755));
      assertThat(on.files.othersMayTurn(place.child("a.conf"))).isTrue();
      on.changes.makeFile(place.child("made-" + round));
      assertThat(on.files.list(place, portion -> {}))
          .extracting(entry -> entry.name())
          .containsExactly("made-" + round);
      if (round % 2 == 0) {
        assertThat(on.deleting.hold(List.of(place))).isEmpty();
      } else {
        on.changes.rename(place, on.at("place-" + round));
      }
    }
  }

  @Test
  void aFolderThatIsGivenAwayIsGuardedFromThenOn() throws Exception {
    RemotePath given = RemotePath.of(victim.toString()).child("given");
    on.files.makeFolder(given, new Mode(0755));
    on.files.makeFolder(given.child("inner"), new Mode(0755));
    on.changes.makeFile(given.child("inner").child("a.conf"));
    assertThat(on.files.othersMayTurn(given.child("inner").child("b.conf"))).isFalse();
    on.files.setOwner(given, uid, 0);
    assertThat(on.files.othersMayTurn(given.child("inner").child("b.conf"))).isTrue();
  }

  /** The program is gone at the moment of the renaming. */
  private static final class Killed extends Error {}

  private RemoteFiles dyingAtTheRename() {
    return (RemoteFiles)
        Proxy.newProxyInstance(
            RemoteFiles.class.getClassLoader(),
            new Class<?>[] {RemoteFiles.class},
            (proxy, method, arguments) -> {
              if (method.getName().equals("renameOver")) {
                throw new Killed();
              }
              try {
                return method.invoke(on.files, arguments);
              } catch (InvocationTargetException e) {
                throw e.getCause();
              }
            });
  }

  @Test
  void writingIntoTheSameFile() throws Exception {
    InPlaceWrite same = new InPlaceWrite(on.files, on.commands);
    AtomicSave saver = new AtomicSave(on.files, on.commands, on.journal);
    holdsWhile(
        round -> {
          AtomicSave.Opened opened = saver.open(on.at("tree/a.conf"), 1 << 20);
          byte[] made = ("written " + round).getBytes(UTF_8);
          RemotePath staged = TemporaryName.beside(opened.version().real());
          try (RemoteWriter writer = on.files.create(staged, new Mode(0600))) {
            writer.write(made, 0, made.length);
            writer.finish();
          }
          return same.write(opened.version().real(), opened.content(), staged, made)
              == InPlaceWrite.Result.WRITTEN;
        });
  }

  @Test
  void recovering() throws Exception {
    RemoteFiles dying = dyingAtTheRename();
    holdsWhile(
        round -> {
          Path place = folder.resolve("killed-" + round);
          try (FileJournal journal = new FileJournal(place, "lab-box", JournalRules.USUAL)) {
            AtomicSave saver = new AtomicSave(dying, new NoShell(), journal);
            FileVersion version = saver.open(on.at("c.conf"), 1 << 20).version();
            saver.save(version, ("saved " + round).getBytes(UTF_8), List.of());
          } catch (Killed | SaveFailure e) {
            // As it is meant.
          }
          boolean all = true;
          try (FileJournal journal = new FileJournal(place, "lab-box", JournalRules.USUAL)) {
            Recovery recovery = new Recovery(on.files, on.commands, journal);
            for (JournalEntry entry : journal.unfinished()) {
              Recovery.Finding finding = recovery.look(entry);
              if (finding.mayFinish()) {
                recovery.finish(finding);
              } else {
                all = false;
                recovery.undo(finding);
              }
            }
          }
          return all;
        });
  }
}
