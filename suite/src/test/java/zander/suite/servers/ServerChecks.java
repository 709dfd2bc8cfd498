package zander.suite.servers;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.OptionalInt;
import java.util.Random;
import zander.core.archive.Archives;
import zander.core.change.DeleteTask;
import zander.core.change.PutBack;
import zander.core.change.RemoteChanges;
import zander.core.change.RightsChange;
import zander.core.change.save.AtomicSave;
import zander.core.connect.Connection;
import zander.core.connect.command.ShellSession;
import zander.core.facts.Checksums;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.find.NameSearch;
import zander.core.find.SearchText;
import zander.core.find.TextSearch;
import zander.core.journal.ChangeKind;
import zander.core.journal.FileJournal;
import zander.core.journal.JournalEntry;
import zander.core.journal.JournalRules;
import zander.core.listing.Narrowing;
import zander.core.phrase.CarrierPhrase;
import zander.core.phrase.Phrase;
import zander.core.rights.Mode;
import zander.core.transfer.Transfer;
import zander.core.transfer.compare.TreeComparison;
import zander.core.transfer.local.LocalEndpoint;
import zander.core.transfer.progress.Progress;
import zander.core.transfer.remote.RemoteEndpoint;
import zander.core.transfer.rules.ConflictRule;
import zander.core.transfer.rules.IgnorePatterns;
import zander.core.transfer.server.SharedConnectionChannels;
import zander.core.work.Cancellation;
import zander.desk.words.Phrases;

/**
 * What is tried on every server: each check is a column of the table, says in which way it was done
 * where there are several, and fails as it fails for a person.
 */
final class ServerChecks implements AutoCloseable {
  interface Check {
    /** The way in which it was done; empty where there is only one. */
    String run() throws Exception;
  }

  /** What a person is told, word by word. */
  static final class Refused extends Exception {
    private static final long serialVersionUID = 1;

    Refused(String words) {
      super(words);
    }
  }

  private final OpenServer server;
  private final Path local;
  private final Connection connection;
  private final RemoteFiles files;
  private final FileJournal journal;
  private final RemoteChanges changes;
  private final DeleteTask deleting;
  private final PutBack putBack;

  ServerChecks(OpenServer server, Path local) throws Exception {
    this.server = server;
    this.local = local;
    this.connection = server.connecting().open();
    this.files = connection.files();
    this.journal = new FileJournal(local.resolve("journal"), "table", JournalRules.USUAL);
    this.changes = new RemoteChanges(files, connection, journal);
    RemotePath home = connection.whoAmI().home();
    this.deleting = new DeleteTask(files, connection, journal, home);
    this.putBack = new PutBack(files, connection, journal, home);
  }

  /** In the order in which they are done: some stand on what others made. */
  Map<String, Check> all() {
    Map<String, Check> checks = new LinkedHashMap<>();
    checks.put("list", this::list);
    checks.put("save", this::save);
    checks.put("rights", this::rights);
    checks.put("rename", this::rename);
    checks.put("move", this::move);
    checks.put("copy", this::copy);
    checks.put("delete", this::delete);
    checks.put("put back", this::putBack);
    checks.put("find names", this::findNames);
    checks.put("find text", this::findText);
    checks.put("checksum", this::checksum);
    checks.put("send up", this::sendUp);
    checks.put("bring down", this::bringDown);
    checks.put("compare", this::compare);
    checks.put("pack", this::pack);
    checks.put("terminal", this::terminal);
    checks.put("delete for good", this::deleteForGood);
    return checks;
  }

  private RemotePath at(String name) {
    return RemotePath.of(server.remote().text() + "/" + name);
  }

  private Path disk(String name) {
    return server.disk().resolve(name);
  }

  private static Cancellation go() {
    return new Cancellation();
  }

  private static String by(boolean server) {
    return server ? "by the server" : "over the line";
  }

  private String list() throws IOException {
    assertThat(files.list(at("stations"), part -> {})).hasSize(WorkTree.STATIONS);
    assertThat(files.readAll(at("index.html"), 100))
        .isEqualTo(Files.readAllBytes(disk("index.html")));
    return "";
  }

  private String save() throws IOException {
    AtomicSave saver = new AtomicSave(files, connection, journal);
    saver.save(
        saver.open(at("feed.xml"), 100).version(), "<level>3</level>".getBytes(UTF_8), List.of());
    assertThat(disk("feed.xml")).hasContent("<level>3</level>");
    return files.renamesOver() ? "in one step" : "in two steps";
  }

