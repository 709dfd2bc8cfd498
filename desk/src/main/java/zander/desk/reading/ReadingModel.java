package zander.desk.reading;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Callable;
import java.util.concurrent.CancellationException;
import java.util.function.Consumer;
import javafx.beans.property.LongProperty;
import javafx.beans.property.ReadOnlyBooleanProperty;
import javafx.beans.property.ReadOnlyBooleanWrapper;
import javafx.beans.property.ReadOnlyStringProperty;
import javafx.beans.property.ReadOnlyStringWrapper;
import javafx.beans.property.SimpleLongProperty;
import org.jspecify.annotations.Nullable;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.reading.FileLine;
import zander.core.reading.FollowedFile;
import zander.core.reading.PagedFile;
import zander.core.work.Cancellation;
import zander.desk.reading.RowReader.Rows;
import zander.desk.reading.RowWindow.Place;
import zander.desk.sheet.OpenDesk;
import zander.desk.sheet.Question;
import zander.desk.sheet.Sheet;
import zander.desk.words.Words;
import zander.desk.work.FailureWords;

/**
 * A file of any size to be read, from its end at first, and followed as it grows. A part of it is
 * held, and more is read as it is scrolled to.
 */
public final class ReadingModel extends Sheet {
  private static final Words WORDS = Words.of(ReadingModel.class);

  /** So much that was not told yet is left out when a person wants to see the end. */
  private static final long FAR_BEHIND = 4L << 20;

  private final OpenDesk desk;
  private final RemotePath path;
  private final RowWindow window = new RowWindow();
  private final RowFollower follower;
  private final ReadOnlyBooleanWrapper open = new ReadOnlyBooleanWrapper();
  private final ReadOnlyStringWrapper doing = new ReadOnlyStringWrapper("");
  private final ReadingSearch search;
  private final LongProperty lookedBackTo = new SimpleLongProperty();
  private LineFilter filter = LineFilter.ALL;
  private boolean closed;

  /** What is read for the person now; the next wish ends it. */
  private Cancellation reading = new Cancellation();

  private ReadingModel(OpenDesk desk, RemotePath path) {
    this.desk = desk;
    this.path = path;
    this.follower = new RowFollower(desk, this, window);
    this.search = new ReadingSearch(this, desk);
    setTitle(WORDS.say("reading", path.name()));
    open();
  }

  /** Opens a file to be read, or shows it where that is open. */
  public static ReadingModel show(OpenDesk desk, RemotePath path) {
    for (ReadingModel one : desk.openSheets().of(ReadingModel.class)) {
      if (one.path.equals(path)) {
        desk.openSheets().frontProperty().set(one);
        return one;
      }
    }
    ReadingModel made = new ReadingModel(desk, path);
    desk.openSheets().show(made);
    return made;
  }

  private record Opened(FollowedFile followed, List<Row> rows, Place from, Place to) {}

  private void open() {
    RemoteFiles by = desk.files();
    doing.set(WORDS.say("opening"));
    desk.background()
        .run(
            () -> openAtEnd(by, path),
            opened -> {
              if (closed) {
                release(opened.followed);
                return;
              }
              doing.set("");
              follower.begin(opened.followed, by);
              window.reset(opened.rows, opened.from, opened.to, -1);
              open.set(true);
            },
            failure -> {
              doing.set("");
              tellNotOpened(failure);
            });
  }

  /** In four round trips: what it is, open it, look at it, read its end. */
  private static Opened openAtEnd(RemoteFiles files, RemotePath path) throws IOException {
    PagedFile file = PagedFile.open(files, path);
    List<FileLine> last;
    try {
      last = file.last();
    } catch (IOException | RuntimeException e) {
      file.close();
      throw e;
    }
    FileLine end = last.isEmpty() ? null : last.get(last.size() - 1);
    long told = end == null ? 0 : end.goesOn() ? end.from() : end.end();
    List<Row> rows = last.stream().map(line -> new Row(file, line)).toList();
    return new Opened(
        FollowedFile.from(files, file, told),
        rows,
        new Place(file, end == null ? 0 : last.get(0).from()),
        new Place(file, end == null ? 0 : end.end()));
  }

  private void tellNotOpened(Throwable failure) {
    if (desk.mayRootHelp(failure)) {
      tellFailure(
          failure,
          desk,
          () -> desk.actAsRoot(path.parent(), root -> ReadingModel.show(root, path)));
      return;
    }
    ask(
        Question.notice(
            FailureWords.of(failure),
            true,
            new Question.Choice(
                WORDS.say("tryAgain"),
                ticked -> {
                  dismissQuestion();
                  open();
                }),
            dismiss()));
    desk.checkLine();
  }

  private interface Reading<T> {
    T with(RowReader reader) throws IOException;
  }

  /** Reads for the person, in the place of what was read for them before. */
  private <T> void read(String what, Reading<T> work, Consumer<T> done) {
    FollowedFile of = follower.followed();
    if (of == null) {
      return;
    }
    Cancellation mine = new Cancellation();
    reading.stop();
    reading = mine;
    LineFilter by = filter;
    run(what, mine, () -> work.with(new RowReader(of, by, mine)), done);
  }

