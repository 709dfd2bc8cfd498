package zander.suite;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.OptionalInt;
import java.util.TreeMap;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import zander.core.change.RightsChange;
import zander.core.change.save.AtomicSave;
import zander.core.change.save.SaveFailure;
import zander.core.connect.Connection;
import zander.core.connect.command.ShellSession;
import zander.core.files.FileKind;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteEntry;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.files.WireName;
import zander.core.journal.ChangeKind;
import zander.core.journal.FileJournal;
import zander.core.journal.Journal;
import zander.core.journal.JournalRules;
import zander.core.rights.Mode;
import zander.core.transfer.Transfer;
import zander.core.transfer.local.LocalEndpoint;
import zander.core.transfer.progress.Progress;
import zander.core.transfer.remote.RemoteEndpoint;
import zander.core.transfer.rules.ConflictPrompt;
import zander.core.transfer.rules.ConflictRule;
import zander.core.work.Cancellation;

/**
 * The whole path without the window: list, edit, set rights, send up, bring down, shell. Run
 * against the stand-in and against the system's server, which must not differ.
 */
abstract class PathContract {
  @TempDir Path local;

  /** Opens a connection as an ordinary account. */
  abstract Connection asUser() throws IOException;

  /** Opens a connection as root. */
  abstract Connection asRoot() throws IOException;

  /** A folder on the server that belongs to the ordinary account and is empty. */
  abstract RemotePath freshFolder() throws IOException;

  /** The number of an account other than the ordinary one. */
  abstract int otherUid(Connection connection);

  static final ConflictPrompt NEVER_ASKED =
      question -> {
        throw new AssertionError("asked about " + question.path());
      };

  static void write(RemoteFiles files, RemotePath path, String content, int mode)
      throws IOException {
    try (var writer = files.create(path, new Mode(0600))) {
      byte[] bytes = content.getBytes(StandardCharsets.UTF_8);
      writer.write(bytes, 0, bytes.length);
      writer.setMode(new Mode(mode));
    }
  }

  static String read(RemoteFiles files, RemotePath path) throws IOException {
    return new String(files.readAll(path, 1 << 20), StandardCharsets.UTF_8);
  }

  private static RemoteEntry named(List<RemoteEntry> entries, String name) {
    return entries.stream().filter(e -> e.name().equals(name)).findFirst().orElseThrow();
  }

  @Test
  void listsWithOwnersModesAndLinksFollowed() throws IOException {
    RemotePath folder = freshFolder();
    try (Connection connection = asUser()) {
      RemoteFiles files = connection.files();
      write(files, folder.child("levels.txt"), "2.48\n", 0640);
      files.makeFolder(folder.child("stations"), new Mode(0750));
      files.makeLink(folder.child("today"), "stations");
      files.makeLink(folder.child("gone"), "nowhere");
      files.makeLink(folder.child("round"), "round");
      List<RemoteEntry> seenInPortions = new ArrayList<>();
      List<RemoteEntry> entries = files.list(folder, seenInPortions::addAll);

      assertThat(entries)
          .extracting(RemoteEntry::name)
          .containsExactlyInAnyOrder("levels.txt", "stations", "today", "gone", "round");
      assertThat(seenInPortions).hasSameSizeAs(entries);
      RemoteEntry file = named(entries, "levels.txt");
      assertThat(file.kind()).isEqualTo(FileKind.FILE);
      assertThat(file.attributes().size()).isEqualTo(5);
      assertThat(file.attributes().mode()).isEqualTo(new Mode(0640));
      assertThat(file.owner()).isEqualTo(connection.whoAmI().account());
      assertThat(named(entries, "today").target()).isEqualTo("stations");
      assertThat(named(entries, "today").leadsToFolder()).isTrue();
      assertThat(named(entries, "gone").isBrokenLink()).isTrue();
      assertThat(named(entries, "round").isBrokenLink()).isTrue();
      assertThat(connection.whoAmI().uid()).isEqualTo(file.attributes().uid());
    }
  }

