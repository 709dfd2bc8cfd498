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
import zander.desk.words.Words;
import zander.desk.work.Message;

/** What is asked of a person in an open file, to be typed. */
final class TypedQuestions {
  private static final Words WORDS = Words.of(TypedQuestions.class);

  private final EditedFile file;

  TypedQuestions(EditedFile file) {
    this.file = file;
  }

  /** Where to go. */
  Question line() {
    StringProperty typed = new SimpleStringProperty("");
    return asking(
        new Message(WORDS.say("goToALine", file.path().name()), ""),
        new Question.Input("file-line", WORDS.say("line"), typed, WORDS.say("lineAndColumn")),
        CursorGoal::isPlace,
        new Choice(
            WORDS.say("go"),
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
              WORDS.say("saveFirst", file.path().name()), WORDS.say("readInAnotherEncoding")),
          false,
          new Choice(WORDS.say("close"), ticked -> file.dismissQuestion()));
    }
    StringProperty typed = new SimpleStringProperty(now.name());
    return asking(
        new Message(WORDS.say("readItInAnother", file.path().name()), WORDS.say("itIsSavedIn")),
        new Question.Input(
            "file-encoding",
            WORDS.say("encoding"),
            typed,
            "windows-1252, ISO-8859-2, KOI8-R, UTF-8"),
        TypedQuestions::isEncoding,
        new Choice(
            WORDS.say("readItAgain"),
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
            WORDS.say("colourAsAnotherLanguage", file.path().name()),
            Languages.all().stream().map(Language::name).collect(Collectors.joining(", "))
                + ", "
                + Languages.PLAIN.name()
                + "."),
        new Question.Input("file-language", WORDS.say("language"), typed, "nginx"),
        name -> Languages.named(name).isPresent(),
        new Choice(
            WORDS.say("colourIt"),
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
        new Message(WORDS.say("lineEndsOf", file.path().name()), WORDS.say("nowWithTheNext", now)),
        false,
        ending(WORDS.say("lfAsOnLinux"), LineEnd.LF, then),
        ending(WORDS.say("crlfAsOnWindows"), LineEnd.CRLF, then),
        new Choice(WORDS.say("cancel"), ticked -> file.dismissQuestion()));
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
            WORDS.say("thereAreNoHidden", file.path().name()), WORDS.say("noBreakSpacesMarks")),
        false,
        new Choice(WORDS.say("close"), ticked -> file.dismissQuestion()));
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
            said,
            List.of(input),
            first,
            new Choice(WORDS.say("cancel"), ticked -> file.dismissQuestion()))
        .readyWhen(
            Bindings.createBooleanBinding(() -> isRight.test(input.text().get()), input.text()));
  }
}
