package zander.desk.reading;

import static java.util.Objects.requireNonNull;

import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.List;
import java.util.function.Predicate;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.regex.PatternSyntaxException;
import javafx.beans.binding.Bindings;
import javafx.beans.property.ReadOnlyStringProperty;
import javafx.beans.property.ReadOnlyStringWrapper;
import javafx.beans.property.SimpleStringProperty;
import javafx.beans.property.StringProperty;
import org.jspecify.annotations.Nullable;
import zander.core.files.RemoteFiles;
import zander.core.find.SearchText;
import zander.core.reading.FileLine;
import zander.core.reading.FollowedFile;
import zander.core.reading.LineNumbers;
import zander.core.reading.LineSearch;
import zander.core.reading.LineTime;
import zander.core.reading.PagedFile;
import zander.core.reading.TimeSearch;
import zander.core.work.Cancellation;
import zander.desk.sheet.OpenDesk;
import zander.desk.sheet.Question;
import zander.desk.sheet.Texts;
import zander.desk.words.Words;
import zander.desk.work.Message;

/** Finds places in a file that is read: by text, line, byte, share of the whole, and time. */
public final class ReadingSearch {
  private static final Words WORDS = Words.of(ReadingSearch.class);

  private static final Pattern LINE = Pattern.compile("(?:line )?([0-9]{1,15})");
  private static final Pattern BYTE = Pattern.compile("byte ([0-9]{1,18})");
  private static final Pattern SHARE = Pattern.compile("([0-9]{1,2}|100) ?%");

  private final ReadingModel model;
  private final OpenDesk desk;
  private final ReadOnlyStringWrapper outcome = new ReadOnlyStringWrapper("");

  /** What was found last: the next is looked for behind it while it is still in the rows. */
  private @Nullable Row found;

  ReadingSearch(ReadingModel model, OpenDesk desk) {
    this.model = model;
    this.desk = desk;
  }

  /** What came of the last search, in words. */
  public ReadOnlyStringProperty outcomeProperty() {
    return outcome.getReadOnlyProperty();
  }

  /** The line that was found last, where it is among the rows; {@code null} for none. */
  public @Nullable Row found() {
    return found;
  }

  private record Hit(PagedFile file, FileLine line) {}

  /**
   * Shows the next line with a text in it.
   *
   * @param forwards towards the end
   * @param from the row that the person is at; {@code null} for none
   * @param then run when it is in sight
   */
  public void find(SearchText wanted, boolean forwards, @Nullable Row from, Runnable then) {
    FollowedFile followed = model.follower().followed();
    RemoteFiles files = model.follower().files();
    if (followed == null || files == null || from == null || wanted.text().isEmpty()) {
      return;
    }
    try {
      wanted.pattern();
    } catch (PatternSyntaxException e) {
      outcome.set(WORDS.say("notAnExpression"));
      return;
    }
    outcome.set("");
    Cancellation stop = new Cancellation();
    Predicate<String> passes = model.filter().test(stop);
    model.run(
        WORDS.say("searching"),
        stop,
        () -> next(followed, files, wanted, passes, forwards, from, stop),
        hit -> {
          if (hit == null) {
            outcome.set(forwards ? WORDS.say("noneBelow") : WORDS.say("noneAbove"));
            return;
          }
          show(hit, then);
        });
  }

  private void show(Hit hit, Runnable then) {
    Runnable shown =
        () -> {
          int index = model.window().indexOf(hit.file, hit.line.from());
          found = index < 0 ? null : model.window().rows().get(index);
          then.run();
        };
    if (model.window().indexOf(hit.file, hit.line.from()) >= 0) {
      shown.run();
    } else {
      model.goTo(hit.file, hit.line.from(), shown);
    }
  }

  private @Nullable Hit next(
      FollowedFile followed,
      RemoteFiles files,
      SearchText wanted,
      Predicate<String> passes,
      boolean forwards,
      Row from,
      Cancellation stop)
      throws java.io.IOException {
    PagedFile file = from.file();
    long at = forwards ? from.line().end() : from.line().from();
    while (file != null) {
      LineSearch lines = new LineSearch(file, wanted, passes, files, desk.commands());
      PagedFile of = file;
      FileLine line =
          forwards
              ? lines.from(at, read -> tellProgress(of, read, stop), stop)
              : lines.before(at, read -> tellProgress(of, of.size() - read, stop), stop);
      if (line != null) {
        return new Hit(file, line);
      }
      file = forwards ? followed.fileAfter(file) : followed.fileBefore(file);
      at = file == null || forwards ? 0 : file.sizeNow();
    }
    return null;
  }

