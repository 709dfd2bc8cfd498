package zander.desk.file.own;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.time.Duration;
import java.util.List;
import java.util.Objects;
import java.util.concurrent.Future;
import java.util.concurrent.atomic.AtomicBoolean;
import javafx.beans.property.ReadOnlyStringProperty;
import javafx.beans.property.ReadOnlyStringWrapper;
import org.jspecify.annotations.Nullable;
import zander.core.change.save.AtomicSave;
import zander.core.change.save.AtomicSave.Allow;
import zander.core.change.save.FileVersion;
import zander.core.change.save.SaveFailure;
import zander.core.files.RemotePath;
import zander.desk.sheet.OpenDesk;
import zander.desk.sheet.Question;
import zander.desk.sheet.Question.Choice;
import zander.desk.sheet.Sheet;
import zander.desk.sheet.Texts;
import zander.desk.words.Phrases;
import zander.desk.words.Words;
import zander.desk.work.FailureWords;
import zander.desk.work.Message;

/**
 * A file that is no text, or too large to be edited here, in another program of this computer: each
 * save there is saved on the server, whole or not at all. Interface thread, but for what says
 * otherwise.
 */
public final class BytesModel extends Sheet {
  private static final Words WORDS = Words.of(BytesModel.class);
  private static final Duration LOOK_EVERY = Duration.ofMillis(500);

  /** Larger files are transferred and not opened: a save has all of it in the memory, in bytes. */
  public static final int LARGEST = 64 << 20;

  private final OpenDesk desk;
  private final OwnCopies copies;
  private final RemotePath path;
  private final ReadOnlyStringWrapper state = new ReadOnlyStringWrapper("");
  private final AtomicBoolean looking = new AtomicBoolean();
  private final Future<?> clock;
  private volatile OwnCopies.Copy copy;

  /**
   * How the copy was when it was last the same as on the server, or refused; and at the last look.
   */
  private volatile @Nullable FileStamp seen;

  private @Nullable FileStamp before;
  private FileVersion version;
  private volatile boolean over;

  /** Whether it waits for an answer before it looks. */
  private volatile boolean held;

  /**
   * @param opened what the server has
   * @param stamp how the copy was when it had that; {@code null} where it may be another
   */
  BytesModel(
      OpenDesk desk,
      OwnCopies copies,
      FileVersion opened,
      OwnCopies.Copy copy,
      @Nullable FileStamp stamp) {
    this.desk = desk;
    this.copies = copies;
    this.path = opened.asked();
    this.version = opened;
    this.copy = copy;
    this.seen = stamp;
    setTitle(path.name());
    state.set(stamp == null ? WORDS.say("notLooked") : WORDS.say("asOnTheServer"));
    clock =
        desk.background()
            .every(
                LOOK_EVERY,
                () -> {
                  if (looking.compareAndSet(false, true)) {
                    desk.background().run(this::look);
                  }
                });
  }

  public RemotePath path() {
    return path;
  }

  /** The program that it is open in. */
  public String program() {
    return OwnCommand.name(copy.program());
  }

  /** Whether the server has what the program saved, in words. */
  public ReadOnlyStringProperty stateProperty() {
    return state.getReadOnlyProperty();
  }

  /** Starts the program, on a thread of its own; again, when it was closed meanwhile. */
  public void start() {
    desk.background()
        .run(
            () -> OwnCommand.start(copy.program(), copy.file()).waitFor(),
            exit -> {
              if (exit == OwnProgram.NOT_FOUND || exit == OwnProgram.NOT_RUN) {
                tellFailure(
                    new Message(WORDS.say("couldNotStart", program()), WORDS.say("noSuchProgram")));
              }
            },
            failure ->
                tellFailure(
                    new Message(WORDS.say("couldNotStart", program()), Phrases.of(failure))));
  }

  /**
   * The program saved something that the server has not, while nobody looked: it is not saved
   * unasked.
   *
   * @param changed whether the server has another version than the one that the copy came from
   */
  void askFirst(boolean changed) {
    held = true;
    ask(
        Question.notice(
            new Message(
                changed
                    ? WORDS.say("changedMeanwhile", path.name())
                    : WORDS.say("savedMeanwhile", path.name()),
                WORDS.say("copyIsAt", "", copy.file()).strip()),
            changed,
            new Choice(
                changed ? WORDS.say("replaceTheirs") : WORDS.say("saveToServer"),
                ticked -> {
                  dismissQuestion();
                  held = false;
                }),
            new Choice(WORDS.say("closeKeepCopy"), ticked -> desk.openSheets().close(this))));
  }

