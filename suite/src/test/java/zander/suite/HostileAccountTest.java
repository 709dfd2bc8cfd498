package zander.suite;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;

import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.lang.reflect.InvocationTargetException;
import java.lang.reflect.Proxy;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URI;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.OptionalInt;
import java.util.TreeMap;
import java.util.concurrent.CancellationException;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import zander.core.archive.Archives;
import zander.core.archive.WebFetch;
import zander.core.change.AtomicSave;
import zander.core.change.FileVersion;
import zander.core.change.Recovery;
import zander.core.change.RightsChange;
import zander.core.change.SaveFailure;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.journal.FileJournal;
import zander.core.journal.JournalEntry;
import zander.core.journal.JournalRules;
import zander.core.rights.Mode;
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
import zander.suite.HoldingContract.Way;

/**
 * Root works in a folder of another account, which swaps it and all that is in it for links while
 * that goes on: nothing outside the folder changes its owner, mode or content, nothing comes to be
 * there, and what is done in between is done. {@code -Dhostile.rounds=2000} swaps, or more.
 */
class HostileAccountTest {
  private static final int ROUNDS = Integer.getInteger("hostile.rounds", 2000);
  private static final String ACCOUNT = "zndmallory";
  private static final List<String> NAMES = List.of("a.conf", "b.conf", "c.conf", "large.bin");

  @TempDir Path folder;
  private SystemSshd sshd;
  private Path victim;
  private Path spool;
  private Path local;
  private WorkBench on;
  private int uid;

  @BeforeEach
  void start() throws Exception {
    Assumptions.assumeTrue(SystemSshd.isPossible(), "needs openssh-server, and to be root");
    sshd = new SystemSshd(folder, List.of(ACCOUNT), List.of());
    spool = Files.createDirectories(folder.resolve(ACCOUNT).resolve("spool"));
    Path work = Files.createDirectories(spool.resolve("work"));
    victim = Files.createDirectory(folder.resolve("victim"));
    local = Files.createDirectory(folder.resolve("local"));
    fill(work, "theirs ");
    fill(victim, "outside ");
    Files.writeString(victim.resolve("secret"), "for root alone");
    SystemSshd.run("chmod", "-R", "go-rwx", victim.toString());
    SystemSshd.run("chmod", "755", victim.toString(), victim.resolve("tree").toString());
    SystemSshd.run("chown", "-R", ACCOUNT + ":", spool.toString());
    uid = Integer.parseInt(SystemSshd.run("id", "-u", ACCOUNT).strip());
    on = new WorkBench(Way.SHELL, sshd.open("root"), RemotePath.of(work.toString()), folder);
  }

  private static void fill(Path into, String whose) throws IOException {
    Path tree = Files.createDirectories(into.resolve("tree/deep"));
    for (String name : NAMES) {
      Files.writeString(into.resolve(name), whose + name);
      Files.writeString(tree.getParent().resolve(name), whose + name);
      Files.writeString(tree.resolve(name), whose + name);
    }
  }

  @AfterEach
  void stop() throws Exception {
    if (on != null) {
      on.close();
    }
    if (sshd != null) {
      sshd.close();
    }
  }

  /** All that is outside: kind, owner, mode, size, time, target and content. */
  private String outside() throws Exception {
    return SystemSshd.run(
        "sh",
        "-c",
        "cd '"
            + victim
            + "' && find . -printf '%p %y %u:%g %m %s %T@ %l\\n' | sort"
            + " && find . -type f -exec sha256sum {} + | sort");
  }

  private interface Work {
    /** False when it was refused. */
    boolean run(int round) throws Exception;
  }

  private void holdsWhile(Work work) throws Exception {
    assertThat(work.run(0)).as("in peace").isTrue();
    String before = outside();
    TreeMap<String, Integer> refused = new TreeMap<>();
    int done = 0;
    try (SwappingAccount swapping = new SwappingAccount(ACCOUNT, spool, victim, ROUNDS)) {
      for (int round = 1; !swapping.isOver(); round++) {
        try {
          done += work.run(round) ? 1 : 0;
        } catch (RemoteFailure e) {
          refused.merge(e.reason() + " " + e.step(), 1, Integer::sum);
        }
      }
    }
    assertThat(outside()).as("done %d times, refused %s", done, refused).isEqualTo(before);
    System.out.printf("hostile account: done %d times, refused %s%n", done, refused);
  }

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
    AtomicSave saver = new AtomicSave(on.files, on.journal);
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
  void recovering() throws Exception {
    RemoteFiles dying = dyingAtTheRename();
    holdsWhile(
        round -> {
          Path place = folder.resolve("killed-" + round);
          try (FileJournal journal = new FileJournal(place, "lab-box", JournalRules.USUAL)) {
            AtomicSave saver = new AtomicSave(dying, journal);
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
