package zander.core.term;

import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.ReentrantLock;
import java.util.function.Consumer;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import zander.core.term.parse.SequenceParser;
import zander.core.term.screen.Reflow;
import zander.core.term.screen.Screen;
import zander.core.term.screen.Scrollback;

/**
 * A terminal as {@code xterm-256color} describes it. One thread feeds it; any thread may look at
 * it. Whatever a program writes, a byte costs no more than a walk over the screen, and memory is
 * bounded by the screen and the scrollback.
 */
public final class Terminal {
  /** So much is taken under the lock at once, that whoever looks waits a moment only. */
  private static final int SLICE = 8 * 1024;

  /** So long is waited for a picture, in milliseconds: some slices, and a part of a frame. */
  private static final long PATIENCE = 4;

  /** Fair, so that whoever looks comes before the next slice. */
  private final ReentrantLock lock = new ReentrantLock(true);

  private final TerminalModes modes = new TerminalModes();
  private final List<Consumer<TerminalListener>> told = new ArrayList<>();
  private final TerminalListener listener;
  private final Screen screen;
  private final Palette palette;
  private final Reports reports;
  private final SequenceParser parser;
  private volatile long version;

  /**
   * @param colours the user's, as {@link Palette} has them
   * @param listener told of what is not on the screen
   */
  public Terminal(
      int columns, int rows, Scrollback scrollback, int[] colours, TerminalListener listener) {
    this.listener = listener;
    screen = new Screen(columns, rows, scrollback);
    palette = new Palette(colours);
    ModeSequences modeSequences = new ModeSequences(screen, modes);
    reports = new Reports(screen, modes, modeSequences);
    parser =
        new SequenceParser(
            new SequenceDispatch(screen, modes, modeSequences, palette, reports, told));
  }

  /** Takes what the program wrote. */
  public void feed(byte[] bytes, int from, int to) {
    for (int at = from; at < to; at += SLICE) {
      List<Consumer<TerminalListener>> news;
      lock.lock();
      try {
        parser.take(bytes, at, Math.min(to, at + SLICE));
        version++;
        news = takeNews();
      } finally {
        lock.unlock();
      }
      news.forEach(one -> one.accept(listener));
    }
  }

  private List<Consumer<TerminalListener>> takeNews() {
    if (told.isEmpty() && reports.isEmpty()) {
      return List.of();
    }
    List<Consumer<TerminalListener>> news = new ArrayList<>(told);
    told.clear();
    if (!reports.isEmpty()) {
      byte[] answers = reports.takeAll();
      news.add(listening -> listening.answer(answers));
    }
    return news;
  }

  /**
   * Another program comes in place of one that may not have put back what it set: the main screen,
   * without modes, on a row of its own. What was shown stays.
   */
  public void renew() {
    lock.lock();
    try {
      parser.reset();
      modes.reset();
      palette.reset();
      if (screen.isAlternate()) {
        screen.alternate(false, false);
        screen.restoreCursor();
      }
      screen.softReset();
      if (screen.cursorX() > 0) {
        screen.moves().index();
        screen.moves().carriageReturn();
      }
      screen.redraw();
      version++;
    } finally {
      lock.unlock();
    }
  }

  /**
   * Takes another size, at least one by one. Where the scrollback is full, wrapping it anew takes
   * tenths of a second: nothing for a thread that must not wait.
   */
  public void resize(int columns, int rows) {
    lock.lock();
    try {
      new Reflow(screen).resize(Math.max(1, columns), Math.max(1, rows));
      version++;
    } finally {
      lock.unlock();
    }
  }

  /** Takes other colours in place of the user's, as {@link Palette} has them. */
  public void colours(int[] own) {
    lock.lock();
    try {
      palette.own(own);
      screen.redraw();
      version++;
    } finally {
      lock.unlock();
    }
  }

  /** Looks at the screen while nothing changes on it; what is done must be quick. */
  public <T> T look(Function<Screen, T> looking) {
    lock.lock();
    try {
      return looking.apply(screen);
    } finally {
      lock.unlock();
    }
  }

  /**
   * As many rows as the screen has, from a place on. Waits some milliseconds at most.
   *
   * @param from the number of the first, or {@link TerminalPicture#SCREEN}
   * @param before what was seen last; null for nothing
   * @return null while the text is being wrapped anew: what was seen last is to be shown on
   */
  public @Nullable TerminalPicture picture(long from, @Nullable TerminalPicture before) {
    try {
      if (!lock.tryLock(PATIENCE, TimeUnit.MILLISECONDS)) {
        return null;
      }
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      return null;
    }
    try {
      return TerminalPicture.of(screen, version, from, before);
    } finally {
      lock.unlock();
    }
  }

  /** Counts up with what may be a change. */
  public long version() {
    return version;
  }

  public TerminalModes modes() {
    return modes;
  }

  public Palette palette() {
    return palette;
  }
}
