package zander.suite;

import static java.nio.charset.StandardCharsets.US_ASCII;
import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;
import static zander.suite.LyingServer.ANY;
import static zander.suite.LyingServer.ATTRS;
import static zander.suite.LyingServer.DATA;
import static zander.suite.LyingServer.EXTENDED;
import static zander.suite.LyingServer.FSTAT;
import static zander.suite.LyingServer.HANDLE;
import static zander.suite.LyingServer.INIT;
import static zander.suite.LyingServer.LSTAT;
import static zander.suite.LyingServer.NAME;
import static zander.suite.LyingServer.OPEN;
import static zander.suite.LyingServer.OPENDIR;
import static zander.suite.LyingServer.READ;
import static zander.suite.LyingServer.READDIR;
import static zander.suite.LyingServer.READLINK;
import static zander.suite.LyingServer.REALPATH;
import static zander.suite.LyingServer.STAT;
import static zander.suite.LyingServer.VERSION;
import static zander.suite.LyingServer.message;
import static zander.suite.LyingServer.named;
import static zander.suite.LyingServer.status;
import static zander.suite.LyingServer.string;

import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.file.Path;
import java.time.Duration;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.FutureTask;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DynamicTest;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestFactory;
import org.junit.jupiter.api.io.TempDir;
import zander.core.change.AtomicSave;
import zander.core.connect.Connection;
import zander.core.connect.Connector;
import zander.core.connect.address.ServerAddress;
import zander.core.connect.signin.SignInMethods;
import zander.core.facts.TreeSize;
import zander.core.files.RemoteBatch.Wanted;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.journal.Journal;
import zander.core.trust.KnownHosts;
import zander.core.work.Cancellation;
import zander.desk.work.FailureWords;
import zander.desk.work.Message;
import zander.suite.LyingServer.Lie;
import zander.suite.LyingServer.Says;

/**
 * Everything that a server can say against the protocol, or without end: each ends in bounded time
 * and in the little memory that this class is run with, with words, and what asked goes on.
 */
class HostileServerTest {
  private static final int PATIENCE_SECONDS = 60;
  private static final RemotePath FILE = RemotePath.of("/home/warden/level.txt");
  private static final RemotePath FOLDER = RemotePath.of("/home/warden");
  private static final String LONG = "x".repeat(3 << 20);

  @TempDir Path folder;
  private LyingServer server;
  private Connector connector;

  @BeforeEach
  void start() throws IOException {
    server = new LyingServer();
    connector =
        new Connector(
            new KnownHosts(folder.resolve("known_hosts")),
            address ->
                List.of(new InetSocketAddress(InetAddress.getLoopbackAddress(), address.port())),
            null,
            Duration.ofSeconds(4));
  }

  @AfterEach
  void stop() throws IOException {
    connector.close();
    server.close();
  }

  private Connection open() throws IOException {
    return connector.open(
        new ServerAddress("warden", "localhost", server.port()),
        SignInMethods.byPassword(),
        TestPrompts.withPassword("heron"));
  }

  private record Told(int to, Lie lie) {}

