package zander.desk.file.own;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.Charset;
import java.nio.file.Files;
import java.time.Duration;
import java.util.List;
import java.util.Objects;
import java.util.concurrent.Future;
import java.util.concurrent.atomic.AtomicBoolean;
import org.jspecify.annotations.Nullable;
import zander.core.edit.NotTextException;
import zander.core.edit.TextFile;
import zander.core.edit.ThreeWayMerge;
import zander.core.phrase.ContentPhrase;
import zander.core.work.AtomicFile;
import zander.desk.file.FileModel;
import zander.desk.sheet.Question;
import zander.desk.sheet.Question.Choice;
import zander.desk.words.Phrases;
import zander.desk.words.Words;
import zander.desk.work.Background;
import zander.desk.work.FailureWords;
import zander.desk.work.Message;

/**
 * A file that is open in another program: what that saves comes into the sheet and goes on to the
 * server from there, with the checks and questions of any save; what is saved in the sheet goes
 * into the copy. Interface thread, but for what says otherwise.
 */
final class OwnProgram {
  private static final Words WORDS = Words.of(OwnProgram.class);

  private static final Duration LOOK_EVERY = Duration.ofMillis(500);

  /** A program that ends sooner has given the file to one that runs already, or did not start. */
  private static final long STARTING = Duration.ofSeconds(3).toNanos();

  /** What sh ends with when there is no such program, or it cannot be run (POSIX XCU 2.8.2). */
  static final int NOT_RUN = 126;

  static final int NOT_FOUND = 127;

  private final Background background;
  private final OwnCopies copies;
  private final FileModel file;
  private final Runnable ended;

  /** A copy, and how it is now. */
  record Opened(OwnCopies.Copy copy, @Nullable FileStamp stamp) {
    static Opened of(OwnCopies.Copy copy) {
      return new Opened(copy, FileStamp.of(copy.file()));
    }
  }

  private final AtomicBoolean looking = new AtomicBoolean();
  private final Future<?> clock;
  private volatile OwnCopies.Copy copy;

  /** The text that the copy has, as far as is known. */
  private String taken;

  /** How the copy was when its text was taken; read and written by one look at a time. */
  private volatile @Nullable FileStamp seen;

  private @Nullable FileStamp before;

  /** What the copy is written in. */
  private volatile Charset charset;

  private boolean saveDue;

  /** It is asked about once nothing else is asked. */
  private boolean endToldDue;

  private boolean ending;
  private boolean over;

  /**
   * @param opened the copy, and how it was when it had this text
   * @param taken the text
   * @param ended told once nothing is taken from it any more
   */
  OwnProgram(
      Background background,
      OwnCopies copies,
      FileModel file,
      Opened opened,
      String taken,
      Runnable ended) {
    this.background = background;
    this.copies = copies;
    this.file = file;
    this.copy = opened.copy();
    this.seen = opened.stamp();
    this.taken = taken;
    this.charset = file.toBeSaved().form().charset();
    this.ended = ended;
    this.clock =
        background.every(
            LOOK_EVERY,
            () -> {
              if (looking.compareAndSet(false, true)) {
                background.run(this::look);
              }
            });
  }

  FileModel file() {
    return file;
  }

  String name() {
    return OwnCommand.name(copy.program());
  }

  /** Starts the program; on a thread of its own, for as long as it runs. */
  void start() {
    long began = System.nanoTime();
    background.run(
        () -> OwnCommand.start(copy.program(), copy.file()).waitFor(),
        exit -> hasEnded(exit, System.nanoTime() - began),
        failure -> notStarted(Phrases.of(failure)));
  }

  private void hasEnded(int exit, long after) {
    if (exit == NOT_FOUND || exit == NOT_RUN) {
      notStarted(WORDS.say("thisComputerHasNo"));
    } else if (after > STARTING) {
      endToldDue = true;
    }
  }

  private void tellEnd() {
    file.ask(
        Question.notice(
            new Message(
                WORDS.say("hasEnded", name()), WORDS.say("ifIsStillOpen", file.path().name())),
            false,
            new Choice(
                WORDS.say("removeTheCopy"),
                ticked -> {
                  file.dismissQuestion();
                  end();
                }),
            new Choice(WORDS.say("itIsStillOpen"), ticked -> file.dismissQuestion())));
  }

  private void notStarted(String why) {
    if (!over) {
      end();
      file.tellFailure(
          new Message(WORDS.say("couldNotStart", name()), WORDS.say("theFileIsOpen", why)));
    }
  }

  /** Looks whether the copy was saved; on a thread of its own. */
  private void look() {
    FileStamp now = FileStamp.of(copy.file());
    boolean rests = Objects.equals(now, before);
    before = now;
    if (!rests || now == null || now.equals(seen)) {
      background.show(() -> goOn(rests));
      return;
    }
    try {
      String text = read(copy, charset);
      if (now.equals(FileStamp.of(copy.file()))) {
        seen = now;
        background.show(() -> saved(text));
      } else {
        // It is being written just now.
        looking.set(false);
      }
    } catch (IOException e) {
      seen = now;
      background.show(() -> unreadable(FailureWords.of(e)));
    }
  }

