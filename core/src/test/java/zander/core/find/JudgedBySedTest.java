package zander.core.find;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashSet;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.regex.PatternSyntaxException;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/**
 * Replacing by expression, compared with the system's {@code sed -E} over generated cases.
 *
 * <p>Judged: replacing by expression, line by line | {@code sed -E}, {@code grep -c} | 600 ({@code
 * judge.cases})
 */
class JudgedBySedTest {
  private static final int CASES = Integer.getInteger("judge.cases", 600);
  private static final List<String> ATOMS =
      List.of(
          "a",
          "b",
          "=",
          ";",
          " ",
          "ä",
          "\\.",
          ".",
          "[ab]",
          "[^a]",
          "[^;]",
          "[]a]",
          "[^]b]",
          "[a-c]",
          "[[:space:]]",
          "[[:digit:]x]",
          "[^[:alpha:]]",
          "[a\\]",
          "[a&&b]",
          "[a-]",
          "[[b]",
          "[[=a=]]",
          "\\(",
          "\\+");
  private static final List<String> TIMES = List.of("", "", "", "*", "+", "?", "{1,2}");
  private static final String LETTERS = "aabbc=; .ä\\]&-[(+7x\t";

  @TempDir Path folder;

  @Test
  void replacesWhatSedReplaces() throws Exception {
    Random random = new Random(20);
    for (int i = 0; i < CASES; i++) {
      String expression = expression(random);
      String text = text(random);
      boolean group = random.nextInt(3) == 0;
      String wanted = group ? "(" + expression + ")" : expression;
      String ours = replacedAll(text, wanted, group ? "<$1>" : "X");
      String theirs = sed(text, wanted, group ? "<\\1>" : "X");
      assertThat(ours).as("case %d: %s in %s", i, wanted, text).isEqualTo(theirs);
    }
  }

  /** One that cannot be empty: of an empty place there is nothing to replace. */
  private static String expression(Random random) {
    StringBuilder made = new StringBuilder(random.nextInt(6) == 0 ? "^" : "");
    int must = random.nextInt(3);
    for (int i = 0; i < 3; i++) {
      made.append(ATOMS.get(random.nextInt(ATOMS.size())));
      made.append(i == must ? "" : TIMES.get(random.nextInt(TIMES.size())));
    }
    return made + (random.nextInt(6) == 0 ? "$" : "");
  }

  private static String text(Random random) {
    StringBuilder made = new StringBuilder();
    int length = random.nextInt(60);
    for (int i = 0; i < length; i++) {
      boolean end = random.nextInt(8) == 0;
      made.append(end ? '\n' : LETTERS.charAt(random.nextInt(LETTERS.length())));
    }
    return made.toString();
  }

  private static String replacedAll(String text, String expression, String with) {
    List<ReplaceTask.Place> places =
        ReplaceTask.places(text, new SearchText(expression, true, true), with);
    Set<Integer> all = new HashSet<>(IntStream.range(0, places.size()).boxed().toList());
    return ReplaceTask.replaced(text, places, all);
  }

  private String sed(String text, String expression, String with) throws Exception {
    Path file = Files.writeString(folder.resolve("text"), text);
    ProcessBuilder sed =
        new ProcessBuilder("sed", "-E", "s/" + expression + "/" + with + "/g", file.toString());
    sed.environment().put("LC_ALL", "C.UTF-8");
    Process process = sed.redirectErrorStream(true).start();
    String said = new String(process.getInputStream().readAllBytes(), UTF_8);
    assertThat(process.waitFor()).as("sed %s: %s", expression, said).isZero();
    return said;
  }

  /** What administrators write, and what went beyond its line. */
  @ParameterizedTest
  @CsvSource({
    "'listen[^;]*', 'listen 80;|root /srv;|listen 443', 'X;|root /srv;|X'",
    "'=[[:space:]]*', 'a=|b= 1|', 'aX|bX1|'",
    "'^#', '#a|#b', 'Xa|Xb'",
    "'[0-9]+$', 'max 30|max 40|', 'max X|max X|'",
    "'\\<on\\>', 'on|once on', 'X|once X'",
  })
  void staysInItsLine(String expression, String text, String expected) throws Exception {
    String lines = text.replace('|', '\n');
    assertThat(replacedAll(lines, expression, "X")).isEqualTo(expected.replace('|', '\n'));
    assertThat(sed(lines, expression, "X")).isEqualTo(expected.replace('|', '\n'));
  }

  @ParameterizedTest
  @ValueSource(strings = {"[ab", "[[:none:]]", "[[:space:", "(a"})
  void whatIsNoExpressionIsTold(String expression) {
    assertThatThrownBy(() -> new SearchText(expression, true, true).pattern())
        .isInstanceOf(PatternSyntaxException.class);
  }

  /** Places are told by their lines, as they were and as they would be. */
  @Test
  void aPlaceKnowsItsLine() {
    List<ReplaceTask.Place> places =
        ReplaceTask.places("one\ntwo two\n", new SearchText("two", false, true), "three");
    assertThat(places).extracting(ReplaceTask.Place::line).containsExactly(2, 2);
    assertThat(places.get(1).before()).isEqualTo("two two");
    assertThat(places.get(1).after()).isEqualTo("two three");
  }

  /** A page in one line: each of its places shows what is around it, and no more. */
  @Test
  void aLongLineIsShownAroundItsPlace() {
    String page = "level=3;".repeat(100_000);
    List<ReplaceTask.Place> places =
        ReplaceTask.places(page, new SearchText("3", false, true), "4");
    assertThat(places).hasSize(100_000);
    assertThat(places).allMatch(place -> place.before().length() < 400);
    assertThat(places.get(50_000).before()).contains("level=3;level=3;");
    assertThat(places.get(50_000).after()).containsOnlyOnce("level=4;");
    Set<Integer> all = new HashSet<>(IntStream.range(0, places.size()).boxed().toList());
    assertThat(ReplaceTask.replaced(page, places, all)).isEqualTo(page.replace('3', '4'));
  }
}
