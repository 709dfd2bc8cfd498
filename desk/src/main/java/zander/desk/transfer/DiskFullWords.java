package zander.desk.transfer;

import java.util.function.Consumer;
import zander.core.transfer.endpoint.Direction;
import zander.core.transfer.rules.DiskFullPrompt;
import zander.core.transfer.rules.DiskFullPrompt.Answer;
import zander.desk.sheet.Question;
import zander.desk.sheet.Texts;
import zander.desk.work.Message;

/** The question of a transfer whose goal is full. */
final class DiskFullWords {
  private DiskFullWords() {}

  static Question of(DiskFullPrompt.Question full, Direction direction, Consumer<Answer> given) {
    String free =
        full.free() < 0
            ? ""
            : Texts.size(full.free())
                + (direction == Direction.BRING_DOWN ? " are free here" : " are free there")
                + ". ";
    return Question.notice(
        new Message(
            "No room for " + full.path(),
            Character.toUpperCase(full.why().charAt(0))
                + full.why().substring(1)
                + ". "
                + free
                + "What has arrived is whole, and what was there is as it was. Make room, then try"
                + " again; the transfer waits."),
        true,
        new Question.Choice("Try again", ticked -> given.accept(Answer.TRY_AGAIN)),
        new Question.Choice("Leave out what does not fit", ticked -> given.accept(Answer.SKIP)),
        new Question.Choice("Stop the transfer", ticked -> given.accept(Answer.STOP)));
  }
}