  private String rights() throws IOException {
    RightsChange.Result result =
        new RightsChange(files, journal)
            .apply(
                List.of(at("notes.txt")),
                OptionalInt.empty(),
                OptionalInt.empty(),
                (mode, folder) -> new Mode(0640))
            .get(0);
    if (result.failure() != null) {
      throw result.failure();
    }
    return "";
  }

  private String rename() throws IOException {
    changes.rename(at("notes.txt"), at("gauge notes.txt"));
    assertThat(disk("gauge notes.txt")).exists();
    assertThat(disk("notes.txt")).doesNotExist();
    return "";
  }

  /** Out of the folder and into it again: over where another mount begins, where one does. */
  private String move() throws IOException {
    RemotePath outside = connection.whoAmI().home();
    changes.move(List.of(at("list.csv")), outside, deleting, n -> {}, go());
    assertThat(disk("list.csv")).doesNotExist();
    changes.move(List.of(outside.child("list.csv")), server.remote(), deleting, n -> {}, go());
    assertThat(disk("list.csv")).hasContent("2.48");
    long copies =
        journal.entries().stream().filter(entry -> entry.kind() == ChangeKind.COPY).count();
    return copies == 0 ? "" : "by a copy";
  }

  private String copy() throws IOException {
    changes.copy(List.of(at("stations")), at("archive"), n -> {}, go());
    assertThat(disk("archive/stations").toFile().list()).hasSize(WorkTree.STATIONS);
    return by(!changes.copiesThroughHere());
  }

  private static void throwFirst(List<RemoteFailure> failed) throws RemoteFailure {
    if (!failed.isEmpty()) {
      throw failed.get(0);
    }
  }

  private String delete() throws IOException {
    throwFirst(deleting.hold(List.of(at("stations"), at("index.html"))));
    assertThat(disk("stations")).doesNotExist();
    return "";
  }

  private String putBack() throws IOException {
    List<JournalEntry> deleted =
        journal.entries().stream()
            .filter(entry -> entry.kind() == ChangeKind.DELETE && entry.isDone())
            .filter(entry -> entry.path().parent().equals(server.remote()))
            .limit(2)
            .toList();
    if (disk("stations").toFile().exists()) {
      return "nothing to do";
    }
    List<PutBack.Outcome> outcomes = putBack.runAll(deleted, n -> {}, go());
    for (PutBack.Outcome outcome : outcomes) {
      if (outcome.failure() != null) {
        throw outcome.failure();
      }
      assertThat(outcome.verdict()).isEqualTo(PutBack.Verdict.READY);
    }
    assertThat(disk("stations").toFile().list()).hasSize(WorkTree.STATIONS);
    assertThat(disk("index.html")).hasContent("level of Long Reach");
    return "";
  }

  private String findNames() throws IOException {
    List<String> found = new ArrayList<>();
    NameSearch.Outcome outcome =
        new NameSearch(files, connection)
            .run(
                at("stations"),
                Narrowing.parse("*-1*.html", 0),
                part -> part.forEach(entry -> found.add(entry.name())),
                go());
    assertThat(found)
        .containsExactlyInAnyOrder("station-1.html", "station-10.html", "station-11.html");
    return by(outcome.byServer());
  }

  private String findText() throws IOException {
    List<Integer> lines = new ArrayList<>();
    NameSearch.Outcome outcome =
        new TextSearch(files, connection)
            .run(
                at("stations"),
                new SearchText("station 7", false, true),
                Narrowing.NONE,
                part -> part.forEach(hit -> lines.add(hit.line())),
                go());
    assertThat(lines).containsExactly(1);
    return by(outcome.byServer());
  }

  private String checksum() throws Exception {
    Checksums.Checksum sum = new Checksums(files, connection).of(at("index.html"), go());
    byte[] digest =
        java.security.MessageDigest.getInstance("SHA-256")
            .digest(Files.readAllBytes(disk("index.html")));
    assertThat(sum.digest()).isEqualTo(java.util.HexFormat.of().formatHex(digest));
    return by(sum.byServer());
  }

  private RemoteEndpoint side(String folder) {
    return new RemoteEndpoint(
        new SharedConnectionChannels(() -> connection),
        folder.isEmpty() ? server.remote() : at(folder),
        journal,
        connection.whoAmI().home());
  }

  private static String way(RemoteEndpoint side) {
    Phrase carrier = side.carrier();
    return carrier.is(CarrierPhrase.PACKED)
        ? "by tar"
        : carrier.is(CarrierPhrase.BY_REQUESTS)
            ? "by requests: " + Phrases.say((Phrase) carrier.values().get(0))
            : "by requests";
  }

