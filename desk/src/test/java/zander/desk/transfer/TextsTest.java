package zander.desk.transfer;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Clock;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import zander.core.transfer.compare.TreeComparison;
import zander.desk.sheet.Texts;

class TextsTest {
  private static final ZoneId ZONE = ZoneId.systemDefault();
  private static final Clock NOON =
      Clock.fixed(LocalDateTime.parse("2026-11-23T12:00:00").atZone(ZONE).toInstant(), ZONE);

  @ParameterizedTest
  @CsvSource({
    "2026-11-23T11:59:30, just now", "2026-11-23T11:48:00, 12 min ago",
    "2026-11-23T08:41:00, today 08:41", "2026-11-22T18:02:00, yesterday 18:02",
    "2026-11-12T09:14:00, 12 Nov 09:14", "2024-10-03T12:00:00, 3 Oct 2024",
    "2026-11-23T12:05:00, today 12:05", "2027-01-05T12:00:00, 5 Jan 2027"
  })
  void saysWhenAsNearAsItMatters(String time, String words) {
    long seconds = LocalDateTime.parse(time).atZone(ZONE).toEpochSecond();
    assertThat(Texts.when(seconds, NOON)).isEqualTo(words);
  }

  @ParameterizedTest
  @CsvSource({
    "0, 0 B",
    "999, 999 B",
    "1000, 1.0 KB",
    "6144, 6.1 KB",
    "999999, 1.0 MB",
    "88000000, 88.0 MB",
    "1099511627776, 1.1 TB"
  })
  void saysSizes(long bytes, String words) {
    assertThat(Texts.size(bytes)).isEqualTo(words);
  }

  @Test
  void saysCountsAndTimesLeft() {
    assertThat(Texts.count(1, "file")).isEqualTo("1 file");
    assertThat(Texts.count(1920, "file")).isEqualTo("1,920 files");
    assertThat(Texts.timeLeft(5)).isEqualTo("5 s");
    assertThat(Texts.timeLeft(170)).isEqualTo("3 min");
    assertThat(Texts.timeLeft(7800)).isEqualTo("2 h 10 min");
  }

  @Test
  void thePaceIsSmoothed() {
    TransferRate pace = new TransferRate();
    assertThat(pace.secondsFor(100)).isEqualTo(-1);
    long bytes = 0;
    for (int i = 1; i <= 100; i++) {
      bytes += i % 2 == 0 ? 0 : 200;
      pace.add(i * 100_000_000L, bytes);
    }
    assertThat(pace.secondsFor(10_000)).isBetween(8L, 12L);
  }

  /** No assurance stands that was not earned. */
  @Test
  void aComparisonThatBrokeOffSaysSo() {
    var part = new TreeComparison.Report(1024, 2048, 1024, 0, List.of(), false);
    assertThat(CheckModel.outcome(part, false))
        .startsWith("Broke off")
        .contains("1,024 files", "so far", "The rest was not compared")
        .doesNotContain("Nothing differs");
    assertThat(CheckModel.outcome(null, false)).contains("Nothing was compared");
    assertThat(CheckModel.outcome(part, true)).endsWith("so far");
    var whole = new TreeComparison.Report(1024, 2048, 1024, 0, List.of(), true);
    assertThat(CheckModel.outcome(whole, false)).startsWith("Nothing differs in content");
  }
}
