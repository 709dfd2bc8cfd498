package zander.suite;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import zander.core.change.Recovery;
import zander.core.change.Recovery.State;
import zander.core.change.place.Renames;
import zander.core.change.save.AtomicSave;
import zander.core.change.save.SaveFailure;
import zander.core.change.save.SaveFailure.ServerState;
import zander.core.connect.Connection;
import zander.core.connect.command.Commands;
import zander.core.files.RemotePath;
import zander.core.journal.FileJournal;
import zander.core.journal.Journal;
import zander.core.journal.JournalEntry;
import zander.core.journal.JournalRules;
import zander.core.rights.Mode;
import zander.standin.server.Relay;
import zander.standin.world.Caller;
import zander.standin.world.OpenFile;
import zander.standin.world.World;

/**
 * Cuts the line after every n-th byte of a save, over the whole length of the exchange. Whatever
 * byte it is, the server has the whole old or the whole new file, with its owner and mode, and what
 * the failure says of it is true. Where the new one is written into the old, it may be in between,
 * and looking after it brings about the new one.
 */
class CutSaveTest {
  private static final byte[] OLD = "max_age 300;\n".repeat(60).getBytes(UTF_8);
  private static final byte[] NEW = "max_age 900;  # longer\n".repeat(70).getBytes(UTF_8);

  /** Random names and window adjustments make one exchange a little longer than another. */
  private static final int SLACK = 400;

  @TempDir Path folder;

  /** One server, as this test needs it: a line to it, and its file without that line. */
  private interface Server {
    default byte[] old() {
      return OLD;
    }

    default byte[] fresh() {
      return NEW;
    }

    default Commands commands(Connection connection) {
      return connection;
    }

    default boolean sameFile() {
      return false;
    }

    Connection open(int port) throws IOException;

    int port();

    RemotePath file();

    void reset() throws IOException;

    byte[] content() throws IOException;

    String rights() throws IOException;
  }

  @Test
  void leavesTheOldOrTheNewOnTheStandin() throws Exception {
    try (Riverside riverside = new Riverside(folder)) {
      cutEverywhere(standin(riverside), 29);
    }
  }

  @Test
  void leavesTheOldOrTheNewOnTheSystemsServer() throws Exception {
    Assumptions.assumeTrue(SystemSshd.isPossible(), "needs openssh-server, and to be root");
    try (SystemSshd sshd = new SystemSshd(folder, List.of("zndcut"), List.of())) {
      cutEverywhere(new SystemServer(sshd, folder.resolve("zndcut/site.conf")), 83);
    }
  }

  /** It has another name, so that the server's tools write into it. */
  @Test
  void completesWhatIsWrittenIntoTheSameFile() throws Exception {
    Assumptions.assumeTrue(SystemSshd.isPossible(), "needs openssh-server, and to be root");
    try (SystemSshd sshd = new SystemSshd(folder, List.of("zndcut"), List.of())) {
      Path file = folder.resolve("zndcut/site.conf");
      Path other = folder.resolve("elsewhere.conf");
      cutEverywhere(
          new SystemServer(sshd, file) {
            @Override
            public boolean sameFile() {
              return true;
            }

            @Override
            public void reset() throws IOException {
              Files.deleteIfExists(other);
              super.reset();
              Files.createLink(other, file);
            }
          },
          83);
    }
  }

  /** Its folder takes no new file, so that SFTP writes into it where there is no shell. */
  @Test
  void completesWhatIsWrittenIntoTheSameFileBySftp() throws Exception {
    Assumptions.assumeTrue(SystemSshd.isPossible(), "needs openssh-server, and to be root");
    try (SystemSshd sshd = new SystemSshd(folder, List.of("zndcut"), List.of())) {
      Path closed = Files.createDirectory(folder.resolve("closed"));
      Files.setPosixFilePermissions(closed, PosixFilePermissions.fromString("rwxr-xr-x"));
      cutEverywhere(
          new SystemServer(sshd, closed.resolve("site.conf")) {
            private final byte[] old = "max_age 300;\n".repeat(18_000).getBytes(UTF_8);
            private final byte[] fresh = "max_age 900;  # longer\n".repeat(13_000).getBytes(UTF_8);

            @Override
            public byte[] old() {
              return old;
            }

            @Override
            public byte[] fresh() {
              return fresh;
            }

            @Override
            public Commands commands(Connection connection) {
              return new NoShell();
            }

            @Override
            public boolean sameFile() {
              return true;
            }
          },
          7919);
    }
  }

  private void cutEverywhere(Server server, int step) throws Exception {
    long length = lengthOfASave(server);
    assertThat(length).isGreaterThan(server.fresh().length + server.old().length);
    String rights = server.rights();
    Set<ServerState> seen = new TreeSet<>();
    try (FileJournal journal =
        new FileJournal(folder.resolve("journal"), "lab-box", JournalRules.USUAL)) {
      for (long cut = 1; cut <= length + SLACK + step; cut += step) {
        server.reset();
        seen.add(cutOnce(server, cut, journal));
        assertThat(server.rights()).as("cut after %d", cut).isEqualTo(rights);
      }
    }
    ServerState between = server.sameFile() ? ServerState.UNFINISHED : ServerState.OLD_OR_NEW;
    assertThat(seen).containsExactlyInAnyOrder(ServerState.OLD, between, ServerState.NEW);
  }

  private static long lengthOfASave(Server server) throws IOException {
    server.reset();
    try (Relay relay = new Relay(server.port());
        Connection connection = server.open(relay.port())) {
      AtomicSave saver =
          new AtomicSave(connection.files(), server.commands(connection), Journal.NONE);
      AtomicSave.Opened opened = saver.open(server.file(), 1 << 20);
      long before = relay.carried();
      AtomicSave.Saved saved = saver.save(opened.version(), server.fresh(), List.of());
      assertThat(saved.inPlace()).isEqualTo(server.sameFile());
      return relay.carried() - before;
    }
  }

