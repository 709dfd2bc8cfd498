package zander.desk.sheet;

import java.time.Clock;
import java.time.LocalDate;
import java.time.ZoneId;
import java.time.ZonedDateTime;
import java.time.format.DateTimeFormatter;
import java.util.Locale;
import zander.desk.words.Words;

/** Sizes, times and counts as people read them. */
public final class Texts {
  private static final Words WORDS = Words.of(Texts.class);

  private static final DateTimeFormatter TIME = DateTimeFormatter.ofPattern("HH:mm", Locale.ROOT);
  private static final DateTimeFormatter DAY =
      DateTimeFormatter.ofPattern("d MMM HH:mm", Locale.ENGLISH);
  private static final DateTimeFormatter YEAR =
      DateTimeFormatter.ofPattern("d MMM yyyy", Locale.ENGLISH);
  private static final DateTimeFormatter EXACT =
      DateTimeFormatter.ofPattern("yyyy-MM-dd HH:mm:ss xxx", Locale.ROOT);
  private static final String[] UNITS = {
    WORDS.say("kb"), WORDS.say("mb"), WORDS.say("gb"), WORDS.say("tb"), WORDS.say("pb")
  };

  private Texts() {}

  /** Bytes in units of 1,000 with one decimal: {@code 6.1 KB}. */
  public static String size(long bytes) {
    if (bytes < 1000) {
      return bytes + " B";
    }
    double value = bytes;
    int unit = -1;
    while (value >= 999.95 && unit < UNITS.length - 1) {
      value /= 1000;
      unit++;
    }
    return String.format(Locale.ROOT, "%.1f %s", value, UNITS[unit]);
  }

  /** Grouped digits: {@code 1,920}. */
  public static String count(long number) {
    return String.format(Locale.ROOT, "%,d", number);
  }

  /**
   * A count with its word: {@code 1 file}, {@code 3 files}.
   *
   * @param thing a key of the counted words
   */
  public static String count(long number, String thing) {
    return Words.counted(number, count(number), thing);
  }

  /** The time as near as it matters: minutes ago, today, yesterday, this year, a date. */
  public static String when(long seconds, Clock clock) {
    ZonedDateTime time = java.time.Instant.ofEpochSecond(seconds).atZone(ZoneId.systemDefault());
    long age = clock.instant().getEpochSecond() - seconds;
    LocalDate today = LocalDate.now(clock);
    if (age >= 0 && age < 60) {
      return WORDS.say("justNow");
    }
    if (age >= 0 && age < 3600) {
      return WORDS.say("minAgo", age / 60);
    }
    if (time.toLocalDate().equals(today)) {
      return WORDS.say("today", TIME.format(time));
    }
    if (time.toLocalDate().equals(today.minusDays(1))) {
      return WORDS.say("yesterday", TIME.format(time));
    }
    boolean recent = age >= 0 && age < 180L * 86_400;
    return (recent ? DAY : YEAR).format(time);
  }

  /** The whole time with its offset, for a hint. */
  public static String exactly(long seconds) {
    return EXACT.format(java.time.Instant.ofEpochSecond(seconds).atZone(ZoneId.systemDefault()));
  }

  /** A time that is left: {@code 5 s}, {@code 3 min}, {@code 2 h 10 min}. */
  public static String timeLeft(long seconds) {
    if (seconds < 60) {
      return WORDS.say("s", Math.max(1, seconds));
    }
    long minutes = (seconds + 30) / 60;
    return minutes < 60 ? WORDS.say("min", minutes) : WORDS.say("hMin", minutes / 60, minutes % 60);
  }
}
