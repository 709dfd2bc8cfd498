package zander.standin.shell.process;

import java.time.Clock;
import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.Locale;
import zander.core.rights.Mode;
import zander.standin.world.Accounts;
import zander.standin.world.Stat;

/** The long form of a listing line (POSIX XCU, ls, STDOUT). */
public final class LongLine {
  private static final long SIX_MONTHS = 182L * 24 * 3600;
  private static final DateTimeFormatter RECENT =
      DateTimeFormatter.ofPattern("MMM dd HH:mm", Locale.ROOT);
  private static final DateTimeFormatter OLD =
      DateTimeFormatter.ofPattern("MMM dd  yyyy", Locale.ROOT);

  private LongLine() {}

  public static String of(Stat stat, String name, Accounts accounts, Clock clock) {
    return String.format(
        "%s%s%s %3d %-8s %-8s %8d %s %s",
        letter(stat),
        Mode.ofStat(stat.mode()).letters(),
        stat.list() == null ? "" : "+",
        stat.links(),
        owner(stat, accounts),
        group(stat, accounts),
        stat.size(),
        time(stat.modified(), clock),
        name);
  }

  public static char letter(Stat stat) {
    return stat.isFolder() ? 'd' : stat.isLink() ? 'l' : '-';
  }

  public static String owner(Stat stat, Accounts accounts) {
    return accounts.userName(stat.uid()).orElse(Integer.toUnsignedString(stat.uid()));
  }

  public static String group(Stat stat, Accounts accounts) {
    return accounts.groupName(stat.gid()).orElse(Integer.toUnsignedString(stat.gid()));
  }

  private static String time(long seconds, Clock clock) {
    long age = clock.instant().getEpochSecond() - seconds;
    DateTimeFormatter format = age >= 0 && age < SIX_MONTHS ? RECENT : OLD;
    return format.format(Instant.ofEpochSecond(seconds).atZone(ZoneId.systemDefault()));
  }
}