  /** Looks whether the copy was saved; on a thread of its own. */
  private void look() {
    FileStamp now = FileStamp.of(copy.file());
    boolean rests = Objects.equals(now, before);
    before = now;
    if (!rests || now == null || now.equals(seen) || over || held) {
      looking.set(false);
      return;
    }
    seen = now;
    try {
      byte[] content = read(copy);
      if (now.equals(FileStamp.of(copy.file()))) {
        desk.background().show(() -> saved(content));
      } else {
        // It is being written just now.
        seen = null;
        looking.set(false);
      }
    } catch (IOException e) {
      desk.background().show(() -> notSaved(FailureWords.of(e)));
    }
  }

  /** What a copy has, up to the first byte too many; waits for the disk. */
  static byte[] read(OwnCopies.Copy copy) throws IOException {
    try (InputStream in = Files.newInputStream(copy.file())) {
      return in.readNBytes(LARGEST + 1);
    }
  }

  private void saved(byte[] content) {
    if (content.length > LARGEST) {
      notSaved(new Message(WORDS.say("tooLarge"), WORDS.say("most", Texts.size(LARGEST))));
      return;
    }
    save(content, List.of());
  }

  private void save(byte[] content, List<Allow> allowed) {
    setUnsaved(true);
    state.set(WORDS.say("saving"));
    FileVersion base = version;
    AtomicSave saver = new AtomicSave(desk.files(), desk.commands(), desk.journal());
    desk.background()
        .run(
            () -> {
              if (base.hasContent(content)) {
                return base;
              }
              FileVersion made = saver.save(base, content, allowed).version();
              copy = copies.isOf(copy, made.digestText());
              return made;
            },
            made -> {
              version = made;
              setUnsaved(false);
              state.set(WORDS.say("savedToTheServer"));
              desk.changed(List.of(path));
              looking.set(false);
            },
            failure -> failed(failure, content));
  }

  private void failed(Throwable failure, byte[] content) {
    state.set(WORDS.say("notOnTheServer"));
    desk.checkLine();
    Message said = FailureWords.of(failure);
    boolean changed =
        failure instanceof SaveFailure save
            && save.reason() == SaveFailure.Reason.CHANGED_MEANWHILE;
    Choice again =
        changed
            ? new Choice(
                WORDS.say("replaceTheirs"),
                ticked -> {
                  dismissQuestion();
                  save(content, List.of(Allow.REPLACE_OTHERS_CHANGE));
                })
            : new Choice(
                WORDS.say("tryAgain"),
                ticked -> {
                  dismissQuestion();
                  save(content, List.of());
                });
    ask(
        Question.notice(
            new Message(said.headline(), WORDS.say("copyIsAt", said.detail(), copy.file())),
            true,
            again,
            dismiss()));
    looking.set(false);
  }

  private void notSaved(Message why) {
    setUnsaved(true);
    state.set(WORDS.say("notOnTheServer"));
    tellFailure(new Message(why.headline(), WORDS.say("copyIsAt", why.detail(), copy.file())));
    looking.set(false);
  }

  @Override
  protected void askBeforeClosing(Runnable close) {
    ask(
        Question.notice(
            new Message(WORDS.say("isNotSaved", path.name()), WORDS.say("copyStays", copy.file())),
            true,
            new Choice(WORDS.say("closeKeepCopy"), ticked -> close.run()),
            dismiss()));
  }

  /** The copy goes with it, unless it has what the server has not. */
  @Override
  protected void discard() {
    boolean all = !isUnsaved() && !held;
    end();
    if (all) {
      desk.background()
          .run(
              () -> {
                if (Objects.equals(seen, FileStamp.of(copy.file()))) {
                  copies.remove(copy);
                } else {
                  copies.leave(copy);
                }
                return null;
              },
              done -> {},
              failure -> copies.leave(copy));
    } else {
      copies.leave(copy);
    }
  }

  /** The desk has ended: the copy is offered when it is opened again. */
  @Override
  public void close() {
    if (!over) {
      end();
      copies.leave(copy);
    }
  }

  private void end() {
    over = true;
    clock.cancel(false);
  }
}