  @Test
  void savesKeepingOwnerGroupModeAndLink() throws IOException {
    RemotePath folder = freshFolder();
    try (Connection root = asRoot();
        FileJournal journal =
            new FileJournal(local.resolve("journal"), "levels-web", JournalRules.USUAL)) {
      RemoteFiles files = root.files();
      RemotePath file = folder.child("site.conf");
      write(files, file, "max_age 300;\n", 0600);
      files.setOwner(file, otherUid(root), 0);
      files.setMode(file, new Mode(06640));
      RemotePath link = folder.child("current.conf");
      files.makeLink(link, "site.conf");

      AtomicSave saver = new AtomicSave(files, root, journal);
      AtomicSave.Opened opened = saver.open(link, 1 << 20);
      byte[] edited = "max_age 600;\n".getBytes(StandardCharsets.UTF_8);
      var after = saver.save(opened.version(), edited, List.of());

      assertThat(read(files, file)).isEqualTo("max_age 600;\n");
      RemoteAttributes now = files.look(file);
      assertThat(now.uid()).isEqualTo(otherUid(root));
      assertThat(now.gid()).isZero();
      assertThat(now.mode()).isEqualTo(new Mode(06640));
      assertThat(files.look(link).kind()).isEqualTo(FileKind.LINK);
      assertThat(files.list(folder, portion -> {}))
          .extracting(RemoteEntry::name)
          .containsExactlyInAnyOrder("site.conf", "current.conf");
      saver.save(after.version(), "max_age 900;\n".getBytes(StandardCharsets.UTF_8), List.of());
      assertThat(read(files, file)).isEqualTo("max_age 900;\n");

      var entries = journal.about(file);
      assertThat(entries).hasSize(2).allMatch(entry -> entry.isDone());
      assertThat(entries.get(1).kind()).isEqualTo(ChangeKind.SAVE);
      assertThat(journal.contentBefore(entries.get(1))).asString().isEqualTo("max_age 300;\n");
    }
  }

  @Test
  void refusesToSaveOverAnothersChange() throws IOException {
    RemotePath folder = freshFolder();
    try (Connection connection = asUser()) {
      RemoteFiles files = connection.files();
      RemotePath file = folder.child("index.html");
      write(files, file, "old", 0644);
      AtomicSave saver = new AtomicSave(files, connection, Journal.NONE);
      AtomicSave.Opened opened = saver.open(file, 1 << 20);
      // The same length, and back to the same second: only the content tells.
      RemoteAttributes before = files.look(file);
      files.removeFile(file);
      write(files, file, "NEW", 0644);
      files.setTimes(file, before.accessed(), before.modified());

      SaveFailure failure =
          catchThrowableOfType(
              SaveFailure.class,
              () -> saver.save(opened.version(), "mine".getBytes(UTF_8), List.of()));
      assertThat(failure.reason()).isEqualTo(SaveFailure.Reason.CHANGED_MEANWHILE);
      assertThat(failure.state()).isEqualTo(SaveFailure.ServerState.OLD);
      assertThat(read(files, file)).isEqualTo("NEW");

      saver.save(
          opened.version(),
          "mine".getBytes(UTF_8),
          List.of(AtomicSave.Allow.REPLACE_OTHERS_CHANGE));
      assertThat(read(files, file)).isEqualTo("mine");
      files.removeFile(file);
      SaveFailure gone =
          catchThrowableOfType(
              SaveFailure.class,
              () -> saver.save(opened.version(), "mine".getBytes(UTF_8), List.of()));
      assertThat(gone.reason()).isEqualTo(SaveFailure.Reason.GONE);
    }
  }

