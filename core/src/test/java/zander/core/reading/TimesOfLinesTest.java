package zander.core.reading;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import zander.core.work.Cancellation;

/** Judged: the first line of a time in a log | looking at every line | 600 */
class TimesOfLinesTest {
  private static final LocalDate ABOUT = LocalDate.of(2026, 11, 29);

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "2026-11-29T01:51:09.120Z pump 2 runs | 2026-11-29T01:51:09",
        "[2026-11-29 01:51:09] pump 2 runs | 2026-11-29T01:51:09",
        "2026/11/29 01:51:09 [error] 71#71: *3 open() failed | 2026-11-29T01:51:09",
        "10.8.0.4 - - [29/Nov/2026:01:51:09 +0100] \"GET / HTTP/1.1\" 200 | 2026-11-29T01:51:09",
        "Nov 29 01:51:09 levels-web sshd[71]: Accepted publickey | 2026-11-29T01:51:09",
        "Nov  9 01:51:09 levels-web sshd[71]: Accepted publickey | 2026-11-09T01:51:09",
        "Dec 31 23:59:60 levels-web kernel: leap | 2025-12-31T23:59:59",
        "[Sun Nov 29 01:51:09.123456 2026] [core:error] down | 2026-11-29T01:51:09",
        "1790000000.221 12 10.8.0.4 | 2026-09-21T14:13:20",
        "at 12:00 the weir was opened | ",
        "2026-02-31 10:00:00 no such day | "
      })
  void isReadAsItIsWritten(String line, String expected) {
    assertThat(LineTime.of(line, ABOUT))
        .isEqualTo(expected == null ? null : LocalDateTime.parse(expected));
  }

  @ParameterizedTest
  @CsvSource({
    "14:05, 2026-11-29T14:05:00",
    "9:05:30, 2026-11-29T09:05:30",
    "2026-11-28 14:05, 2026-11-28T14:05:00",
    "2026-11-28T14:05:01, 2026-11-28T14:05:01",
    "yesterday,",
    "25:00,"
  })
  void isAskedForAsPeopleWriteIt(String typed, String expected) {
    assertThat(LineTime.asked(typed, ABOUT))
        .isEqualTo(expected == null ? null : LocalDateTime.parse(expected));
  }

  /** Found by halves is what is found by looking at every line. */
  @Property(tries = 60, seed = "1")
  void theFirstLineOfATimeIsFound(@ForAll long seed) throws IOException {
    Random random = new Random(seed);
    DateTimeFormatter form =
        random.nextBoolean()
            ? DateTimeFormatter.ofPattern("yyyy-MM-dd HH:mm:ss", Locale.ROOT)
            : DateTimeFormatter.ofPattern("MMM ppd HH:mm:ss", Locale.ENGLISH);
    LocalDateTime time = LocalDateTime.of(2026, 11, 1, 0, 0);
    StringBuilder text = new StringBuilder();
    List<LocalDateTime> times = new ArrayList<>();
    List<Long> places = new ArrayList<>();
    for (int i = 0; i < 20_000; i++) {
      if (random.nextInt(4) == 0) {
        text.append("    at levels.Pump.run\n".repeat(random.nextInt(9)));
      }
      time = time.plusSeconds(random.nextInt(120));
      times.add(time);
      places.add((long) text.length());
      text.append(form.format(time)).append(" reading ").append(i).append('\n');
    }
    GrowingFiles files = new GrowingFiles();
    files.put(GrowingFiles.LOG, text.toString().getBytes(StandardCharsets.UTF_8));
    PagedFile file = PagedFile.open(files.files(), GrowingFiles.LOG);
    TimeSearch search = new TimeSearch(file, ABOUT, new Cancellation());
    for (int i = 0; i < 10; i++) {
      LocalDateTime wanted = times.get(random.nextInt(times.size())).plusSeconds(random.nextInt(3));
      int first = 0;
      while (first < times.size() && times.get(first).isBefore(wanted)) {
        first++;
      }
      long expected = first == times.size() ? text.length() : places.get(first);
      assertThat(search.find(wanted)).isEqualTo(expected);
    }
  }

  @Test
  void aFileWithoutTimesSaysSo() throws IOException {
    GrowingFiles files = new GrowingFiles();
    files.put(GrowingFiles.LOG, "no time\n".repeat(90_000).getBytes(StandardCharsets.UTF_8));
    PagedFile file = PagedFile.open(files.files(), GrowingFiles.LOG);
    assertThat(new TimeSearch(file, ABOUT, new Cancellation()).find(ABOUT.atStartOfDay()))
        .isEqualTo(-1);
  }
}