  /** The state that the outcome claims, which is checked to be the real one. */
  private static ServerState cutOnce(Server server, long cut, FileJournal journal)
      throws IOException {
    try (Relay relay = new Relay(server.port());
        Connection connection = server.open(relay.port())) {
      AtomicSave saver = new AtomicSave(connection.files(), server.commands(connection), journal);
      AtomicSave.Opened opened = saver.open(server.file(), 1 << 20);
      relay.cutAfter(cut);
      ServerState claimed = ServerState.NEW;
      try {
        saver.save(opened.version(), server.fresh(), List.of());
      } catch (SaveFailure e) {
        assertThat(e.reason()).as("cut after %d", cut).isEqualTo(SaveFailure.Reason.LINE_LOST);
        claimed = e.state();
      }
      byte[] now = server.content();
      switch (claimed) {
        case OLD -> assertThat(now).as("cut after %d", cut).isEqualTo(server.old());
        case NEW -> assertThat(now).as("cut after %d", cut).isEqualTo(server.fresh());
        case OLD_OR_NEW ->
            assertThat(List.of(new String(server.old(), UTF_8), new String(server.fresh(), UTF_8)))
                .contains(new String(now, UTF_8));
        default -> {
          // Looked after below.
        }
      }
      List<JournalEntry> entries = journal.about(server.file());
      if (claimed == ServerState.NEW) {
        assertThat(journal.contentBefore(entries.get(0))).isEqualTo(server.old());
      }
      if (claimed == ServerState.UNFINISHED
          || (claimed == ServerState.NEW && !entries.get(0).isDone())) {
        lookAfter(server, entries.get(0), journal, cut);
      } else if (!entries.isEmpty()) {
        assertThat(entries.get(0).isDone()).isEqualTo(claimed == ServerState.NEW);
      }
      return claimed;
    }
  }

  private static void lookAfter(Server server, JournalEntry entry, FileJournal journal, long cut)
      throws IOException {
    try (Connection again = server.open(server.port())) {
      Recovery recovery = new Recovery(again.files(), server.commands(again), journal);
      Recovery.Finding finding = recovery.look(entry);
      assertThat(finding.state())
          .as("cut after %d", cut)
          .isIn(State.PART_LEFT, State.HALF, State.DONE);
      recovery.finish(finding);
      assertThat(journal.unfinished()).noneMatch(one -> one.id() == entry.id());
      assertThat(Renames.exists(again.files(), entry.part())).isFalse();
      assertThat(server.content()).as("cut after %d", cut).isEqualTo(server.fresh());
      assertThat(again.files().look(entry.path()).mode()).isEqualTo(new Mode(0640));
    }
  }

  private static Server standin(Riverside riverside) {
    World world = riverside.demo.server("lab-box").machine().world();
    String path = "/home/warden/trial/site.conf";
    return new Server() {
      @Override
      public Connection open(int port) throws IOException {
        riverside.redirectTo(port);
        return riverside.open("lab-box");
      }

      @Override
      public int port() {
        return riverside.demo.server("lab-box").port();
      }

      @Override
      public RemotePath file() {
        return RemotePath.of(path);
      }

      @Override
      public void reset() throws IOException {
        for (String name : world.list(Caller.ROOT, "/home/warden/trial")) {
          world.unlink(Caller.ROOT, "/home/warden/trial/" + name);
        }
        world
            .open(Caller.ROOT, path, new World.Open(false, true, true, true, false, 0600))
            .write(0, OLD, 0, OLD.length);
        world.chown(Caller.ROOT, path, 1004, 33, false);
        world.chmod(Caller.ROOT, path, 0640);
      }

      @Override
      public byte[] content() throws IOException {
        OpenFile file = world.open(Caller.ROOT, path, World.Open.READ);
        return file.read(0, (int) file.size());
      }

      @Override
      public String rights() throws IOException {
        var stat = world.stat(Caller.ROOT, path);
        return stat.uid() + ":" + stat.gid() + " " + Integer.toOctalString(stat.mode());
      }
    };
  }

  /** The system's own. */
  private static class SystemServer implements Server {
    private final SystemSshd sshd;
    private final Path file;

    SystemServer(SystemSshd sshd, Path file) {
      this.sshd = sshd;
      this.file = file;
    }

    @Override
    public Connection open(int port) throws IOException {
      return sshd.openThrough("zndcut", port);
    }

    @Override
    public int port() {
      return sshd.port();
    }

    @Override
    public RemotePath file() {
      return RemotePath.of(file.toString());
    }

    @Override
    public void reset() throws IOException {
      try (var leftovers = Files.list(file.getParent())) {
        for (Path left : (Iterable<Path>) leftovers::iterator) {
          Files.delete(left);
        }
      }
      Path home = sshd.folder().resolve("zndcut");
      Files.write(file, old());
      Files.setAttribute(file, "unix:mode", 0640);
      Files.setAttribute(file, "unix:uid", Files.getAttribute(home, "unix:uid"));
      Files.setAttribute(file, "unix:gid", Files.getAttribute(home, "unix:gid"));
    }

    @Override
    public byte[] content() throws IOException {
      return Files.readAllBytes(file);
    }

    @Override
    public String rights() throws IOException {
      return Files.readAttributes(
              file, sameFile() ? "unix:uid,gid,mode,nlink" : "unix:uid,gid,mode")
          .toString();
    }
  }
}