  /**
   * The text of a copy, in that encoding unless a mark says another; waits for the disk.
   *
   * @throws NotTextException also when it is larger than what is edited here
   */
  static String read(OwnCopies.Copy copy, Charset charset) throws IOException {
    byte[] content;
    try (InputStream in = Files.newInputStream(copy.file())) {
      content = in.readNBytes((int) TextFile.LARGEST + 1);
    }
    if (content.length > TextFile.LARGEST) {
      throw new NotTextException(ContentPhrase.LARGER_THAN_EDITED.of(), TextFile.LARGEST);
    }
    TextFile found = TextFile.decode(content);
    return found.hasMark() || found.charset().equals(charset)
        ? found.text()
        : TextFile.decode(content, charset).text();
  }

  private void unreadable(Message why) {
    if (!over) {
      file.tellFailure(
          new Message(
              WORDS.say("whatSavedIsNot", name()),
              WORDS.say("theCopyIs", why.headline(), copy.file())));
    }
    looking.set(false);
  }

  /** The program saved another text. */
  private void saved(String theirs) {
    String mine = file.text();
    String base = taken;
    taken = theirs;
    if (theirs.equals(base) || over) {
      goOn(false);
    } else if (mine.equals(base) || mine.equals(theirs)) {
      putIn(theirs);
    } else {
      // Both were typed in since: together where they do not touch.
      background.run(
          () -> ThreeWayMerge.of(base, mine, theirs),
          merge -> {
            if (merge.conflicts().isEmpty() && file.text().equals(mine)) {
              // What was typed here was not to be saved yet.
              file.putIn(merge.text(List.of()));
              file.say(WORDS.say("withWhatItSaved", name()));
              looking.set(false);
            } else {
              bothChanged(theirs);
            }
          },
          failure -> bothChanged(theirs));
    }
  }

  private void putIn(String text) {
    file.putIn(text);
    saveDue = file.isUnsaved();
    goOn(false);
  }

  private void bothChanged(String theirs) {
    file.ask(
        Question.notice(
            new Message(WORDS.say("savedATextThat", name()), WORDS.say("bothChangedTheSame")),
            true,
            new Choice(
                WORDS.say("takeWhatSaved", name()),
                ticked -> {
                  file.dismissQuestion();
                  putIn(theirs);
                }),
            new Choice(WORDS.say("keepTheTextHere"), ticked -> file.dismissQuestion())));
    looking.set(false);
  }

  /**
   * Does what waited for the sheet to be free.
   *
   * @param allTaken whether the copy holds nothing that was not looked at
   */
  private void goOn(boolean allTaken) {
    if (over) {
      looking.set(false);
      return;
    }
    if (saveDue && file.isFree()) {
      saveDue = false;
      if (file.isUnsaved()) {
        file.save();
      }
    }
    if (endToldDue && file.isFree()) {
      endToldDue = false;
      tellEnd();
    }
    charset = file.toBeSaved().form().charset();
    boolean rests = !saveDue && !file.isBusy() && !file.isUnsaved();
    if (rests && !file.text().equals(taken)) {
      intoCopy();
    } else if (rests && !file.version().digestText().equals(copy.digest())) {
      note();
    } else if (rests && ending && allTaken) {
      close(true);
    } else {
      looking.set(false);
    }
  }

  /** The sheet has saved, or loaded, another text: the program finds it in its file. */
  private void intoCopy() {
    String text = file.text();
    String digest = file.version().digestText();
    var snapshot = file.toBeSaved();
    background.run(
        () -> {
          if (!Objects.equals(seen, FileStamp.of(copy.file()))) {
            return false;
          }
          AtomicFile.write(copy.file(), snapshot.encode());
          seen = FileStamp.of(copy.file());
          before = seen;
          copy = copies.isOf(copy, digest);
          return true;
        },
        written -> {
          // Where the program was quicker, its text is looked at next.
          taken = written ? text : taken;
          looking.set(false);
        },
        failure -> looking.set(false));
  }

  private void note() {
    String digest = file.version().digestText();
    background.run(
        () -> copies.isOf(copy, digest),
        noted -> {
          copy = noted;
          looking.set(false);
        },
        failure -> looking.set(false));
  }

  /** Takes what was saved last, and then nothing more. */
  void end() {
    ending = true;
  }

  /** The sheet is gone: a copy that has what the server has not stays. */
  void sheetClosed() {
    close(taken.equals(file.savedText()));
  }

  /** The desk has ended: the copy is offered when it is opened again. */
  void leave() {
    close(false);
  }

  private void close(boolean removes) {
    if (!over) {
      over = true;
      clock.cancel(false);
      ended.run();
      if (removes) {
        background.run(this::remove);
      } else {
        copies.leave(copy);
      }
    }
  }

  /** Unless it was saved meanwhile. On a thread of its own. */
  private void remove() {
    try {
      FileStamp now = FileStamp.of(copy.file());
      if (now == null || now.equals(seen)) {
        copies.remove(copy);
        return;
      }
    } catch (IOException e) {
      // It is offered when the desk is opened again.
    }
    copies.leave(copy);
  }
}
