package zander.core.reading;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;
import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;

/**
 * Lines are the same from wherever in a file they are read.
 *
 * <p>Judged: lines of a file, read from any place in either direction, and as it grows | each
 * other, and the text cut at its line ends | 450 files
 */
class LinesOfFilesTest {
  private static final List<String> PARTS =
      List.of("a", "ü", "€", "\ud83e\udda6", "\r\n", "\n", "\n\n", "level 4.21 m at Weir 3");

  /** Text with some lines much longer than what is read at once of one, and bytes of no text. */
  private static byte[] content(Random random) {
    ByteArrayOutputStream bytes = new ByteArrayOutputStream();
    for (int i = random.nextInt(60); i > 0; i--) {
      String part = PARTS.get(random.nextInt(PARTS.size()));
      int times = random.nextInt(5) == 0 ? random.nextInt(40_000) : random.nextInt(40);
      boolean isEnd = part.contains("\n");
      bytes.writeBytes(part.repeat(isEnd ? times % 7 : times).getBytes(StandardCharsets.UTF_8));
      if (random.nextInt(6) == 0) {
        byte[] odd = new byte[random.nextInt(30)];
        random.nextBytes(odd);
        bytes.writeBytes(odd);
      }
    }
    return bytes.toByteArray();
  }

  private static PagedFile open(GrowingFiles files) throws IOException {
    return PagedFile.open(files.files(), GrowingFiles.LOG);
  }

  private static List<FileLine> forwards(PagedFile file) throws IOException {
    List<FileLine> all = new ArrayList<>();
    for (long at = 0; ; at = all.get(all.size() - 1).end()) {
      List<FileLine> some = file.after(at);
      if (some.isEmpty()) {
        return all;
      }
      all.addAll(some);
    }
  }

  private static List<FileLine> backwards(PagedFile file) throws IOException {
    List<FileLine> all = new ArrayList<>();
    for (long at = file.size(); at > 0; at = all.get(all.size() - 1).from()) {
      List<FileLine> some = new ArrayList<>(file.before(at));
      assertThat(some).isNotEmpty();
      Collections.reverse(some);
      all.addAll(some);
    }
    Collections.reverse(all);
    return all;
  }

  @Property(tries = 150, seed = "1")
  void forwardsBackwardsAndFromAnyPlaceTheyAreTheSame(@ForAll long seed) throws IOException {
    Random random = new Random(seed);
    GrowingFiles files = new GrowingFiles();
    byte[] content = content(random);
    files.put(GrowingFiles.LOG, content);
    PagedFile file = open(files);
    List<FileLine> all = forwards(file);
    assertThat(backwards(file)).isEqualTo(all);
    long at = 0;
    for (FileLine line : all) {
      assertThat(line.from()).isEqualTo(at);
      assertThat(line.end()).isGreaterThan(at).isLessThanOrEqualTo(at + LineBreaks.LONGEST);
      at = line.end();
    }
    assertThat(at).isEqualTo(content.length);
    for (int i = 0; i < 10 && content.length > 0; i++) {
      long place = random.nextInt(content.length + 1);
      assertThat(file.after(place))
          .startsWith(
              all.stream().filter(line -> line.from() >= place).limit(3).toArray(FileLine[]::new));
      long line = file.lineAt(place);
      assertThat(line).isLessThanOrEqualTo(place);
      assertThat(all).anyMatch(one -> one.from() == line ? one.end() >= place : one.end() == line);
    }
  }

  @Property(tries = 150, seed = "1")
  void theyAreThoseOfTheTextWhereNoneIsLong(@ForAll long seed) throws IOException {
    Random random = new Random(seed);
    StringBuilder text = new StringBuilder();
    for (int i = random.nextInt(4000); i > 0; i--) {
      text.append(PARTS.get(random.nextInt(PARTS.size()))).append(random.nextInt(9));
    }
    text.append('\n');
    GrowingFiles files = new GrowingFiles();
    files.put(GrowingFiles.LOG, text.toString().getBytes(StandardCharsets.UTF_8));
    String[] expected = text.toString().split("\r?\n", -1);
    assertThat(forwards(open(files)).stream().map(FileLine::text).toList())
        .isEqualTo(Arrays.asList(expected).subList(0, expected.length - 1));
  }

  @Property(tries = 150, seed = "1")
  void whatGrowsHasTheLinesThatItHasInTheEnd(@ForAll long seed) throws IOException {
    Random random = new Random(seed);
    byte[] content = content(random);
    GrowingFiles files = new GrowingFiles();
    files.put(GrowingFiles.LOG, new byte[0]);
    FollowedFile followed = FollowedFile.from(files.files(), open(files), 0);
    List<FileLine> told = new ArrayList<>();
    for (int at = 0; at < content.length; ) {
      int end = Math.min(content.length, at + 1 + random.nextInt(30_000));
      files.append(files.at(GrowingFiles.LOG), Arrays.copyOfRange(content, at, end));
      at = end;
      followed.look().forEach(growth -> told.addAll(growth.lines()));
    }
    followed.look().forEach(growth -> told.addAll(growth.lines()));
    assertThat(told).isEqualTo(forwards(open(files)));
  }

  @Test
  void theEndOfAFileIsOneReading() throws IOException {
    GrowingFiles files = new GrowingFiles();
    files.put(GrowingFiles.LOG, "12 Weir 3\n".repeat(300_000).getBytes(StandardCharsets.UTF_8));
    PagedFile file = open(files);
    assertThat(file.last()).last().extracting(FileLine::end).isEqualTo(3_000_000L);
    assertThat(files.at(GrowingFiles.LOG).reads).isEqualTo(1);
  }

  @Test
  void controlsStandAsMarksAndOtherEncodingsAreRead() throws IOException {
    GrowingFiles files = new GrowingFiles();
    files.put(
        GrowingFiles.LOG,
        "\u001b[31mpump\u202e 2\tis \u00fcber\nH\u00f6he\n".getBytes(StandardCharsets.UTF_8));
    assertThat(open(files).last())
        .extracting(FileLine::text)
        .first()
        .isEqualTo("\\x1b[31mpump\\u202e 2\tis \u00fcber");
    files.put(GrowingFiles.LOG, "H\u00f6he\n".getBytes(StandardCharsets.ISO_8859_1));
    assertThat(open(files).last()).extracting(FileLine::text).containsExactly("H\u00f6he");
  }
}
