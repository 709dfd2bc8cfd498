package zander.desk.edit;

import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CancellationException;
import java.util.concurrent.Future;
import java.util.function.Supplier;
import java.util.regex.PatternSyntaxException;
import javafx.beans.property.BooleanProperty;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.beans.property.SimpleBooleanProperty;
import javafx.beans.property.SimpleStringProperty;
import javafx.beans.property.StringProperty;
import org.jspecify.annotations.Nullable;
import zander.core.find.SearchText;
import zander.core.find.TextPlaces;
import zander.core.find.TextPlaces.Place;
import zander.core.work.Cancellation;
import zander.desk.words.Words;
import zander.desk.work.Background;

/**
 * What is looked for in an open file, and where it is: looked for again with each change of either,
 * in the background. Interface thread only.
 */
public final class FindInFile {
  private static final Words WORDS = Words.of(FindInFile.class);

  /** More places are not counted, nor replaced. */
  static final int MOST = 100_000;

  private static final Duration PAUSE = Duration.ofMillis(120);

  private final Background background;
  private final Supplier<String> text;
  private final StringProperty wanted = new SimpleStringProperty("");
  private final StringProperty with = new SimpleStringProperty("");
  private final BooleanProperty matchCase = new SimpleBooleanProperty();
  private final BooleanProperty wholeWord = new SimpleBooleanProperty();
  private final BooleanProperty expression = new SimpleBooleanProperty();
  private final ReadOnlyObjectWrapper<Found> found = new ReadOnlyObjectWrapper<>(Found.NOTHING);
  private final List<Runnable> waiting = new ArrayList<>();
  private boolean open;
  private int begin;
  private int end = Integer.MAX_VALUE;
  private @Nullable Future<?> due;
  private @Nullable Cancellation running;
  private long textNumber;

  /**
   * @param places in the order of the text
   * @param problem why nothing can be found, in words; or empty
   */
  public record Found(List<Place> places, String problem) {
    static final Found NOTHING = new Found(List.of(), "");

    /** The index of the first that begins here or later; their number for none. */
    public int from(int offset) {
      int low = 0;
      int high = places.size();
      while (low < high) {
        int middle = (low + high) >>> 1;
        if (places.get(middle).start() < offset) {
          low = middle + 1;
        } else {
          high = middle;
        }
      }
      return low;
    }

    /** The index of the one that is exactly this part of the text; -1 for none. */
    public int at(int start, int end) {
      int index = from(start);
      boolean is =
          index < places.size()
              && places.get(index).start() == start
              && places.get(index).end() == end;
      return is ? index : -1;
    }

    /** Whether there may be more than are known. */
    public boolean isCut() {
      return places.size() == MOST;
    }
  }

  /**
   * @param text gives the text as it is
   */
  public FindInFile(Background background, Supplier<String> text) {
    this.background = background;
    this.text = text;
    for (StringProperty property : List.of(wanted, with)) {
      property.addListener((observed, old, now) -> searchSoon());
    }
    for (BooleanProperty property : List.of(matchCase, wholeWord, expression)) {
      property.addListener((observed, old, now) -> searchSoon());
    }
  }

  /** From now on places are known. */
  public void open() {
    open = true;
    searchSoon();
  }

  public void close() {
    open = false;
    stop();
    waiting.clear();
    within(0, Integer.MAX_VALUE);
    found.set(Found.NOTHING);
  }

  /** Only between these places of the text, which move with it. */
  public void within(int from, int to) {
    begin = from;
    end = to;
    searchSoon();
  }

  public boolean isWithin() {
    return end < Integer.MAX_VALUE;
  }

  /** A part of the text was replaced: what is behind it moves along until it is looked for anew. */
  public void replaced(int position, String removed, String inserted) {
    textNumber++;
    if (!open) {
      return;
    }
    int by = inserted.length() - removed.length();
    int lines = lines(inserted) - lines(removed);
    int behind = position + removed.length();
    if (isWithin()) {
      begin += begin >= behind && begin > position ? by : 0;
      end += end >= behind ? by : 0;
    }
    List<Place> moved = new ArrayList<>(found.get().places().size());
    for (Place place : found.get().places()) {
      if (place.end() <= position) {
        moved.add(place);
      } else if (place.start() >= behind) {
        moved.add(place.moved(lines, by));
      }
    }
    found.set(new Found(moved, found.get().problem()));
    searchSoon();
  }

  /** Another text came in its place. */
  public void taken() {
    textNumber++;
    found.set(Found.NOTHING);
    begin = 0;
    end = Integer.MAX_VALUE;
    searchSoon();
  }

  private static int lines(String part) {
    return (int) part.chars().filter(c -> c == '\n').count();
  }

  /** Runs something when what was found is what is wanted now. */
  public void whenFound(Runnable then) {
    if (due == null && running == null) {
      then.run();
    } else {
      waiting.add(then);
    }
  }

  private void stop() {
    if (due != null) {
      due.cancel(false);
      due = null;
    }
    if (running != null) {
      running.stop();
      running = null;
    }
  }

  private void searchSoon() {
    if (open) {
      stop();
      due = background.later(PAUSE, this::search);
    }
  }

  private void search() {
    due = null;
    String in = text.get();
    SearchText what =
        new SearchText(wanted.get(), expression.get(), matchCase.get(), wholeWord.get());
    String template = with.get();
    int from = Math.min(begin, in.length());
    int to = Math.min(end, in.length());
    Cancellation stop = new Cancellation();
    running = stop;
    long number = textNumber;
    if (what.text().isEmpty()) {
      take(stop, number, Found.NOTHING);
      return;
    }
    background.run(
        () -> new Found(TextPlaces.of(in, from, to, what, template, MOST, stop), ""),
        made -> take(stop, number, made),
        failure -> {
          if (!(failure instanceof CancellationException)) {
            take(stop, number, new Found(List.of(), problem(failure)));
          }
        });
  }

  private void take(Cancellation search, long number, Found made) {
    if (running != search || number != textNumber) {
      return;
    }
    running = null;
    found.set(made);
    List<Runnable> now = List.copyOf(waiting);
    waiting.clear();
    now.forEach(Runnable::run);
  }

  private static String problem(Throwable failure) {
    return failure instanceof PatternSyntaxException
        ? WORDS.say("incompleteExpression")
        : WORDS.say("expressionTooComplex");
  }

  /** What is looked for. */
  public StringProperty wantedProperty() {
    return wanted;
  }

  /** What is to come in its place. */
  public StringProperty withProperty() {
    return with;
  }

  public BooleanProperty matchCaseProperty() {
    return matchCase;
  }

  public BooleanProperty wholeWordProperty() {
    return wholeWord;
  }

  public BooleanProperty expressionProperty() {
    return expression;
  }

  public ReadOnlyObjectProperty<Found> foundProperty() {
    return found.getReadOnlyProperty();
  }
}
