package zander.core.reading;

import java.io.IOException;
import java.util.List;
import java.util.function.LongConsumer;
import java.util.function.Predicate;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import zander.core.connect.command.Commands;
import zander.core.connect.command.ShellWords;
import zander.core.files.RemoteFiles;
import zander.core.find.GrepPattern;
import zander.core.find.SearchText;
import zander.core.find.TextPlaces;
import zander.core.work.Cancellation;

/**
 * The next line of a large file that has a text in it, in either direction. The server's {@code
 * grep} tells which lines may fit, and those are judged here; without it the file is read.
 */
public final class LineSearch {
  /** Places that are asked for at once. */
  private static final int SOME = 100;

  private static final int PART = 2 << 20;

  private final PagedFile file;
  private final SearchText wanted;
  private final Predicate<String> also;
  private final Pattern pattern;
  private final ServerScan scan;

  /**
   * @param also what the line must be like besides
   * @throws java.util.regex.PatternSyntaxException when the expression is none
   */
  public LineSearch(
      PagedFile file,
      SearchText wanted,
      Predicate<String> also,
      RemoteFiles files,
      Commands commands) {
    this.file = file;
    this.wanted = wanted;
    this.also = also;
    this.pattern = wanted.pattern();
    this.scan = new ServerScan(file, files, commands);
  }

  /**
   * The first line that fits and begins at a place or behind it.
   *
   * @param from where a line begins
   * @param progress told up to where the file was read, where it is read here
   * @return {@code null} for none
   * @throws java.util.concurrent.CancellationException when it was stopped
   */
  public @Nullable FileLine from(long from, LongConsumer progress, Cancellation stop)
      throws IOException {
    String forGrep = GrepPattern.of(wanted);
    long at = from;
    while (forGrep != null && scan.isPossible()) {
      List<Long> candidates =
          scan.places(
              "tail -c +" + (at + 1) + " FILE | " + grep(forGrep) + " -m " + SOME + offsets(),
              SOME,
              stop);
      if (candidates == null) {
        break;
      }
      for (long candidate : candidates) {
        stop.throwIfStopped();
        FileLine line = fitting(at + candidate, stop);
        if (line != null) {
          return line;
        }
      }
      if (candidates.size() < SOME) {
        return null;
      }
      long behind = endOfLine(at + candidates.get(candidates.size() - 1), stop);
      if (behind <= at) {
        break;
      }
      at = behind;
    }
    return fromByReading(at, progress, stop);
  }

  /** The last line that fits and ends at a place or before it; otherwise as {@link #from}. */
  public @Nullable FileLine before(long end, LongConsumer progress, Cancellation stop)
      throws IOException {
    String forGrep = GrepPattern.of(wanted);
    long until = end;
    while (forGrep != null && scan.isPossible()) {
      List<Long> candidates =
          scan.places(
              "head -c " + until + " FILE | " + grep(forGrep) + offsets() + " | tail -n " + SOME,
              SOME,
              stop);
      if (candidates == null) {
        break;
      }
      for (int i = candidates.size() - 1; i >= 0; i--) {
        stop.throwIfStopped();
        FileLine line = fitting(candidates.get(i), stop);
        if (line != null && line.end() <= end) {
          return line;
        }
      }
      if (candidates.size() < SOME) {
        return null;
      }
      if (candidates.get(0) >= until) {
        break;
      }
      until = candidates.get(0);
    }
    return beforeByReading(until, progress, stop);
  }

  private static String grep(String expression) {
    return "grep -abE -e " + ShellWords.quoteWire(expression);
  }

  /** What a line says goes no further than the server. */
  private static String offsets() {
    return " | cut -d: -f1";
  }

  /** The part that fits of the line that begins there; {@code null} for none. */
  private @Nullable FileLine fitting(long at, Cancellation stop) throws IOException {
    for (long next = at; ; ) {
      stop.throwIfStopped();
      List<FileLine> lines = file.after(next, LineBreaks.LONG);
      for (FileLine line : lines) {
        if (fits(line, stop)) {
          return line;
        }
        if (!line.goesOn()) {
          return null;
        }
        next = line.end();
      }
      if (lines.isEmpty()) {
        return null;
      }
    }
  }

  private boolean fits(FileLine line, Cancellation stop) {
    return TextPlaces.isIn(line.text(), pattern, stop) && also.test(line.text());
  }

  private long endOfLine(long at, Cancellation stop) throws IOException {
    for (long next = at; ; ) {
      stop.throwIfStopped();
      List<FileLine> lines = file.after(next);
      if (lines.isEmpty()) {
        return next;
      }
      for (FileLine line : lines) {
        next = line.end();
        if (!line.goesOn()) {
          return next;
        }
      }
    }
  }

  private @Nullable FileLine fromByReading(long from, LongConsumer progress, Cancellation stop)
      throws IOException {
    for (long at = from; ; ) {
      stop.throwIfStopped();
      List<FileLine> lines = file.after(at, PART);
      if (lines.isEmpty()) {
        return null;
      }
      for (FileLine line : lines) {
        if (fits(line, stop)) {
          return line;
        }
      }
      at = lines.get(lines.size() - 1).end();
      progress.accept(at);
    }
  }

  private @Nullable FileLine beforeByReading(long end, LongConsumer progress, Cancellation stop)
      throws IOException {
    for (long at = end; at > 0; ) {
      stop.throwIfStopped();
      List<FileLine> lines = file.before(at, PART);
      for (int i = lines.size() - 1; i >= 0; i--) {
        if (fits(lines.get(i), stop)) {
          return lines.get(i);
        }
      }
      if (lines.isEmpty() || lines.get(0).from() >= at) {
        return null;
      }
      at = lines.get(0).from();
      progress.accept(at);
    }
    return null;
  }
}
