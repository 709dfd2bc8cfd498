package zander.core.crossing;

import java.io.IOException;
import java.util.concurrent.CancellationException;
import zander.core.crossing.ExistsTalk.Answer;
import zander.core.crossing.ExistsTalk.Question;

/** Decides what happens to a name that is taken: by the rule, by an answer, one at a time. */
final class Existing {
  private final Side target;
  private final ExistsTalk talk;
  private WhenExists rule;

  Existing(Side target, WhenExists rule, ExistsTalk talk) {
    this.target = target;
    this.rule = rule;
    this.talk = talk;
  }

  /**
   * Where to put what is coming: the same place to replace, another to keep both, {@code null} to
   * leave it out. Waits for the person when it must ask.
   *
   * @throws CancellationException when the person stops the crossing instead of answering
   */
  synchronized String placeFor(String path, Node coming, Node there) throws IOException {
    Question question = new Question(target.show(path), coming, there);
    WhenExists choice = rule;
    if (choice == WhenExists.ASK || (choice == WhenExists.REPLACE && !question.mayReplace())) {
      Answer answer = talk.ask(question);
      if (answer == null) {
        throw new CancellationException("stopped at a question");
      }
      choice = answer.choice();
      if (answer.forRest()) {
        rule = choice;
      }
    }
    return switch (choice) {
      case REPLACE -> question.mayReplace() ? path : null;
      case KEEP_BOTH -> freeName(path);
      default -> null;
    };
  }

  /** {@code index.html} becomes {@code index-2.html}, or the next number that is free. */
  private String freeName(String path) throws IOException {
    String folder = Side.folderOf(path);
    String name = Side.nameOf(path);
    int dot = name.lastIndexOf('.');
    String stem = dot > 0 ? name.substring(0, dot) : name;
    String ending = dot > 0 ? name.substring(dot) : "";
    for (int number = 2; ; number++) {
      String free = Side.join(folder, stem + "-" + number + ending);
      if (target.look(free) == null) {
        return free;
      }
    }
  }
}
