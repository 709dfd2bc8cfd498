package zander.core.config;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/**
 * How a line of a configuration falls into words. Server and client of OpenSSH read them by the
 * same code, so {@code sshd -T}, which prints what it understood, is the judge: {@code
 * AuthorizedKeysCommandUser} takes one word.
 *
 * <p>Judged: how a line of an OpenSSH configuration falls into words, read and written | {@code
 * sshd -T}, which reads them by the same code | 500 ({@code words.cases})
 */
class JudgedBySshdTest {
  private static final int CASES = Integer.getInteger("words.cases", 400);
  private static final Path SSHD = Path.of("/usr/sbin/sshd");
  private static final String[] PIECES = {
    "a", "/k", " ", " ", "\t", "\"", "\"", "'", "\\", "\\\"", "\\'", "\\\\", "\\ ", "#", "=", "é",
    "%", "*"
  };

  @TempDir Path folder;
  private Path key;

  @BeforeEach
  void makeKey() throws Exception {
    Assumptions.assumeTrue(Files.isExecutable(SSHD), "there is no sshd");
    key = folder.resolve("key");
    run("ssh-keygen", "-q", "-t", "ed25519", "-N", "", "-f", key.toString());
    Files.createDirectories(Path.of("/run/sshd"));
  }

  private record Answer(int status, String text) {}

  private static Answer run(String... command) throws IOException, InterruptedException {
    Process process = new ProcessBuilder(command).redirectErrorStream(true).start();
    process.getOutputStream().close();
    String text = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
    return new Answer(process.waitFor(), text);
  }

  /** The word that it takes the value for; {@code null} where it takes none, or several. */
  private String judge(String line) throws Exception {
    Path file = folder.resolve("sshd_config");
    Files.write(file, List.of("HostKey " + key, line));
    Answer answer = run(SSHD.toString(), "-T", "-f", file.toString());
    return answer.status != 0
        ? null
        : answer
            .text
            .lines()
            .filter(said -> said.startsWith("authorizedkeyscommanduser "))
            .findFirst()
            .map(said -> said.substring("authorizedkeyscommanduser ".length()))
            .orElse("none");
  }

  private static String ours(String line) {
    try {
      List<String> words = ConfigLine.parse(line).orElseThrow().arguments();
      return words.size() == 1 ? words.get(0) : null;
    } catch (IllegalArgumentException e) {
      return null;
    }
  }

  @Test
  void wordsAreThoseOfOpenSsh() throws Exception {
    Random random = new Random(9);
    int taken = 0;
    for (int i = 0; i < CASES; i++) {
      StringBuilder value =
          new StringBuilder(
              random.nextBoolean() ? "AuthorizedKeysCommandUser " : "AuthorizedKeysCommandUser=");
      for (int pieces = random.nextInt(7) + 1; pieces > 0; pieces--) {
        value.append(PIECES[random.nextInt(PIECES.length)]);
      }
      String line = value.toString();
      String judged = judge(line);
      assertThat(ours(line)).as(line).isEqualTo(judged);
      taken += judged == null ? 0 : 1;
    }
    assertThat(taken).isBetween(CASES / 10, CASES);
  }

  @Test
  void whatIsWrittenIsReadAsItWas() throws Exception {
    Random random = new Random(10);
    for (int i = 0; i < CASES / 4; i++) {
      StringBuilder name = new StringBuilder("/");
      for (int pieces = random.nextInt(7) + 1; pieces > 0; pieces--) {
        name.append(PIECES[random.nextInt(PIECES.length)]);
      }
      Path path = Path.of(name.toString());
      ConfiguredHost host =
          new ConfiguredHost(
              "gate",
              "gate.example",
              22,
              null,
              List.of(path),
              List.of(),
              false,
              List.of(),
              0,
              ConfiguredHost.Methods.ALL,
              null,
              List.of());
      String line =
          ConfigWriter.write(List.of(host))
              .lines()
              .filter(one -> one.contains("IdentityFile"))
              .findFirst()
              .orElseThrow()
              .replace("IdentityFile", "AuthorizedKeysCommandUser");
      assertThat(judge(line)).as(line).isEqualTo(path.toString().replace("%", "%%"));
    }
  }
}
