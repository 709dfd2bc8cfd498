package zander.core.edit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;

/** Judged: the ends of lines that were not edited | the bytes around the edit | 1,000 × 6 edits */
class LineEndsTest {
  private static final String[] ENDS = {"\n", "\r\n"};
  private static final String[] WORDS = {"", "", "level", "river", "level=4.2"};

  private static TextFile file(String raw) throws IOException {
    return TextFile.decode(raw.getBytes(StandardCharsets.UTF_8));
  }

  private static String mixed(Random random) {
    StringBuilder raw = new StringBuilder("first\r\n");
    for (int i = random.nextInt(12); i >= 0; i--) {
      raw.append(WORDS[random.nextInt(WORDS.length)]).append(ENDS[random.nextInt(2)]);
    }
    return raw.append("last\n").toString();
  }

  private static String typed(Random random) {
    StringBuilder typed = new StringBuilder();
    for (int i = random.nextInt(4); i > 0; i--) {
      typed.append(random.nextBoolean() ? "\n" : "new");
    }
    return typed.toString();
  }

  /** Where a place of the text is in the file, as the file itself has it. */
  private static int rawPlace(String raw, int at) {
    int place = 0;
    for (int i = 0; i < at; i++) {
      place += raw.startsWith("\r\n", place) ? 2 : 1;
    }
    return place;
  }

  /** What is before and behind the part that was replaced has the very bytes it had. */
  @Property(seed = "1")
  void nothingButThePartThatIsReplacedChanges(@ForAll long seed) throws IOException {
    Random random = new Random(seed);
    String raw = mixed(random);
    TextFile file = file(raw);
    LineEnds ends = file.lineEnds();
    String text = file.text();
    for (int edit = 0; edit < 6; edit++) {
      int from = random.nextInt(text.length() + 1);
      int to = Math.min(text.length(), from + random.nextInt(12));
      String inserted = typed(random);
      int line = (int) text.substring(0, from).chars().filter(c -> c == '\n').count();
      ends.replaced(line, text.substring(from, to), inserted);
      String before = raw.substring(0, rawPlace(raw, from));
      String behind = raw.substring(rawPlace(raw, to));
      text = text.substring(0, from) + inserted + text.substring(to);
      raw = new String(file.encode(text, ends.now()), StandardCharsets.UTF_8);
      assertThat(raw).startsWith(before).endsWith(behind);
      assertThat(raw.length()).isGreaterThanOrEqualTo(before.length() + behind.length());
      assertThat(raw.replace("\r\n", "\n")).isEqualTo(text);
    }
  }

  /** Without knowing the places: the ends of lines that are there once, and as many as before. */
  @Property(seed = "1")
  void aChangedLineKeepsItsEnd(@ForAll long seed) throws IOException {
    Random random = new Random(seed);
    String raw = mixed(random);
    TextFile file = file(raw);
    String[] lines = file.text().split("\n", -1);
    int changed = random.nextInt(lines.length);
    lines[changed] = "changed";
    String[] was = raw.split("(?<=\n)", -1);
    StringBuilder wanted = new StringBuilder();
    for (int i = 0; i < lines.length; i++) {
      String end = i == lines.length - 1 ? "" : was[i].endsWith("\r\n") ? "\r\n" : "\n";
      wanted.append(lines[i]).append(end);
    }
    assertThat(new String(file.encode(String.join("\n", lines)), StandardCharsets.UTF_8))
        .isEqualTo(wanted.toString());
  }

  @Test
  void aNewLineTakesTheEndOfTheOneBesideIt() throws IOException {
    TextFile file = file("a\r\nb\nc\nd\n");
    LineEnds ends = file.lineEnds();
    ends.replaced(0, "", "\nnew");
    assertThat(file.encode("a\nnew\nb\nc\nd\n", ends.now()))
        .isEqualTo("a\r\nnew\r\nb\nc\nd\n".getBytes(StandardCharsets.UTF_8));
  }

  @Test
  void whatTheEncodingLacksIsNamedWithItsLine() throws IOException {
    byte[] old = "Brücke\nGarten für Äpfel\n".getBytes(StandardCharsets.ISO_8859_1);
    TextFile file = TextFile.decode(old);
    assertThatThrownBy(() -> file.encode("Brücke\nŁódź\n"))
        .isInstanceOfSatisfying(
            UnencodableTextException.class,
            failure -> {
              assertThat(failure.character()).isEqualTo("Ł");
              assertThat(failure.line()).isEqualTo(2);
            });
    assertThat(file.inUtf8().encode("Brücke\nŁódź\n"))
        .isEqualTo("Brücke\nŁódź\n".getBytes(StandardCharsets.UTF_8));
  }
}
