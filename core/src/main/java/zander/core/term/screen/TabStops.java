package zander.core.term.screen;

import java.util.BitSet;

/** Where the tabulator stops: each eight columns, until a program says otherwise. */
final class TabStops {
  private static final int EVERY = 8;

  private final BitSet stops = new BitSet();
  private int known;

  TabStops(int columns) {
    resize(columns);
  }

  /** New columns have the usual stops; those of columns that go come back as they were. */
  void resize(int columns) {
    for (; known < columns; known++) {
      stops.set(known, known % EVERY == 0);
    }
  }

  void reset() {
    int columns = known;
    known = 0;
    resize(columns);
  }

  void set(int column) {
    stops.set(column);
  }

  void clear(int column) {
    stops.clear(column);
  }

  void clearAll() {
    stops.clear();
  }

  /** The next stop after a column, but at most {@code last}. */
  int next(int column, int last) {
    int next = stops.nextSetBit(column + 1);
    return next < 0 ? last : Math.min(next, last);
  }

  /** The stop before a column, but at least {@code first}. */
  int before(int column, int first) {
    return column <= first ? first : Math.max(stops.previousSetBit(column - 1), first);
  }
}