  /** The same for other work on the file; what it does is told until it is done. */
  <T> void run(String what, Cancellation mine, Callable<T> work, Consumer<T> done) {
    if (mine != reading) {
      reading.stop();
      reading = mine;
    }
    doing.set(what);
    desk.background()
        .run(
            work,
            result -> {
              if (mine == reading && !closed) {
                doing.set("");
                done.accept(result);
              }
            },
            failure -> {
              if (mine == reading && !closed) {
                doing.set("");
                if (!(failure instanceof CancellationException)) {
                  tellFailure(FailureWords.of(failure));
                  desk.checkLine();
                }
              }
            });
  }

  /** Tells how far work is, while it is what is done. */
  void goesOn(Cancellation mine, String what) {
    if (mine == reading && !doing.get().isEmpty()) {
      doing.set(what);
    }
  }

  /** Ends what is under way, such as a search. */
  public void stop() {
    reading.stop();
    reading = new Cancellation();
    doing.set("");
  }

  /** Reads lines before the first row, unless something is being read. */
  public void moreBefore() {
    if (doing.get().isEmpty() && window.top() != null) {
      Place top = window.top();
      read(
          WORDS.say("readingRows"),
          reader -> reader.before(top),
          (Rows more) -> {
            if (window.top() == top) {
              window.addBefore(more.rows(), more.reached());
              rowsChanged();
            }
          });
    }
  }

  /** The same for lines behind the last row. */
  public void moreAfter() {
    if (doing.get().isEmpty() && window.bottom() != null) {
      Place bottom = window.bottom();
      read(
          WORDS.say("readingRows"),
          reader -> reader.after(bottom),
          (Rows more) -> {
            if (window.bottom() == bottom && !more.reached().equals(bottom)) {
              window.addBehind(more.rows(), more.reached());
              if (follower.inSightProperty().get()) {
                window.show(-1);
              }
              rowsChanged();
            }
          });
    }
  }

  private record Around(Rows before, Rows after) {}

  /** Shows the line in which a byte is. */
  void goTo(PagedFile file, long offset, Runnable then) {
    follower.inSightProperty().set(false);
    read(
        WORDS.say("readingRows"),
        reader -> {
          Place place = new Place(file, file.lineAt(Math.min(offset, file.size())));
          return new Around(reader.before(place), reader.after(place));
        },
        around -> {
          List<Row> rows = new ArrayList<>(around.before.rows());
          // The person may have touched the end while this was read.
          follower.inSightProperty().set(false);
          int first = rows.size();
          rows.addAll(around.after.rows());
          window.reset(
              rows,
              around.before.reached(),
              around.after.reached(),
              Math.max(0, Math.min(first, rows.size() - 1)));
          rowsChanged();
          then.run();
        });
  }

  public void goToStart() {
    goToByte(0);
  }

  /**
   * @param place in bytes
   */
  public void goToByte(long place) {
    if (follower.followed() != null) {
      goTo(follower.followed().file(), place, () -> {});
    }
  }

  /** Shows the end, and what comes to it from now on. */
  public void goToEnd() {
    follower.inSightProperty().set(true);
    follower.belowProperty().set(0);
    FollowedFile followed = follower.followed();
    if (followed == null) {
      return;
    }
    read(
        WORDS.say("readingRows"),
        reader -> {
          FollowedFile.Told told = followed.told();
          if (told.file().sizeNow() - told.offset() > FAR_BEHIND) {
            followed.skipToEnd();
            told = followed.told();
          }
          Place end = new Place(told.file(), told.offset());
          return new Around(reader.before(end), new Rows(List.of(), end));
        },
        around -> {
          follower.inSightProperty().set(true);
          window.reset(around.before.rows(), around.before.reached(), around.after.reached(), -1);
          rowsChanged();
        });
  }

  /** Shows only the lines that pass, around where the person is. */
  public void filter(LineFilter now, @Nullable Row near) {
    filter = now;
    follower.filterChanged();
    if (follower.inSightProperty().get() || near == null) {
      goToEnd();
    } else {
      goTo(near.file(), near.line().from(), () -> {});
    }
  }

  public LineFilter filter() {
    return filter;
  }

  /** The rows are others: what is told meanwhile is read where they should reach the end. */
  void rowsChanged() {
    Place top = window.top();
    Place bottom = window.bottom();
    if (top == null || bottom == null) {
      return;
    }
    follower.reached(bottom);
    lookedBackTo.set(-1);
    lookedBackTo.set(top.offset());
    if (follower.inSightProperty().get() && !follower.reachesEnd()) {
      // What was told while these rows were read.
      moreAfter();
    }
  }

  /** Up to where lines were looked for that come before the first row, in bytes. */
  public LongProperty lookedBackToProperty() {
    return lookedBackTo;
  }

  public RowFollower follower() {
    return follower;
  }

  public ReadingSearch search() {
    return search;
  }

  public RemotePath path() {
    return path;
  }

  public RowWindow window() {
    return window;
  }

  public ReadOnlyBooleanProperty openProperty() {
    return open.getReadOnlyProperty();
  }

  /** What is under way, such as {@code searching}; empty for nothing. */
  public ReadOnlyStringProperty doingProperty() {
    return doing.getReadOnlyProperty();
  }

  @Override
  public void close() {
    closed = true;
    reading.stop();
    follower.close();
    if (follower.followed() != null) {
      release(follower.followed());
    }
  }

  private void release(FollowedFile of) {
    desk.background()
        .run(
            () -> {
              try {
                of.close();
              } catch (IOException e) {
                // The server lets go of it with the line.
              }
            });
  }
}
