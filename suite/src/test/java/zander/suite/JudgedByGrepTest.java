package zander.suite;

import static java.nio.charset.StandardCharsets.ISO_8859_1;
import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.Charset;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.PatternSyntaxException;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import zander.core.connect.Connection;
import zander.core.connect.command.Commands;
import zander.core.files.RemotePath;
import zander.core.find.SearchMatch;
import zander.core.find.SearchText;
import zander.core.find.TextSearch;
import zander.core.listing.Narrowing;
import zander.core.work.Cancellation;

/**
 * Searches by the server, over generated texts and expressions: the same lines as our own engine
 * finds in the same bytes, and as the system's {@code grep} finds in a locale that knows letters.
 * {@code -Dgrep.cases=20000} for more of them.
 *
 * <p>Judged: what a search by the server finds, in UTF-8 and older encodings, with letters of any
 * language | our own engine on the same bytes; {@code grep -E} in a locale that knows letters | 600
 * and 300 ({@code grep.cases})
 */
@Timeout(600)
class JudgedByGrepTest {
  private static final int CASES = Integer.getInteger("grep.cases", 600);
  private static final String LETTERS =
      "aabkKsu\u00fc\u00dc\u00e9\u00df.=; \t[]-^$\\x9\u20ac\u2003\u00bf\ud83d\udc1f";

  /** What only some engines take for the same without case. */
  private static final String ODD = "\u017f\u212a\u0131\u0130";

  private static final List<String> ATOMS =
      List.of(
          "a",
          "k",
          "\u00fc",
          "\u00c9",
          "\u00df",
          "\u20ac",
          "\ud83d\udc1f",
          ".",
          "\\.",
          "\\\\",
          "=",
          "[ab]",
          "[^a]",
          "[\u00e9\u00fc]",
          "[^\u00fc]",
          "[a-z]",
          "[^;]",
          "[]a]",
          "[^]]",
          "[a^-]",
          "[[]",
          "[[:alpha:]]",
          "[^[:alnum:]]",
          "[[:upper:]x]",
          "[[:space:]]",
          "[[:punct:]]",
          "[[:graph:]]",
          "[[:print:]]",
          "[^[:blank:]]",
          "(a|\u00fc)",
          "(k|)");

  /** Besides what POSIX has; not for the judge. */
  private static final List<String> MORE =
      List.of("\\d", "\\w", "\\W", "\\s", "\\S", "\\b", "s", "i");

  private static final List<String> TIMES = List.of("", "", "", "*", "+", "?", "{2}", "{1,2}");

  @TempDir static Path folder;
  private static SystemSshd sshd;
  private static Connection connection;
  private static Path tree;

  @BeforeAll
  static void start() throws Exception {
    Assumptions.assumeTrue(SystemSshd.isPossible(), "needs openssh-server, and to be root");
    sshd = new SystemSshd(folder, List.of(), List.of());
    connection = sshd.open("root");
    tree = Files.createDirectory(folder.resolve("tree"));
    Random random = new Random(11);
    write("plain", UTF_8, text(random, LETTERS, "\n"));
    write("ends", UTF_8, text(random, LETTERS, "\r\n"));
    write("odd", UTF_8, text(random, LETTERS + ODD, "\n"));
    write("marked", UTF_8, "\ufeff" + text(random, LETTERS, "\n"));
    write("latin", ISO_8859_1, text(random, "aabkKu\u00fc\u00dc\u00e9 .;\u00df", "\n"));
    write(
        "western", Charset.forName("windows-1252"), text(random, "abk\u00fc \u20ac\u00e9", "\r\n"));
    write("unended", UTF_8, text(random, LETTERS, "\n") + "a\u00fck");
    write("empty", UTF_8, "");
  }

  @AfterAll
  static void stop() throws Exception {
    if (sshd != null) {
      connection.close();
      sshd.close();
    }
  }

  private static void write(String name, Charset charset, String text) throws Exception {
    Files.write(tree.resolve(name), text.getBytes(charset));
  }

