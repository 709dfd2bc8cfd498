package zander.desk.file;

import java.nio.charset.Charset;
import java.nio.charset.IllegalCharsetNameException;
import java.util.List;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import javafx.beans.binding.Bindings;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.SimpleStringProperty;
import javafx.beans.property.StringProperty;
import zander.core.edit.LineEnd;
import zander.desk.edit.CursorGoal;
import zander.desk.edit.EditedText;
import zander.desk.edit.Language;
import zander.desk.edit.Languages;
import zander.desk.sheet.Question;
import zander.desk.sheet.Question.Choice;
import zander.desk.words.Words;
import zander.desk.work.Message;

/** What is asked of a person in an open file, to be typed or chosen. */
public final class TypedQuestions {
  private static final Words WORDS = Words.of(TypedQuestions.class);

  private final FileModel file;
  private final EditedText text;
  private final ObjectProperty<Language> language;
  private final ToldForm told;

  TypedQuestions(
      FileModel file, EditedText text, ObjectProperty<Language> language, ToldForm told) {
    this.file = file;
    this.text = text;
    this.language = language;
    this.told = told;
  }

  /** Asks for a line, and for a column if it is known. */
  public void askForLine() {
    StringProperty typed = new SimpleStringProperty("");
    ask(
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

  /** Asks in which encoding to read it. */
  public void askForEncoding() {
    if (file.isUnsaved()) {
      file.ask(
          Question.notice(
              new Message(
                  WORDS.say("saveFirst", file.path().name()), WORDS.say("readInAnotherEncoding")),
              false,
              new Choice(WORDS.say("close"), ticked -> file.dismissQuestion())));
      return;
    }
    StringProperty typed = new SimpleStringProperty(text.form().charset().name());
    ask(
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

  /** Asks as which language it is coloured and commented. */
  public void askForLanguage() {
    StringProperty typed = new SimpleStringProperty(language.get().name());
    ask(
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
              language.set(Languages.named(typed.get()).orElseThrow());
              told.tellLanguage(language.get());
            }));
  }

  /** Asks how its lines are to end. */
  public void askForLineEnds() {
    String now = text.form().hasMixedLineEnds() ? WORDS.say("mixed") : text.form().lineEnd().name();
    file.ask(
        Question.notice(
            new Message(
                WORDS.say("lineEndsOf", file.path().name()), WORDS.say("nowWithTheNext", now)),
            false,
            ending(WORDS.say("lfAsOnLinux"), LineEnd.LF),
            ending(WORDS.say("crlfAsOnWindows"), LineEnd.CRLF),
            new Choice(WORDS.say("cancel"), ticked -> file.dismissQuestion())));
  }

  private Choice ending(String words, LineEnd end) {
    return new Choice(
        words,
        ticked -> {
          file.dismissQuestion();
          text.useLineEnd(end);
          file.edited(text.text());
        });
  }

  /** Says that there is no hidden character to go to. */
  public void tellNoHidden() {
    file.ask(
        Question.notice(
            new Message(
                WORDS.say("thereAreNoHidden", file.path().name()), WORDS.say("noBreakSpacesMarks")),
            false,
            new Choice(WORDS.say("close"), ticked -> file.dismissQuestion())));
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
  private void ask(Message said, Question.Input input, Predicate<String> isRight, Choice first) {
    file.ask(
        Question.asking(
                said,
                List.of(input),
                first,
                new Choice(WORDS.say("cancel"), ticked -> file.dismissQuestion()))
            .readyWhen(
                Bindings.createBooleanBinding(
                    () -> isRight.test(input.text().get()), input.text())));
  }
}