  @Test
  void refusesToSaveWhenTheOwnerWouldChange() throws IOException {
    RemotePath folder = freshFolder();
    RemotePath file = folder.child("alerts.html");
    int other;
    try (Connection root = asRoot()) {
      write(root.files(), file, "theirs", 0644);
      other = otherUid(root);
      root.files().setOwner(file, other, 0);
    }
    try (Connection connection = asUser()) {
      RemoteFiles files = connection.files();
      AtomicSave saver = new AtomicSave(files, connection, Journal.NONE);
      AtomicSave.Opened opened = saver.open(file, 1 << 20);
      SaveFailure failure =
          catchThrowableOfType(
              SaveFailure.class,
              () -> saver.save(opened.version(), "mine".getBytes(UTF_8), List.of()));
      assertThat(failure.reason()).isEqualTo(SaveFailure.Reason.OWNER_WOULD_CHANGE);
      assertThat(failure.leftover()).isNull();
      assertThat(read(files, file)).isEqualTo("theirs");
      assertThat(files.look(file).uid()).isEqualTo(other);
      assertThat(files.list(folder, portion -> {})).hasSize(1);

      saver.save(opened.version(), "mine".getBytes(UTF_8), List.of(AtomicSave.Allow.OWNER_CHANGE));
      assertThat(read(files, file)).isEqualTo("mine");
      assertThat(files.look(file).uid()).isEqualTo(connection.whoAmI().uid());
    }
  }

  @Test
  void changesRightsAndReadsThemBack() throws IOException {
    RemotePath folder = freshFolder();
    try (Connection root = asRoot()) {
      RemoteFiles files = root.files();
      RemotePath file = folder.child("feed.xml");
      RemotePath sub = folder.child("stations");
      write(files, file, "x", 0600);
      files.makeFolder(sub, new Mode(0700));
      RightsChange change = new RightsChange(files, Journal.NONE);
      List<RightsChange.Result> results =
          change.apply(
              List.of(file, sub, folder.child("missing")),
              OptionalInt.of(otherUid(root)),
              OptionalInt.of(0),
              (mode, isFolder) -> new Mode(isFolder ? 02775 : 04664));

      assertThat(results.get(0).failure()).isNull();
      assertThat(results.get(0).entry().attributes().mode()).isEqualTo(new Mode(04664));
      assertThat(results.get(0).entry().attributes().uid()).isEqualTo(otherUid(root));
      assertThat(results.get(1).entry().attributes().mode()).isEqualTo(new Mode(02775));
      assertThat(results.get(2).failure()).isNotNull();
    }
    try (Connection connection = asUser()) {
      RightsChange change = new RightsChange(connection.files(), Journal.NONE);
      RightsChange.Result result =
          change
              .apply(
                  List.of(folder.child("feed.xml")),
                  OptionalInt.empty(),
                  OptionalInt.empty(),
                  (mode, isFolder) -> new Mode(0666))
              .get(0);
      assertThat(result.failure().reason())
          .isEqualTo(zander.core.files.RemoteFailure.Reason.PERMISSION_DENIED);
      assertThat(result.entry().attributes().mode()).isEqualTo(new Mode(04664));
    }
  }

  @Test
  void carriesATreeUpAndDownUnchanged() throws IOException {
    Path source = local.resolve("source");
    OddTree.make(source);
    RemotePath folder = freshFolder();
    Path back = Files.createDirectory(local.resolve("back"));
    try (Connection connection = asUser()) {
      RemoteEndpoint remote = new RemoteEndpoint(connection.files(), folder, Journal.NONE);
      Progress up =
          new Transfer(
                  new LocalEndpoint(local),
                  remote,
                  ConflictRule.ASK,
                  NEVER_ASKED,
                  new Cancellation())
              .run(List.of("source"));
      assertThat(up.problems()).isEmpty();
      assertThat(up.phase()).isEqualTo(Progress.Phase.DONE);
      assertThat(up.files()).isEqualTo(up.filesInAll()).isEqualTo(OddTree.FILES_AND_LINKS);
      assertThat(up.bytes()).isEqualTo(up.bytesInAll()).isEqualTo(OddTree.bytes(source));

      Progress down =
          new Transfer(
                  remote,
                  new LocalEndpoint(back),
                  ConflictRule.ASK,
                  NEVER_ASKED,
                  new Cancellation())
              .run(List.of("source"));
      assertThat(down.problems()).isEmpty();
      assertThat(down.files()).isEqualTo(OddTree.FILES_AND_LINKS);
    }
    // Set-user-ID bits stay away from this computer.
    assertThat(describe(back.resolve("source"))).isEqualTo(describe(source, ~07000));
  }