  private void tellProgress(PagedFile file, long read, Cancellation stop) {
    desk.background()
        .show(
            () ->
                model.goesOn(
                    stop, WORDS.say("searchingOf", Texts.size(read), Texts.size(file.size()))));
  }

  /** Asks where to go. */
  public void askForPlace() {
    StringProperty typed = new SimpleStringProperty("");
    Question.Choice go =
        new Question.Choice(
            WORDS.say("go"),
            ticked -> {
              model.dismissQuestion();
              goTo(typed.get().strip());
            });
    model.ask(
        Question.asking(
                new Message(WORDS.say("goToAPlace", model.path().name()), WORDS.say("aLineByIts")),
                List.of(
                    new Question.Input(
                        "reading-place", WORDS.say("place"), typed, WORDS.say("placesTyped"))),
                go,
                new Question.Choice(WORDS.say("cancel"), ticked -> model.dismissQuestion()))
            .readyWhen(Bindings.createBooleanBinding(() -> isPlace(typed.get()), typed)));
  }

  private static boolean isPlace(String typed) {
    String place = typed.strip();
    return LINE.matcher(place).matches()
        || BYTE.matcher(place).matches()
        || SHARE.matcher(place).matches()
        || LineTime.asked(place, LocalDate.EPOCH) != null;
  }

  /** Goes to what {@link #askForPlace} takes. */
  public void goTo(String place) {
    FollowedFile followed = model.follower().followed();
    if (followed == null) {
      return;
    }
    PagedFile file = followed.file();
    Matcher line = LINE.matcher(place);
    Matcher share = SHARE.matcher(place);
    Matcher at = BYTE.matcher(place);
    if (line.matches()) {
      goToLine(file, Long.parseLong(line.group(1)));
    } else if (share.matches()) {
      model.goToByte(file.size() / 100 * Long.parseLong(share.group(1)));
    } else if (at.matches()) {
      model.goToByte(Long.parseLong(at.group(1)));
    } else {
      goToTime(file, place);
    }
  }

  private void goToLine(PagedFile file, long number) {
    Cancellation stop = new Cancellation();
    RemoteFiles files = requireNonNull(model.follower().files(), "the file is open");
    model.run(
        WORDS.say("countingLines"),
        stop,
        () -> new LineNumbers(file, files, desk.commands()).offsetOf(number, read -> {}, stop),
        offset -> {
          outcome.set(offset >= file.size() ? WORDS.say("itHasFewerLines") : "");
          showFrom(file, offset);
        });
  }

  private void showFrom(PagedFile file, long offset) {
    model.goTo(
        file,
        offset,
        () -> {
          int index = model.window().indexOf(file, Math.min(offset, file.size() - 1));
          found = index < 0 ? null : model.window().rows().get(index);
          model.window().show(index);
        });
  }

  private void goToTime(PagedFile file, String typed) {
    Cancellation stop = new Cancellation();
    model.run(
        WORDS.say("lookingForTheTime"),
        stop,
        () -> {
          long modified = file.attributes().modified();
          LocalDate about =
              Instant.ofEpochSecond(modified).atZone(ZoneId.systemDefault()).toLocalDate();
          TimeSearch search = new TimeSearch(file, about, stop);
          LocalDateTime last = search.last();
          LocalDateTime wanted = LineTime.asked(typed, last == null ? about : last.toLocalDate());
          return wanted == null ? -1L : search.find(wanted);
        },
        offset -> {
          if (offset < 0) {
            model.tell(
                new Message(
                    WORDS.say("noTimesWereFound", model.path().name()),
                    WORDS.say("itsFirstAndLast")));
            return;
          }
          outcome.set(offset >= file.size() ? WORDS.say("allLinesAreEarlier") : "");
          showFrom(file, offset);
        });
  }
}