  private static void check(Progress progress) throws Refused {
    if (!progress.problems().isEmpty()) {
      throw new Refused(
          "In the list of transfers: " + Phrases.say(progress.problems().get(0).why()) + ".");
    }
    assertThat(progress.phase()).isEqualTo(Progress.Phase.DONE);
  }

  /** Sixty small files and a large one, over some of which something is already. */
  private String sendUp() throws Exception {
    Path up = Files.createDirectories(local.resolve("up/release"));
    byte[] large = new byte[5 << 20];
    new Random(14).nextBytes(large);
    Files.write(up.resolve("readings.bin"), large);
    for (int i = 0; i < 60; i++) {
      Files.writeString(up.resolve("page-" + i + ".html"), "page " + i);
    }
    RemoteEndpoint side = side("archive");
    for (int round = 1; round <= 2; round++) {
      check(
          new Transfer(
                  new LocalEndpoint(local.resolve("up")), side, ConflictRule.REPLACE, null, go())
              .run(List.of("release")));
      Files.write(up.resolve("readings.bin"), Arrays.copyOf(large, large.length - round));
      Files.writeString(up.resolve("page-0.html"), "page 0, the second");
    }
    assertThat(disk("archive/release/page-0.html")).hasContent("page 0, the second");
    // A load that the server's program did not take is sent once more: its first try is no change.
    assertThat(journal.entries())
        .filteredOn(entry -> entry.kind() == ChangeKind.REPLACE && entry.isDone())
        .hasSize(61)
        .allMatch(entry -> entry.to() != null || entry.contentId() != null);
    return way(side);
  }

  private String bringDown() throws Exception {
    Path down = Files.createDirectories(local.resolve("down"));
    RemoteEndpoint side = side("");
    check(
        new Transfer(side, new LocalEndpoint(down), ConflictRule.REPLACE, null, go())
            .run(List.of("stations")));
    for (String name : disk("stations").toFile().list()) {
      assertThat(down.resolve("stations/" + name)).hasSameBinaryContentAs(disk("stations/" + name));
    }
    return way(side);
  }

  private String compare() throws IOException {
    TreeComparison.Report report =
        new TreeComparison(
                new LocalEndpoint(local.resolve("down")), side(""), IgnorePatterns.NOTHING, go())
            .run(List.of("stations"), progress -> {});
    assertThat(report.equal()).isEqualTo(WorkTree.STATIONS);
    assertThat(report.differing()).isZero();
    return "";
  }

  private String pack() throws IOException {
    Archives archives = new Archives(files, connection, changes);
    archives.pack(List.of(at("stations")), at("stations.tar.gz"), go());
    changes.rename(at("stations"), at("stations-before"));
    assertThat(archives.unpack(at("stations.tar.gz"), false, go())).isEqualTo(at("stations"));
    assertThat(disk("stations").toFile().list()).hasSize(WorkTree.STATIONS);
    return "";
  }

  private String terminal() throws Exception {
    StringBuilder seen = new StringBuilder();
    try (ShellSession shell = connection.openShell(server.remote(), 80, 24)) {
      try {
        shell.type("echo at''-work\r".getBytes(StandardCharsets.US_ASCII));
      } catch (IOException e) {
        // It has ended already; what it said is read below.
      }
      byte[] buffer = new byte[4096];
      while (seen.indexOf("at-work") < 0) {
        int count = shell.output().read(buffer);
        if (count < 0) {
          throw new Refused("The terminal shows: " + lastLine(seen) + " The shell has ended.");
        }
        seen.append(new String(buffer, 0, count, StandardCharsets.UTF_8));
      }
    }
    return "";
  }

  /** Without what was typed, which may be echoed before or after it. */
  private static String lastLine(StringBuilder seen) {
    return seen.toString()
        .replace("echo at''-work", "")
        .lines()
        .map(String::strip)
        .filter(line -> !line.isEmpty())
        .reduce((before, last) -> last)
        .orElse("nothing.");
  }

  private String deleteForGood() throws IOException {
    throwFirst(deleting.forGood(List.of(at("archive")), n -> {}, go()));
    assertThat(disk("archive")).doesNotExist();
    assertThat(connection.isOpen()).isTrue();
    return by(connection.hasShell());
  }

  @Override
  public void close() throws IOException {
    journal.close();
    connection.close();
  }
}
