package zander.core.page;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import zander.core.files.FileKind;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteEntry;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.files.RemoteReader;
import zander.core.work.BlockingCalls;

/** What the log of a web server says about a page. */
public final class ErrorLog {
  /** Where services keep their logs, each in a folder of its own (FHS 3.0, section 5.10). */
  private static final RemotePath LOGS = RemotePath.of("/var/log");

  /** As nginx and lighttpd call them, and as Apache does. */
  private static final List<String> NAMES = List.of("error.log", "error_log");

  /** How many logs are looked into, the newest first. */
  private static final int MOST = 6;

  /** How much of a log's end is looked at, in bytes. */
  private static final int END = 32 * 1024;

  private ErrorLog() {}

  /**
   * A line of a log.
   *
   * @param text empty where the log may not be read
   */
  public record Line(RemotePath log, String text) {}

  /**
   * The newest line that names the page; waits.
   *
   * @param path of the page in its address, such as {@code /alerts.html}
   * @return {@code null} when no log that was found names it
   * @throws IOException when the connection is gone, or there are no logs to be listed
   */
  public static @Nullable Line of(RemoteFiles files, String path) throws IOException {
    BlockingCalls.check("the log of a page");
    Line closed = null;
    for (RemotePath log : logs(files)) {
      try {
        Line found = lastOf(files, log, path);
        if (found != null) {
          return found;
        }
      } catch (RemoteFailure e) {
        if (e.reason() != RemoteFailure.Reason.PERMISSION_DENIED) {
          throw e;
        }
        closed = closed == null ? new Line(log, "") : closed;
      }
    }
    return closed;
  }

  private static List<RemotePath> logs(RemoteFiles files) throws IOException {
    List<RemotePath> possible = new ArrayList<>();
    for (RemoteEntry entry : files.list(LOGS, portion -> {})) {
      if (entry.leadsToFolder()) {
        NAMES.forEach(name -> possible.add(entry.path().resolve(name)));
      }
    }
    List<RemoteAttributes> seen = files.lookAll(possible);
    List<Integer> there = new ArrayList<>();
    for (int i = 0; i < seen.size(); i++) {
      if (seen.get(i) != null && seen.get(i).kind() == FileKind.FILE) {
        there.add(i);
      }
    }
    there.sort(Comparator.comparingLong(i -> -seen.get(i).modified()));
    return there.stream().limit(MOST).map(possible::get).toList();
  }

  /** Its whole name and no longer one; that of a folder also names all in it, and is too little. */
  private static Pattern named(String path) {
    return Pattern.compile(
        path.endsWith("/")
            ? "[A-Z]+ " + Pattern.quote(path) + "[ ?]"
            : Pattern.quote(path) + "(?![\\w.%-])");
  }

  private static @Nullable Line lastOf(RemoteFiles files, RemotePath log, String path)
      throws IOException {
    String end;
    try (RemoteReader reader = files.openToRead(log)) {
      long size = reader.look().before().size();
      long from = Math.max(0, size - END);
      end = new String(reader.read(from, END), StandardCharsets.UTF_8);
    }
    Pattern named = named(path);
    List<String> lines = end.lines().toList();
    for (int i = lines.size() - 1; i >= 0; i--) {
      if (named.matcher(lines.get(i)).find()) {
        return new Line(log, lines.get(i).strip());
      }
    }
    return null;
  }
}