  /** What is said, by what it is. */
  private static Map<String, Told> lies() {
    Map<String, Told> lies = new LinkedHashMap<>();
    for (int type : new int[] {LSTAT, OPEN, OPENDIR, READ, READDIR, REALPATH, STAT}) {
      String to = " to request " + type;
      lies.put("an answer of no bytes" + to, new Told(type, (id, out) -> out.writeInt(0)));
      lies.put(
          "an answer of 4 GB" + to,
          new Told(
              type,
              (id, out) -> {
                out.writeInt(-1);
                out.write(new byte[1 << 16]);
              }));
      lies.put(
          "an answer of another kind" + to,
          new Told(type, (id, out) -> message(217, id, body -> {}).writeTo(out)));
      lies.put(
          "an answer cut short" + to,
          new Told(
              type,
              (id, out) ->
                  message(type == READ ? DATA : NAME, id, body -> body.writeShort(7))
                      .writeTo(out)));
      lies.put(
          "a status without a number" + to,
          new Told(type, (id, out) -> message(LyingServer.STATUS, id, body -> {}).writeTo(out)));
      lies.put(
          "a failure of 3 MB" + to, new Told(type, (id, out) -> status(id, 4, LONG).writeTo(out)));
      lies.put(
          "a number of a failure that there is not" + to,
          new Told(type, (id, out) -> status(id, 4711, "\u001b[2J").writeTo(out)));
      lies.put(
          "success where something was asked for" + to,
          new Told(type, (id, out) -> status(id, 0, "").writeTo(out)));
      lies.put(
          "a thousand answers to others, then a failure" + to,
          new Told(
              type,
              (id, out) -> {
                for (int i = 0; i < 1000; i++) {
                  status(id + 100_000 + i, 0, "").writeTo(out);
                }
                status(id, 4, "").writeTo(out);
              }));
      lies.put(
          "nothing more, and the end" + to,
          new Told(
              type,
              (id, out) -> {
                throw new IOException("hangs up");
              }));
    }
    lies.put(
        "a handle of nothing",
        new Told(OPEN, (id, out) -> message(HANDLE, id, body -> string(body, "")).writeTo(out)));
    lies.put(
        "a handle of 3 MB",
        new Told(
            OPENDIR, (id, out) -> message(HANDLE, id, body -> string(body, LONG)).writeTo(out)));
    lies.put(
        "a listing without end",
        new Told(READDIR, (id, out) -> named(id, "level-" + id + "-", 0100644, 3000).writeTo(out)));
    lies.put(
        "the same name without end",
        new Told(READDIR, (id, out) -> named(id, "level", 0100644, 1).writeTo(out)));
    lies.put(
        "nothing listed, without end",
        new Told(READDIR, (id, out) -> named(id, "", 0100644, 0).writeTo(out)));
    lies.put(
        "two thousand million names",
        new Told(
            READDIR,
            (id, out) -> message(NAME, id, body -> body.writeInt(Integer.MAX_VALUE)).writeTo(out)));
    lies.put(
        "less than no names",
        new Told(READDIR, (id, out) -> message(NAME, id, body -> body.writeInt(-3)).writeTo(out)));
    lies.put(
        "names of 3 MB", new Told(READDIR, (id, out) -> named(id, LONG, 0100644, 1).writeTo(out)));
    for (String name : List.of("../../etc/passwd", "/etc/passwd", "..", "a\0b", "", "a/b")) {
      lies.put(
          "the name " + name.replace('\0', '0'),
          new Told(READDIR, (id, out) -> named(id, name, 0100644, 1).writeTo(out)));
      lies.put(
          "home at " + name.replace('\0', '0'),
          new Told(REALPATH, (id, out) -> named(id, name, 040755, 1).writeTo(out)));
    }
    lies.put(
        "two homes", new Told(REALPATH, (id, out) -> named(id, "/home/", 040755, 2).writeTo(out)));
    lies.put(
        "a home of 3 MB",
        new Told(REALPATH, (id, out) -> named(id, "/" + LONG, 040755, 1).writeTo(out)));
    lies.put(
        "a link's target of 3 MB",
        new Told(READLINK, (id, out) -> named(id, LONG, 0120777, 1).writeTo(out)));
    lies.put(
        "everything is a link",
        new Told(
            LSTAT,
            (id, out) ->
                message(ATTRS, id, body -> LyingServer.attributes(body, 0120777)).writeTo(out)));
    for (int type : new int[] {LSTAT, STAT, FSTAT}) {
      lies.put(
          "attributes with a thousand million more, to request " + type,
          new Told(
              type,
              (id, out) ->
                  message(
                          ATTRS,
                          id,
                          body -> {
                            body.writeInt(0x80000000);
                            body.writeInt(1_000_000_000);
                          })
                      .writeTo(out)));
      lies.put(
          "a size of less than nothing, to request " + type,
          new Told(
              type,
              (id, out) ->
                  message(
                          ATTRS,
                          id,
                          body -> {
                            body.writeInt(0x5);
                            body.writeLong(Long.MIN_VALUE);
                            body.writeInt(0100644);
                          })
                      .writeTo(out)));
      lies.put(
          "a size of all there is, to request " + type,
          new Told(
              type,
              (id, out) ->
                  message(
                          ATTRS,
                          id,
                          body -> {
                            body.writeInt(0x5);
                            body.writeLong(Long.MAX_VALUE);
                            body.writeInt(0100644);
                          })
                      .writeTo(out)));
    }
    lies.put(
        "a file without end",
        new Told(
            READ,
            (id, out) ->
                message(DATA, id, body -> string(body, "x".repeat(32 * 1024))).writeTo(out)));
    lies.put(
        "more than was asked for",
        new Told(READ, (id, out) -> message(DATA, id, body -> string(body, LONG)).writeTo(out)));
    lies.put(
        "a length beyond the answer",
        new Told(
            READ, (id, out) -> message(DATA, id, body -> body.writeInt(1 << 30)).writeTo(out)));
    lies.put(
        "content of less than nothing",
        new Told(READ, (id, out) -> message(DATA, id, body -> body.writeInt(-5)).writeTo(out)));
    lies.put(
        "nothing read, without end",
        new Told(READ, (id, out) -> message(DATA, id, body -> string(body, "")).writeTo(out)));
    lies.put(
        "another version",
        new Told(INIT, (id, out) -> message(VERSION, body -> body.writeInt(6)).writeTo(out)));
    lies.put(
        "a version in pieces",
        new Told(INIT, (id, out) -> message(VERSION, body -> body.writeShort(3)).writeTo(out)));
    lies.put(
        "a million abilities",
        new Told(
            INIT,
            (id, out) ->
                message(
                        VERSION,
                        body -> {
                          body.writeInt(3);
                          for (int i = 0; i < 100_000; i++) {
                            string(body, "ability-" + i);
                            string(body, "1");
                          }
                        })
                    .writeTo(out)));
    lies.put(
        "words without end before the service",
        new Told(
            INIT,
            (id, out) -> {
              while (true) {
                out.write("The weir is closed today.\r\n".getBytes(US_ASCII));
              }
            }));
    lies.put(
        "abilities that it does not have",
        new Told(EXTENDED, (id, out) -> status(id, 8, "").writeTo(out)));
    lies.put(
        "noise to everything",
        new Told(ANY, (id, out) -> out.write(LONG.substring(0, 4096).getBytes(US_ASCII))));
    return lies;
  }

