package zander.desk.file.own;

import java.util.Arrays;
import java.util.List;
import java.util.function.Consumer;
import javafx.beans.property.SimpleStringProperty;
import javafx.beans.property.StringProperty;
import org.jspecify.annotations.Nullable;
import zander.core.change.save.AtomicSave;
import zander.core.change.save.FileVersion;
import zander.core.files.RemotePath;
import zander.desk.sheet.OpenDesk;
import zander.desk.sheet.Question;
import zander.desk.sheet.Question.Choice;
import zander.desk.sheet.Sheet;
import zander.desk.words.Words;
import zander.desk.work.FailureWords;
import zander.desk.work.Message;

/** Opens files that are no texts in other programs, each once. Interface thread only. */
final class BytesSheets {
  private static final Words WORDS = Words.of(BytesSheets.class);

  private final OpenDesk desk;
  private final Sheet folder;
  private final OwnCopies copies;

  BytesSheets(OpenDesk desk, Sheet folder, OwnCopies copies) {
    this.desk = desk;
    this.folder = folder;
    this.copies = copies;
  }

  /**
   * Asks in which program, and opens it there.
   *
   * @param usual the program that this kind was opened in last
   * @param chosen told of the one that is chosen
   */
  void ask(RemotePath path, String usual, Consumer<String> chosen) {
    for (BytesModel open : desk.openSheets().of(BytesModel.class)) {
      if (open.path().equals(path)) {
        desk.openSheets().frontProperty().set(open);
        return;
      }
    }
    StringProperty typed = new SimpleStringProperty(usual);
    folder.ask(
        Question.asking(
                new Message(WORDS.say("open", path.name()), WORDS.say("noText")),
                List.of(
                    new Question.Input(
                        "own-program", WORDS.say("program"), typed, WORDS.say("programHint"))),
                new Choice(
                    WORDS.say("openIt"),
                    ticked -> {
                      folder.dismissQuestion();
                      chosen.accept(typed.get().strip());
                      open(path, typed.get().strip());
                    }),
                folder.dismiss())
            .readyWhen(typed.map(text -> !text.isBlank())));
  }

  private AtomicSave.Opened read(RemotePath path) throws java.io.IOException {
    return new AtomicSave(desk.files(), desk.commands(), desk.journal())
        .open(path, BytesModel.LARGEST);
  }

  private void open(RemotePath path, String program) {
    desk.background()
        .run(
            () -> {
              AtomicSave.Opened opened = read(path);
              OwnCopies.Copy copy =
                  copies.make(
                      opened.version().real(),
                      opened.content(),
                      opened.version().digestText(),
                      program);
              return new BytesModel(
                  desk, copies, opened.version(), copy, FileStamp.of(copy.file()));
            },
            this::show,
            failure -> {
              folder.tellFailure(FailureWords.of(failure));
              desk.checkLine();
            });
  }

  private void show(BytesModel made) {
    desk.openSheets().show(made);
    made.start();
  }

  /** Goes on with a copy that an earlier run left. */
  void goOn(OwnCopies.Copy copy) {
    desk.background()
        .run(
            () -> {
              AtomicSave.Opened opened = read(copy.of());
              copies.take(copy);
              FileStamp stamp = FileStamp.of(copy.file());
              boolean same = Arrays.equals(BytesModel.read(copy), opened.content());
              return new Left(opened.version(), same ? stamp : null);
            },
            left -> {
              BytesModel made = new BytesModel(desk, copies, left.version, copy, left.same);
              desk.openSheets().show(made);
              if (left.same == null) {
                made.askFirst(!left.version.digestText().equals(copy.digest()));
              }
            },
            failure -> {
              copies.leave(copy);
              folder.tellFailure(FailureWords.of(failure));
            });
  }

  /**
   * A copy that was left.
   *
   * @param same how it is when the server has the same; {@code null} when it has not
   */
  private record Left(FileVersion version, @Nullable FileStamp same) {}
}
