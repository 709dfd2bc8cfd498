package zander.desk.file;

import java.nio.charset.Charset;
import java.nio.charset.IllegalCharsetNameException;
import java.util.List;
import java.util.function.Consumer;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import javafx.beans.binding.Bindings;
import javafx.beans.property.SimpleStringProperty;
import javafx.beans.property.StringProperty;
import zander.core.edit.LineEnd;
import zander.desk.edit.CursorGoal;
import zander.desk.edit.Language;
import zander.desk.edit.Languages;
import zander.desk.save.EditedFile;
import zander.desk.sheet.Question;
import zander.desk.sheet.Question.Choice;
import zander.desk.work.Message;

/** What is asked of a person in an open file, to be typed. */
final class TypedQuestions {
  private final EditedFile file;

  TypedQuestions(EditedFile file) {
    this.file = file;
  }

  /** Where to go. */
  Question line() {
    StringProperty typed = new SimpleStringProperty("");
    return asking(
        new Message("Go to a line of " + file.path().name(), ""),
        new Question.Input("file-line", "Line", typed, "12 or 12:40, with the column"),
        CursorGoal::isPlace,
        new Choice(
            "Go",
            ticked -> {
              file.dismissQuestion();
              file.goal().setTyped(typed.get());
            }));
  }

  /**
   * In which encoding to read the file.
   *
   * @param now the one it is read in
   */
  Question encoding(Charset now) {
    if (file.isUnsaved()) {
      return Question.notice(
          new Message(
              "Save " + file.path().name() + " first",
              "Read in another encoding, the server's version comes in the place of the text."),
          false,
          new Choice("Close", ticked -> file.dismissQuestion()));
    }
    StringProperty typed = new SimpleStringProperty(now.name());
    return asking(
        new Message(
            "Read " + file.path().name() + " in another encoding",
            "It is saved in the encoding that it is read in."),
        new Question.Input(
            "file-encoding", "Encoding", typed, "windows-1252, ISO-8859-2, KOI8-R, UTF-8"),
        TypedQuestions::isEncoding,
        new Choice(
            "Read it again",
            ticked -> {
              file.dismissQuestion();
              file.readIn(Charset.forName(typed.get().strip()));
            }));
  }

  /** As which language it is coloured and commented. */
  Question language(Language now, Consumer<Language> then) {
    StringProperty typed = new SimpleStringProperty(now.name());
    return asking(
        new Message(
            "Colour " + file.path().name() + " as another language",
            Languages.all().stream().map(Language::name).collect(Collectors.joining(", "))
                + ", "
                + Languages.PLAIN.name()
                + "."),
        new Question.Input("file-language", "Language", typed, "nginx"),
        name -> Languages.named(name).isPresent(),
        new Choice(
            "Colour it",
            ticked -> {
              file.dismissQuestion();
              then.accept(Languages.named(typed.get()).orElseThrow());
            }));
  }

  /**
   * How the lines are to end.
   *
   * @param now how they do, in words
   */
  Question lineEnd(String now, Consumer<LineEnd> then) {
    return Question.notice(
        new Message(
            "Line ends of " + file.path().name(),
            "Now: " + now + ". With the next save each line of the file ends as you choose."),
        false,
        ending("LF, as on Linux", LineEnd.LF, then),
        ending("CRLF, as on Windows", LineEnd.CRLF, then),
        new Choice("Cancel", ticked -> file.dismissQuestion()));
  }

  private Choice ending(String words, LineEnd end, Consumer<LineEnd> then) {
    return new Choice(
        words,
        ticked -> {
          file.dismissQuestion();
          then.accept(end);
        });
  }

  /** Where there is none to go to. */
  Question noHidden() {
    return Question.notice(
        new Message(
            "There are no hidden characters in " + file.path().name(),
            "No-break spaces, marks of width zero or of direction, and controls."),
        false,
        new Choice("Close", ticked -> file.dismissQuestion()));
  }

  private static boolean isEncoding(String name) {
    try {
      return !name.isBlank()
          && Charset.isSupported(name.strip())
          && Charset.forName(name.strip()).canEncode();
    } catch (IllegalCharsetNameException e) {
      return false;
    }
  }

  /** The first answer can be given while what is typed is right. */
  private Question asking(
      Message said, Question.Input input, Predicate<String> isRight, Choice first) {
    return Question.asking(
            said, List.of(input), first, new Choice("Cancel", ticked -> file.dismissQuestion()))
        .readyWhen(
            Bindings.createBooleanBinding(() -> isRight.test(input.text().get()), input.text()));
  }
}