  private interface Asking {
    Object of(Connection connection) throws IOException;
  }

  /** What a person does with such a server. */
  private static Map<String, Asking> askings() {
    Map<String, Asking> all = new LinkedHashMap<>();
    all.put("list", connection -> connection.files().list(FOLDER, portion -> {}).size());
    all.put("look", connection -> connection.files().entry(FILE));
    all.put(
        "open", connection -> new AtomicSave(connection.files(), Journal.NONE).open(FILE, 1 << 20));
    all.put(
        "bring down",
        connection ->
            connection.files().batch().get(List.of(new Wanted(FILE, 5)), new Cancellation()));
    all.put(
        "measure",
        connection ->
            new TreeSize(connection.files(), new NoShell())
                .of(List.of(FOLDER), n -> {}, new Cancellation()));
    all.put(
        "follow", connection -> files(connection).readLink(FILE) + files(connection).realPath("."));
    return all;
  }

  private static RemoteFiles files(Connection connection) {
    return connection.files();
  }

  @TestFactory
  Stream<DynamicTest> everyLieEndsWithWords() {
    Map<String, Told> lies = lies();
    assertThat(lies).hasSizeGreaterThan(60);
    return lies.entrySet().stream()
        .map(lie -> DynamicTest.dynamicTest(lie.getKey(), () -> told(lie.getValue())));
  }

  private void told(Told told) throws Exception {
    stop();
    start();
    server.lieTo(told.to, told.lie);
    for (Map.Entry<String, Asking> asking : askings().entrySet()) {
      endsWithWords(
          asking.getKey(),
          () -> {
            try (Connection connection = open()) {
              return asking.getValue().of(connection);
            }
          });
    }
    server.beHonest();
    try (Connection connection = open()) {
      assertThat(connection.files().list(FOLDER, portion -> {})).hasSize(1);
    }
  }

  private static void endsWithWords(String what, Callable<Object> work) throws Exception {
    FutureTask<Object> task = new FutureTask<>(work);
    Thread thread = new Thread(task, "asking");
    thread.setDaemon(true);
    thread.start();
    try {
      task.get(PATIENCE_SECONDS, TimeUnit.SECONDS);
    } catch (ExecutionException e) {
      assertThat(e.getCause()).as(what).isInstanceOf(IOException.class);
      Message said = FailureWords.of(e.getCause());
      assertThat(said.headline()).as(what).isNotBlank().hasSizeLessThan(300);
      assertThat(said.headline() + said.detail())
          .as(what)
          .doesNotContain("Exception", "java.", "\u001b")
          .hasSizeLessThan(3000);
    }
  }

  /** Commands that never come to an end, or say what nobody can read. */
  @Test
  void commandsThatLieEndToo() throws Exception {
    Map<String, Says> lies = new LinkedHashMap<>();
    lies.put("noise", out -> out.write(new byte[] {(byte) 0xff, 0, 27, '[', (byte) 0x9b}));
    lies.put(
        "a number too large",
        out -> out.write("uid=99999999999999999999(warden) gid=-1 groups=1(\n".getBytes(UTF_8)));
    lies.put("one line of 3 MB", out -> out.write(LONG.getBytes(US_ASCII)));
    for (Map.Entry<String, Says> lie : lies.entrySet()) {
      server.sayToCommands(lie.getValue());
      endsWithWords(
          lie.getKey(),
          () -> {
            try (Connection connection = open()) {
              return connection.tools();
            }
          });
    }
    server.sayToCommands(
        out -> {
          byte[] names = "web:x:33:warden\n".repeat(4096).getBytes(US_ASCII);
          while (true) {
            out.write(names);
          }
        });
    endsWithWords(
        "names without end",
        () -> {
          try (Connection connection = open()) {
            return connection.files().list(FOLDER, portion -> {}).size();
          }
        });
  }
}
