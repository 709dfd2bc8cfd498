package zander.suite;

import static java.nio.charset.StandardCharsets.US_ASCII;
import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;

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
import zander.core.change.save.AtomicSave;
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
import zander.suite.LyingServer.Says;

/**
 * Everything that a server can say against the protocol, or without end: each ends in bounded time
 * and in the little memory that this class is run with, with words, and what asked goes on.
 */
class HostileServerTest {
  private static final int PATIENCE_SECONDS = 60;
  private static final RemotePath FILE = RemotePath.of("/home/warden/level.txt");
  private static final RemotePath FOLDER = RemotePath.of("/home/warden");

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

  private interface Asking {
    Object of(Connection connection) throws IOException;
  }

  /** What a person does with such a server. */
  private static Map<String, Asking> askings() {
    Map<String, Asking> all = new LinkedHashMap<>();
    all.put("list", connection -> connection.files().list(FOLDER, portion -> {}).size());
    all.put("look", connection -> connection.files().entry(FILE));
    all.put(
        "open",
        connection ->
            new AtomicSave(connection.files(), connection, Journal.NONE).open(FILE, 1 << 20));
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
    Map<String, ServerLies.Told> lies = ServerLies.all();
    assertThat(lies).hasSizeGreaterThan(60);
    return lies.entrySet().stream()
        .map(lie -> DynamicTest.dynamicTest(lie.getKey(), () -> told(lie.getValue())));
  }

  private void told(ServerLies.Told told) throws Exception {
    stop();
    start();
    server.lieTo(told.to(), told.lie());
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
    lies.put("one line of 3 MB", out -> out.write(ServerLies.LONG.getBytes(US_ASCII)));
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
