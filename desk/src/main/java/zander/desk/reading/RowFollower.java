package zander.desk.reading;

import static java.util.Objects.requireNonNull;

import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CancellationException;
import javafx.beans.property.BooleanProperty;
import javafx.beans.property.LongProperty;
import javafx.beans.property.SimpleBooleanProperty;
import javafx.beans.property.SimpleLongProperty;
import org.jspecify.annotations.Nullable;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFiles;
import zander.core.reading.FileLine;
import zander.core.reading.FollowedFile;
import zander.core.reading.FollowedFile.Growth;
import zander.core.reading.FollowedFile.Turn;
import zander.core.work.Cancellation;
import zander.desk.reading.RowWindow.Place;
import zander.desk.sheet.OpenDesk;
import zander.desk.work.FailureWords;

/**
 * Looks for what comes to the end of a file, and adds it to the rows where they reach that far.
 * Interface thread only.
 */
public final class RowFollower {
  private final OpenDesk desk;
  private final ReadingModel model;
  private final RowWindow window;
  private final BooleanProperty follows = new SimpleBooleanProperty(true);
  private final BooleanProperty inSight = new SimpleBooleanProperty(true);
  private final LongProperty size = new SimpleLongProperty(-1);
  private final LongProperty below = new SimpleLongProperty();
  private @Nullable FollowedFile followed;

  /** Over which connection the file is open. */
  private @Nullable RemoteFiles files;

  /** Whether the rows reach to the end of what was told. */
  private boolean reachesEnd = true;

  /** Ends the filtering of what has come last. */
  private Cancellation filtering = new Cancellation();

  private boolean looking;
  private boolean closed;

  RowFollower(OpenDesk desk, ReadingModel model, RowWindow window) {
    this.desk = desk;
    this.model = model;
    this.window = window;
  }

  void begin(FollowedFile opened, RemoteFiles over) {
    followed = opened;
    files = over;
    size.set(opened.file().size());
  }

  @Nullable FollowedFile followed() {
    return followed;
  }

  @Nullable RemoteFiles files() {
    return files;
  }

  /**
   * What has come, and the rows of it that pass.
   *
   * @param rows one list for each growth; {@code null} where they were not wanted any more
   */
  private record Come(List<Growth> grown, @Nullable List<List<Row>> rows) {}

  /** Looks for what has come, unless it is paused; to be called again and again while shown. */
  public void look() {
    FollowedFile file = followed;
    if (file == null || looking || !follows.get()) {
      return;
    }
    looking = true;
    RemoteFiles now = desk.files();
    boolean another = now != files;
    Cancellation mine = new Cancellation();
    LineFilter by = model.filter();
    filtering = mine;
    desk.background()
        .run(
            () -> passing(file, another ? file.goOn(now) : file.look(), by, mine),
            come -> {
              looking = false;
              files = now;
              if (!closed) {
                size.set(file.file().size());
                take(come, mine);
                if (file.hasMore()) {
                  look();
                }
              }
            },
            failure -> {
              looking = false;
              if (failure instanceof RemoteFailure refused
                  && refused.reason() == RemoteFailure.Reason.LINE_LOST) {
                // It goes on once the line is back.
                desk.checkLine();
              } else if (!closed) {
                // Not again and again: the person says when to go on.
                follows.set(false);
                model.tellFailure(FailureWords.of(failure));
              }
            });
  }

  /** What was told is told once: lines that were not looked at are read when they are shown. */
  private static Come passing(
      FollowedFile of, List<Growth> grown, LineFilter by, Cancellation stop) {
    RowReader reader = new RowReader(of, by, stop);
    try {
      return new Come(grown, grown.stream().map(reader::of).toList());
    } catch (CancellationException e) {
      return new Come(grown, null);
    }
  }

  /** Rows are to pass another filter from now on. */
  void filterChanged() {
    filtering.stop();
  }

  private void take(Come come, Cancellation by) {
    List<List<Row>> passed = come.rows();
    if (passed == null || by.isStopped()) {
      model.rowsChanged();
      return;
    }
    for (int i = 0; i < come.grown().size(); i++) {
      Growth growth = come.grown().get(i);
      List<Row> rows = new ArrayList<>(passed.get(i));
      if (addsTo(growth)) {
        rows.removeIf(this::isThere);
        window.addAfter(rows, endBehind(growth));
        if (inSight.get()) {
          window.show(-1);
          continue;
        }
      }
      below.set(below.get() + rows.size());
    }
  }

  /** Whether what has come goes on where the rows end; otherwise it is read when it is gone to. */
  private boolean addsTo(Growth growth) {
    Place bottom = window.bottom();
    boolean goesOn = growth.turn() == Turn.GREW && !growth.late();
    if (goesOn && bottom != null && growth.file() == bottom.file()) {
      List<FileLine> lines = growth.lines();
      long end = lines.get(lines.size() - 1).end();
      reachesEnd = lines.get(0).from() <= bottom.offset() && bottom.offset() <= end;
    }
    return reachesEnd;
  }

  /** What was read for the person meanwhile. */
  private boolean isThere(Row row) {
    Place bottom = window.bottom();
    return bottom != null
        && !row.isNotice()
        && row.file() == bottom.file()
        && row.line().end() <= bottom.offset();
  }

  /** What a replaced file still gets is shown among the lines of the new one, which go on. */
  private @Nullable Place endBehind(Growth growth) {
    if (growth.late() || growth.turn() == Turn.GONE) {
      return window.bottom();
    }
    List<FileLine> lines = growth.lines();
    return new Place(growth.file(), lines.isEmpty() ? 0 : lines.get(lines.size() - 1).end());
  }

  /** The rows are others: whether they reach the end of what was told. */
  void reached(Place bottom) {
    FollowedFile.Told told = requireNonNull(followed, "it is open").told();
    reachesEnd =
        bottom.file() == told.file()
            && bottom.offset() >= Math.min(told.offset(), told.file().size());
  }

  /** Where a row is in the file at the path, in bytes; 0 for one of a file before it. */
  public long placeOf(Row row) {
    return followed != null && row.file() == followed.file() ? row.line().from() : 0;
  }

  /** Whether the rows reach to the end of what was told. */
  public boolean reachesEnd() {
    return reachesEnd;
  }

  /** Whether what comes to the file is looked for. */
  public BooleanProperty followsProperty() {
    return follows;
  }

  /** Whether the end is in sight, so that what comes is scrolled to; the view says so. */
  public BooleanProperty inSightProperty() {
    return inSight;
  }

  /** Of the file, in bytes; -1 before it is known. */
  public LongProperty sizeProperty() {
    return size;
  }

  /** Lines that have come since the end was in sight. */
  public LongProperty belowProperty() {
    return below;
  }

  void close() {
    closed = true;
  }
}
