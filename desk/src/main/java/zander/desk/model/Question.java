package zander.desk.model;

import java.util.List;
import zander.desk.work.Said;

/**
 * Something to be told or decided inside a sheet.
 *
 * @param said the words
 * @param facts rows of a small table: name, what is coming, what is there; empty for none
 * @param danger whether it is about a failure or a loss
 * @param choices the answers, the harmless one last
 * @param forRest the words of a tick box beside the answers; {@code null} for none
 */
public record Question(
    Said said, List<Fact> facts, boolean danger, List<Choice> choices, String forRest) {

  /** One row of facts. */
  public record Fact(String name, String coming, String there) {}

  /**
   * @param chosen told whether the box was ticked
   */
  public record Choice(String words, java.util.function.Consumer<Boolean> chosen) {}

  public static Question notice(Said said, boolean danger, Choice... choices) {
    return new Question(said, List.of(), danger, List.of(choices), null);
  }
}
