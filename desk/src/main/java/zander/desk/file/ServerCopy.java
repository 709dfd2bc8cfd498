package zander.desk.file;

import java.nio.charset.Charset;
import java.util.concurrent.Callable;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import zander.core.change.save.AtomicSave;
import zander.core.change.save.FileVersion;
import zander.core.edit.LineDifference;
import zander.core.edit.TextFile;
import zander.core.edit.ThreeWayMerge;
import zander.desk.save.EditedFile;
import zander.desk.save.SaveQuestions;
import zander.desk.sheet.OpenDesk;
import zander.desk.sheet.Question;
import zander.desk.work.FailureWords;

/**
 * What another made of a file on the server while it is edited here: noticed, loaded in the place
 * of the text, or put together with it. Interface thread only.
 */
final class ServerCopy {
  private final OpenDesk desk;
  private final EditedFile file;
  private final SaveQuestions questions;
  private final FileWatch watch;

  /** The encoding that the person told; {@code null} for none. Read on other threads. */
  private volatile @Nullable Charset known;

  private final ToldForm told;

  ServerCopy(OpenDesk desk, EditedFile file, SaveQuestions questions, ToldForm told) {
    this.told = told;
    this.known = told.charset();
    this.desk = desk;
    this.file = file;
    this.questions = questions;
    this.watch = new FileWatch(desk);
  }

  private EditedFile.Loaded load() throws java.io.IOException {
    AtomicSave.Opened opened = file.saver().open(file.path(), TextFile.LARGEST);
    TextFile decoded = TextFile.decode(opened.content());
    Charset here = known;
    return new EditedFile.Loaded(
        opened.version(),
        here != null && decoded.isGuessed() ? TextFile.decode(opened.content(), here) : decoded);
  }

  /** Loads it in an encoding that the person knows, which is no guess from now on. */
  void readIn(Charset wanted) {
    asked(
        () -> {
          AtomicSave.Opened opened = file.saver().open(file.path(), TextFile.LARGEST);
          return new EditedFile.Loaded(opened.version(), TextFile.decode(opened.content(), wanted));
        },
        theirs -> {
          known = wanted;
          told.tellEncoding(wanted);
          file.take(theirs);
        });
  }

  /** Loads the server's version; the editor's own undo brings the old text back. */
  void loadTheirs() {
    asked(
        this::load,
        theirs -> {
          file.dismissQuestion();
          file.take(theirs);
        });
  }

  /** The server has another version than the one saved last; the text here stays, not saved. */
  void rebase(Consumer<EditedFile.Loaded> then) {
    asked(
        this::load,
        theirs -> {
          file.takeMerged(theirs, file.text());
          then.accept(theirs);
        });
  }

  private record Merging(EditedFile.Loaded theirs, ThreeWayMerge merge) {}

  /**
   * Puts the server's changes and those made here together, and asks for what both changed; the
   * editor's undo brings the text from before back.
   */
  void mergeTheirs() {
    String base = file.savedText();
    String mine = file.text();
    asked(
        () -> {
          EditedFile.Loaded theirs = load();
          return new Merging(theirs, ThreeWayMerge.of(base, mine, theirs.text().text()));
        },
        merging -> {
          file.dismissQuestion();
          new MergeSteps(file, merging.merge, merged -> merged(mine, merging.theirs, merged))
              .next();
        });
  }

  private void merged(String mine, EditedFile.Loaded theirs, String merged) {
    if (!file.text().equals(mine)) {
      // Typed on while the places were asked for: these lines are not in it.
      mergeTheirs();
      return;
    }
    file.dismissQuestion();
    file.takeMerged(theirs, merged);
  }

  void lookWhetherItCanBeSaved() {
    FileVersion opened = file.version();
    desk.background()
        .run(
            () -> file.saver().isReadOnly(opened),
            readOnly -> {
              if (readOnly && file.isFree()) {
                file.ask(questions.readOnly());
              }
            },
            failure -> {
              // A save that is refused says it then.
            });
  }

  /** Shows what saving would change, as far as is known here. */
  void showChanges() {
    String was = file.savedText();
    String now = file.text();
    desk.background()
        .run(
            () -> LineDifference.of(was, now),
            lines -> file.ask(questions.changes(lines)),
            failure -> {});
  }

  /** Tells of a change by another, within seconds. */
  void look() {
    FileVersion looked = file.version();
    watch.look(
        looked,
        () ->
            desk.background()
                .run(this::load, theirs -> tellOf(looked, theirs), failure -> watch.forget()));
  }

  private void tellOf(FileVersion looked, EditedFile.Loaded theirs) {
    boolean differs = !theirs.version().digestText().equals(looked.digestText());
    if (looked != file.version() || !file.isFree()) {
      watch.forget();
    } else if (differs) {
      String before = file.savedText();
      desk.background()
          .run(
              () -> LineDifference.of(before, theirs.text().text()),
              difference -> {
                watch.told(looked);
                boolean grew = theirs.text().text().startsWith(before);
                file.ask(questions.changedThere(difference, grew));
              },
              failure -> watch.forget());
    }
  }

  private <T> void asked(Callable<T> work, Consumer<T> then) {
    file.setBusy(true);
    desk.background()
        .run(
            work,
            done -> {
              file.setBusy(false);
              then.accept(done);
            },
            failure -> {
              file.setBusy(false);
              file.ask(Question.notice(FailureWords.of(failure), true, questions.keepEditing()));
            });
  }
}