  /** Everything of a tree that a transfer must keep: kinds, bytes, modes, times, link targets. */
  static Map<String, String> describe(Path root) throws IOException {
    return describe(root, ~0);
  }

  private static Map<String, String> describe(Path root, int bits) throws IOException {
    Map<String, String> tree = new TreeMap<>();
    try (Stream<Path> paths = Files.walk(root)) {
      for (Path path : (Iterable<Path>) paths::iterator) {
        String name = root.relativize(path).toString();
        if (Files.isSymbolicLink(path)) {
          tree.put(name, "link to " + Files.readSymbolicLink(path));
          continue;
        }
        FileTime time = Files.getLastModifiedTime(path);
        Object mode = Files.getAttribute(path, "unix:mode");
        String content =
            Files.isDirectory(path)
                ? "folder"
                : new String(Files.readAllBytes(path), StandardCharsets.ISO_8859_1);
        tree.put(
            name,
            String.format(
                    "%o %d %s", (Integer) mode & bits, time.toMillis() / 1000, content.hashCode())
                + " "
                + content.length());
      }
    }
    return tree;
  }

  @Test
  void keepsNamesThatAreNotUtf8() throws IOException {
    RemotePath folder = freshFolder();
    try (Connection connection = asUser()) {
      RemoteFiles files = connection.files();
      byte[] odd = {'-', (byte) 0xff, ' ', '\'', '\n', (byte) 0xfe, '"', '\\'};
      RemotePath path = folder.child(WireName.fromBytes(odd));
      write(files, path, "odd", 0644);
      List<RemoteEntry> entries = files.list(folder, portion -> {});
      assertThat(entries).hasSize(1);
      assertThat(WireName.bytes(entries.get(0).path().wireName())).isEqualTo(odd);
      assertThat(entries.get(0).name()).isEqualTo("-\\xff '\\n\\xfe\"\\");
      files.rename(path, folder.child("plain"));
      assertThat(read(files, folder.child("plain"))).isEqualTo("odd");
    }
  }

  @Test
  void opensAShellInAFolderOverTheSameConnection() throws Exception {
    RemotePath folder = freshFolder();
    try (Connection connection = asUser()) {
      RemotePath odd = folder.child(WireName.fromText("a 'quoted' $HOME ünit"));
      connection.files().makeFolder(odd, new Mode(0755));
      try (ShellSession shell = connection.openShell(odd, 100, 30)) {
        StringBuilder seen = new StringBuilder();
        shell.type("pwd; echo en''d-of-pwd\n".getBytes(StandardCharsets.UTF_8));
        readUntil(shell, seen, "end-of-pwd");
        assertThat(seen.toString()).contains(odd.text());
        shell.type("echo $((1)) >/dev/null 2>&1; exit 3\n".replace("$((1))", "1").getBytes(UTF_8));
        readToEnd(shell, seen);
        assertThat(shell.exit()).isEqualTo(3);
      }
      assertThat(connection.isOpen()).isTrue();
    }
  }

  static void readUntil(ShellSession shell, StringBuilder seen, String text) throws IOException {
    byte[] buffer = new byte[4096];
    while (seen.indexOf(text) < 0) {
      int count = shell.output().read(buffer);
      assertThat(count).as("the shell ended; it said: %s", seen).isPositive();
      seen.append(new String(buffer, 0, count, StandardCharsets.UTF_8));
    }
  }

  private static void readToEnd(ShellSession shell, StringBuilder seen) throws IOException {
    byte[] buffer = new byte[4096];
    for (int count; (count = shell.output().read(buffer)) >= 0; ) {
      seen.append(new String(buffer, 0, count, StandardCharsets.UTF_8));
    }
  }
}
