package zander.desk.term;

import java.util.ArrayList;
import java.util.List;
import java.util.TreeMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import zander.core.term.screen.Row;
import zander.core.term.screen.Screen;
import zander.core.work.Cancellation;

/**
 * What was looked for in a terminal, on the screen and in what has left it: where it is, and which
 * of the places is in front. Looking runs on any thread; the rest belongs to the interface thread.
 */
public final class Found {
  /** Places that are looked for at most, the newest. */
  static final int MOST = 10_000;

  private static final int SLICE = 2_000;

  private final TerminalModel model;
  private final TreeMap<Long, List<Place>> byRow = new TreeMap<>();
  private List<Place> places = List.of();
  private int at = -1;

  /** A place: a row by its number, and columns of it. */
  public record Place(long row, int from, int to) {}

  Found(TerminalModel model) {
    this.model = model;
  }

  /**
   * Looks for a text, whatever its case, the newest first. May take a moment; the terminal goes on
   * meanwhile.
   *
   * @param stop ends it early, with what was found until then
   */
  public List<Place> look(String text, Cancellation stop) {
    List<Place> all = new ArrayList<>();
    Pattern wanted =
        Pattern.compile(text, Pattern.LITERAL | Pattern.CASE_INSENSITIVE | Pattern.UNICODE_CASE);
    long next = text.isEmpty() ? -1 : Long.MAX_VALUE;
    while (next >= 0 && all.size() < MOST && !stop.isStopped()) {
      long from = next;
      next = model.terminal().look(screen -> slice(screen, from, wanted, all));
    }
    return all;
  }

  /** Looks through some rows upwards; gives the one to go on with, or -1. */
  private static long slice(Screen screen, long from, Pattern wanted, List<Place> into) {
    long row = Math.min(from, screen.topRow() + screen.rows() - 1);
    long end = Math.max(screen.firstRow(), row - SLICE + 1);
    for (; row >= end && into.size() < MOST; row--) {
      Row found = screen.rowOf(row);
      if (found != null) {
        places(found, row, wanted, into);
      }
    }
    return row < screen.firstRow() ? -1 : row;
  }

  /** The last of a row comes first. */
  private static void places(Row row, long number, Pattern wanted, List<Place> into) {
    int written = row.written();
    Matcher matcher = wanted.matcher(row.text(0, written));
    int first = into.size();
    while (matcher.find()) {
      int from = column(row, written, matcher.start());
      into.add(first, new Place(number, from, column(row, written, matcher.end())));
    }
  }

  /** The column of a place in the row's text. */
  private static int column(Row row, int written, int offset) {
    int seen = 0;
    int column = 0;
    while (column < written && seen < offset) {
      seen += Math.max(1, row.text(column).length());
      column += row.width(column);
    }
    return column;
  }

  /** Shows what was found; the first of it is in front. */
  public void show(List<Place> found) {
    places = found;
    at = found.isEmpty() ? -1 : 0;
    byRow.clear();
    for (Place place : found) {
      byRow.computeIfAbsent(place.row(), row -> new ArrayList<>()).add(place);
    }
  }

  public int count() {
    return places.size();
  }

  /** Whether there may be more, which were not looked for. */
  public boolean isCut() {
    return places.size() >= MOST;
  }

  /** Which one is in front, from 1; 0 for none. */
  public int number() {
    return at + 1;
  }

  /** Goes to the next one above, or with -1 below; null where there is none. */
  public @Nullable Place step(int by) {
    if (places.isEmpty()) {
      return null;
    }
    at = Math.floorMod(at + by, places.size());
    return places.get(at);
  }

  /** The one in front; null for none. */
  public @Nullable Place current() {
    return at < 0 ? null : places.get(at);
  }

  List<RowPainter.Mark> marks(long row, ShellColours colours) {
    List<RowPainter.Mark> marks = new ArrayList<>();
    for (Place place : byRow.getOrDefault(row, List.of())) {
      boolean front = place.equals(current());
      marks.add(
          new RowPainter.Mark(
              place.from(), place.to(), front ? colours.foundNow() : colours.found()));
    }
    return marks;
  }
}
