package zander.suite.servers;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import zander.desk.work.FailureWords;
import zander.desk.work.Message;
import zander.suite.SystemSshd;

/**
 * Everything on every server: it works, works in a way that is named, or is refused with a sentence
 * that names the cause; and nothing hangs. What came out is the table of {@code docs/SERVERS.md},
 * compared with what is committed, so that a change is seen ({@code -Dservers.write=true} writes it
 * anew, {@code -Dservers.only=regex} tries some of them).
 */
class EveryServerTest {
  private static final Path TABLE = Path.of("../docs/SERVERS.md");
  private static final int SECONDS = 60;

  @TempDir static Path folder;
  private static final Map<String, Map<String, String>> RESULTS = new LinkedHashMap<>();

  @BeforeAll
  static void start() throws Exception {
    Assumptions.assumeTrue(
        SystemSshd.isPossible() && Files.exists(Path.of("/usr/sbin/proftpd")),
        "needs root and the servers that ./verify installs");
    SystemSshd.run("chmod", "755", folder.toString());
  }

  static List<String> servers() {
    String only = System.getProperty("servers.only", ".*");
    return ServerTable.rows().stream()
        .map(ServerTable.Row::what)
        .filter(what -> what.matches(only))
        .toList();
  }

  @ParameterizedTest
  @MethodSource("servers")
  void everythingWorksOrSaysWhyNot(String what) throws Exception {
    ServerTable.Row row =
        ServerTable.rows().stream()
            .filter(one -> one.what().equals(what))
            .findFirst()
            .orElseThrow();
    Path here = Files.createDirectories(folder.resolve("server-" + RESULTS.size()));
    Map<String, String> results = new LinkedHashMap<>();
    RESULTS.put(what, results);
    OpenServer server = row.starting().in(here);
    try {
      WorkTree.make(server);
      Path local = Files.createDirectories(here.resolve("local"));
      ServerChecks[] checks = new ServerChecks[1];
      String in =
          bounded(
              () -> {
                checks[0] = new ServerChecks(server, local);
                return "";
              },
              server);
      results.put("sign in", in);
      if (checks[0] == null) {
        return;
      }
      try (ServerChecks all = checks[0]) {
        for (var check : all.all().entrySet()) {
          results.put(check.getKey(), bounded(check.getValue(), server));
        }
      }
    } finally {
      server.stop().run();
    }
    assertThat(results.values()).noneMatch(result -> result.contains("BROKEN"));
  }

  /** The check's outcome within a bound, as it is told to a person. */
  private static String bounded(ServerChecks.Check check, OpenServer server) {
    CompletableFuture<String> running = new CompletableFuture<>();
    Thread thread =
        new Thread(
            () -> {
              try {
                running.complete(check.run());
              } catch (Throwable e) {
                running.completeExceptionally(e);
              }
            },
            "check");
    thread.setDaemon(true);
    thread.start();
    try {
      String way = running.get(SECONDS, TimeUnit.SECONDS);
      return way.isEmpty() ? "yes" : "yes, " + way;
    } catch (TimeoutException e) {
      StringBuilder where = new StringBuilder("BROKEN: does not end at");
      for (StackTraceElement frame : thread.getStackTrace()) {
        where.append(' ').append(frame);
      }
      return where.toString();
    } catch (ExecutionException e) {
      if (e.getCause() instanceof ServerChecks.Refused refused) {
        return "no: " + plain(new Message(refused.getMessage(), ""), server);
      }
      boolean told = e.getCause() instanceof java.io.IOException;
      return told ? "no: " + plain(FailureWords.of(e.getCause()), server) : broken(e.getCause());
    } catch (InterruptedException e) {
      throw new IllegalStateException(e);
    }
  }

  private static String broken(Throwable e) {
    java.io.StringWriter trace = new java.io.StringWriter();
    e.printStackTrace(new java.io.PrintWriter(trace));
    return "BROKEN: " + trace;
  }

  /** Without what differs from run to run. */
  private static String plain(Message said, OpenServer server) {
    String detail = said.detail().isEmpty() ? "" : ". " + said.detail();
    return (said.headline() + detail)
        .replace(server.remote().parent().text() + "/", "")
        .replace(ServerTable.ACCOUNT, "zndtable")
        .replace(server.remote().text() + "/", "")
        .replace(folder.toString(), "…")
        .replaceAll("\\.zander-[0-9a-f-]+", ".zander-…")
        .replaceAll("\\d{8}-\\d{6}-[0-9a-f]+", "…")
        .replaceAll("localhost|127\\.0\\.0\\.1", "the server")
        .replaceAll("\\d+ bytes", "… bytes")
        .replaceAll("\\s+", " ")
        .strip();
  }

  @AfterAll
  static void compare() throws Exception {
    if (RESULTS.size() < ServerTable.rows().size()) {
      RESULTS.forEach((server, results) -> System.out.println(server + " " + results));
      return;
    }
    String made = table();
    if (Boolean.getBoolean("servers.write")) {
      Files.writeString(TABLE, made);
    }
    assertThat(Files.readString(TABLE))
        .as("docs/SERVERS.md is what the suite finds (-Dservers.write=true writes it anew)")
        .isEqualTo(made);
  }

  private static String table() {
    Set<String> columns = new LinkedHashSet<>();
    RESULTS.values().forEach(results -> columns.addAll(results.keySet()));
    List<String> reasons = new ArrayList<>();
    StringBuilder text =
        new StringBuilder(
            """
            # Servers that Zander is tried on

            Made by the suite (`EveryServerTest`), which starts each of these on this computer, tries
            everything in the columns, and compares what comes out with this page. **yes** works, with
            the way where there are several: *server* is by the server's own tools, *line* by
            requests over the line. A number is a refusal: the sentence a person reads stands below.

            """);
    text.append("| server |");
    columns.forEach(column -> text.append(' ').append(column).append(" |"));
    text.append("\n|---|").append("---|".repeat(columns.size())).append('\n');
    RESULTS.forEach(
        (server, results) -> {
          text.append("| ").append(server).append(" |");
          for (String column : columns) {
            text.append(' ').append(cell(results.get(column), reasons)).append(" |");
          }
          text.append('\n');
        });
    text.append("\n## Refusals\n\n");
    for (int i = 0; i < reasons.size(); i++) {
      text.append(i + 1).append(". ").append(reasons.get(i)).append('\n');
    }
    return text.toString();
  }

  private static String cell(String result, List<String> reasons) {
    if (result == null) {
      return "";
    }
    if (!result.startsWith("no: ")) {
      return result
          .replace("yes, by the server", "server")
          .replace("yes, over the line", "line")
          .replace("yes, ", "");
    }
    String reason = result.substring(4);
    if (!reasons.contains(reason)) {
      reasons.add(reason);
    }
    return "**" + (reasons.indexOf(reason) + 1) + "**";
  }
}
