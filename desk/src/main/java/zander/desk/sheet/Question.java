package zander.desk.sheet;

import java.util.List;
import java.util.function.Consumer;
import javafx.beans.property.IntegerProperty;
import javafx.beans.property.StringProperty;
import javafx.beans.value.ObservableValue;
import org.jspecify.annotations.Nullable;
import zander.core.edit.LineDifference;
import zander.desk.work.Message;

/**
 * Something to be told or decided inside a sheet.
 *
 * @param said the words
 * @param facts rows of a small table: name, what is coming, what is there; empty for none
 * @param danger whether it is about a failure or a loss
 * @param choices the answers, the harmless one last
 * @param forRest the words of a tick box beside the answers; {@code null} for none
 * @param inputs fields to be filled in; empty for none
 * @param live words that change while it is shown; {@code null} for none
 * @param ready whether the first answer may be given now; {@code null} for always
 * @param scope what the answer is meant for; {@code null} when that is clear
 * @param difference lines of a text that would change; empty for none
 */
public record Question(
    Message said,
    List<Fact> facts,
    boolean danger,
    List<Choice> choices,
    @Nullable String forRest,
    List<Input> inputs,
    @Nullable ObservableValue<String> live,
    @Nullable ObservableValue<Boolean> ready,
    @Nullable Scope scope,
    List<LineDifference.Line> difference) {

  public Question(
      Message said,
      List<Fact> facts,
      boolean danger,
      List<Choice> choices,
      @Nullable String forRest) {
    this(said, facts, danger, choices, forRest, List.of(), null, null, null, List.of());
  }

  public Question(
      Message said,
      List<Fact> facts,
      boolean danger,
      List<Choice> choices,
      @Nullable String forRest,
      List<Input> inputs,
      @Nullable ObservableValue<String> live,
      @Nullable ObservableValue<Boolean> ready) {
    this(said, facts, danger, choices, forRest, inputs, live, ready, null, List.of());
  }

  /** What an answer is meant for: one of some words. */
  public record Scope(List<String> words, IntegerProperty chosen) {}

  /** One row of facts; the first of several heads them. */
  public record Fact(String name, String coming, String there, Kind kind) {
    public Fact(String name, String coming, String there) {
      this(name, coming, there, Kind.PLAIN);
    }

    /** What the two columns of a row are to each other. */
    public enum Kind {
      PLAIN,
      /** Two versions: where they differ is marked. */
      COMPARED,
      /** The same for what is read letter by letter. */
      COMPARED_LETTERS
    }
  }

  /**
   * @param chosen told whether the box was ticked
   */
  public record Choice(String words, Consumer<Boolean> chosen) {}

  /**
   * A field.
   *
   * @param id for looking it up
   * @param hint what stands in it while it is empty
   */
  public record Input(String id, String label, StringProperty text, String hint) {}

  public static Question notice(Message said, boolean danger, Choice... choices) {
    return new Question(said, List.of(), danger, List.of(choices), null);
  }

  /** One that asks for words. */
  public static Question asking(Message said, List<Input> inputs, Choice... choices) {
    return new Question(said, List.of(), false, List.of(choices), null, inputs, null, null);
  }

  public Question live(ObservableValue<String> words) {
    return new Question(said, facts, danger, choices, forRest, inputs, words, ready);
  }

  /** Whether the first answer may be given by now. */
  public Question readyWhen(ObservableValue<Boolean> may) {
    return new Question(said, facts, danger, choices, forRest, inputs, live, may);
  }

  public Question withBox(String words) {
    return new Question(said, facts, danger, choices, words, inputs, live, ready);
  }

  public Question withScope(Scope what) {
    return new Question(
        said, facts, danger, choices, forRest, inputs, live, ready, what, difference);
  }

  public Question withDifference(List<LineDifference.Line> lines) {
    return new Question(said, facts, danger, choices, forRest, inputs, live, ready, scope, lines);
  }
}