  private static String text(Random random, String letters, String end) {
    int[] all = letters.codePoints().toArray();
    StringBuilder text = new StringBuilder();
    for (int line = 0; line < 60; line++) {
      for (int i = random.nextInt(7); i > 0; i--) {
        text.appendCodePoint(all[random.nextInt(all.length)]);
      }
      text.append(end);
    }
    return text.toString();
  }

  private static String expression(Random random, boolean posix) {
    StringBuilder made = new StringBuilder(random.nextInt(5) == 0 ? "^" : "");
    for (int i = 1 + random.nextInt(3); i > 0; i--) {
      List<String> atoms = posix || random.nextInt(3) > 0 ? ATOMS : MORE;
      String atom = atoms.get(random.nextInt(atoms.size()));
      boolean counted = !atom.equals("\\b");
      made.append(atom).append(counted ? TIMES.get(random.nextInt(TIMES.size())) : "");
    }
    return made.append(random.nextInt(5) == 0 ? "$" : "").toString();
  }

  private static Set<String> found(Commands commands, SearchText wanted) throws Exception {
    Set<String> found = new TreeSet<>();
    RemotePath at = RemotePath.of(tree.toString());
    new TextSearch(connection.files(), commands)
        .run(
            at,
            wanted,
            Narrowing.parse("", 0),
            part -> {
              for (SearchMatch hit : part) {
                found.add(hit.file().name() + ":" + hit.line() + ":" + hit.text());
              }
            },
            new Cancellation());
    return found;
  }

  @Test
  void theServerFindsWhatWeFindInTheSameBytes() throws Exception {
    Random random = new Random(7);
    int found = 0;
    for (int i = 0; i < CASES; i++) {
      boolean expression = random.nextInt(5) > 0;
      String text =
          expression ? expression(random, false) : text(random, LETTERS + ODD, "").substring(0, 2);
      SearchText wanted =
          new SearchText(text, expression, random.nextBoolean(), random.nextInt(6) == 0);
      Set<String> here = found(Commands.NONE, wanted);
      assertThat(found(connection, wanted)).as("case %d: %s", i, wanted).isEqualTo(here);
      found += here.size();
    }
    assertThat(found).isGreaterThan(CASES);
  }

  @Test
  void grepFindsTheSame() throws Exception {
    Random random = new Random(9);
    for (int i = 0; i < CASES / 2; i++) {
      SearchText wanted = new SearchText(expression(random, true), true, random.nextBoolean());
      Set<String> ours = found(connection, wanted);
      ours.removeIf(line -> !line.startsWith("plain:"));
      assertThat(ours).as("case %d: %s", i, wanted).isEqualTo(byGrep(wanted));
    }
  }

  private static Set<String> byGrep(SearchText wanted) throws Exception {
    ProcessBuilder grep =
        new ProcessBuilder(
            "grep", "-nH", wanted.matchCase() ? "-E" : "-Ei", "-e", wanted.text(), "--", "plain");
    grep.directory(tree.toFile());
    grep.environment().put("LC_ALL", "C.UTF-8");
    Process process = grep.start();
    Set<String> lines =
        new TreeSet<>(new String(process.getInputStream().readAllBytes(), UTF_8).lines().toList());
    assertThat(process.waitFor()).as(wanted.text()).isLessThan(2);
    return lines;
  }

  @Test
  void whatCannotBeSaidToGrepIsReadHereAndWhatIsNoExpressionIsRefused() throws Exception {
    Files.writeString(tree.resolve("twice"), "otter otter\nheron otter\n");
    assertThat(found(connection, new SearchText("(otter) \\1", true, true)))
        .containsExactly("twice:1:otter otter");
    assertThat(found(connection, new SearchText("OTTER$", true, false))).hasSize(2);
    Files.delete(tree.resolve("twice"));
    org.assertj.core.api.Assertions.assertThatThrownBy(
            () -> found(connection, new SearchText("(", true, true)))
        .isInstanceOf(PatternSyntaxException.class);
  }
}
