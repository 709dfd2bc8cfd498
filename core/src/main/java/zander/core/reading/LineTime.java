package zander.core.reading;

import java.time.DateTimeException;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * The time that a line of a log is of, as it is written: no zone is reckoned with, because who
 * looks for a time has it from a line like this one. Only seconds since 1970 are taken as UTC.
 */
public final class LineTime {
  /** Only here a time is looked for: what comes later is what the line tells of. */
  private static final int WITHIN = 240;

  private static final List<String> MONTHS =
      List.of("jan", "feb", "mar", "apr", "may", "jun", "jul", "aug", "sep", "oct", "nov", "dec");

  private static final String CLOCK = "(?<h>[0-2]\\d):(?<m>[0-5]\\d):(?<s>[0-6]\\d)";
  private static final String MONTH = "(?<b>Jan|Feb|Mar|Apr|May|Jun|Jul|Aug|Sep|Oct|Nov|Dec)";

  /** The first that is found counts; the ones that say more come first. */
  private static final List<Pattern> FORMS =
      List.of(
          // RFC 3339 and what is like it, nginx's error log too.
          Pattern.compile("(?<y>\\d{4})[-/](?<n>[01]\\d)[-/](?<d>[0-3]\\d)[T ]" + CLOCK),
          // The common log format: [29/Nov/2026:01:51:09 +0000].
          Pattern.compile("(?<d>[0-3]\\d)[/-]" + MONTH + "[/-](?<y>\\d{4})[: ]" + CLOCK),
          // C's asctime, with parts of a second: Sun Nov 29 01:51:09.123456 2026.
          Pattern.compile(
              "\\b" + MONTH + " {1,2}(?<d>[0-3]?\\d) " + CLOCK + "(?:\\.\\d+)? (?<y>\\d{4})"),
          // RFC 3164: Nov 29 01:51:09, without a year.
          Pattern.compile("\\b" + MONTH + " {1,2}(?<d>[0-3]?\\d) " + CLOCK),
          Pattern.compile("^\\W?(?<e>1\\d{9})(?:[.,]\\d+)?\\b"));

  private static final Pattern ASKED =
      Pattern.compile(
          "(?:(?<y>\\d{4})-(?<n>\\d{1,2})-(?<d>\\d{1,2})[T ]+)?"
              + "(?<h>\\d{1,2}):(?<m>\\d{2})(?::(?<s>\\d{2}))?");

  private LineTime() {}

  /**
   * @param about the day for lines that tell no year: they are of that day or of the year before it
   * @return {@code null} for a line that tells none
   */
  public static @Nullable LocalDateTime of(String line, LocalDate about) {
    String head = line.length() > WITHIN ? line.substring(0, WITHIN) : line;
    for (Pattern form : FORMS) {
      Matcher matcher = form.matcher(head);
      if (matcher.find()) {
        try {
          return read(matcher, form, about);
        } catch (DateTimeException e) {
          // The 31st of a shorter month: no time.
          return null;
        }
      }
    }
    return null;
  }

  private static LocalDateTime read(Matcher matcher, Pattern form, LocalDate about) {
    String words = form.pattern();
    if (words.contains("<e>")) {
      long seconds = Long.parseLong(matcher.group("e"));
      return LocalDateTime.ofInstant(Instant.ofEpochSecond(seconds), ZoneOffset.UTC);
    }
    int month =
        words.contains("<n>")
            ? number(matcher, "n")
            : MONTHS.indexOf(matcher.group("b").toLowerCase(Locale.ROOT)) + 1;
    int day = number(matcher, "d");
    // A leap second is taken for the last one of its minute.
    LocalTime time =
        LocalTime.of(
            number(matcher, "h"), number(matcher, "m"), Math.min(59, number(matcher, "s")));
    if (words.contains("<y>")) {
      return LocalDate.of(number(matcher, "y"), month, day).atTime(time);
    }
    boolean isLeapDay = month == 2 && day == 29 && !about.isLeapYear();
    LocalDate date = LocalDate.of(about.getYear() - (isLeapDay ? 1 : 0), month, day);
    // A clock that is a day ahead does not make it last year's.
    return (date.isAfter(about.plusDays(1)) ? date.minusYears(1) : date).atTime(time);
  }

  private static int number(Matcher matcher, String group) {
    return Integer.parseInt(matcher.group(group).strip());
  }

  /**
   * The time a person typed: {@code 14:05}, {@code 14:05:30}, or with {@code 2026-11-29} before it.
   *
   * @param day for a time without one
   * @return {@code null} when it is none
   */
  public static @Nullable LocalDateTime asked(String typed, LocalDate day) {
    Matcher matcher = ASKED.matcher(typed.strip());
    if (!matcher.matches()) {
      return null;
    }
    try {
      LocalDate date =
          matcher.group("y") == null
              ? day
              : LocalDate.of(number(matcher, "y"), number(matcher, "n"), number(matcher, "d"));
      int second = matcher.group("s") == null ? 0 : number(matcher, "s");
      return date.atTime(number(matcher, "h"), number(matcher, "m"), second);
    } catch (DateTimeException e) {
      return null;
    }
  }
}
