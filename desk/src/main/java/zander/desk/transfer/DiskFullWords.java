package zander.desk.transfer;

import java.util.function.Consumer;
import zander.core.transfer.endpoint.Direction;
import zander.core.transfer.rules.DiskFullPrompt;
import zander.core.transfer.rules.DiskFullPrompt.Answer;
import zander.desk.sheet.Question;
import zander.desk.sheet.Texts;
import zander.desk.words.Phrases;
import zander.desk.words.Words;
import zander.desk.work.Message;

/** The question of a transfer whose goal is full. */
final class DiskFullWords {
  private static final Words WORDS = Words.of(DiskFullWords.class);

  private DiskFullWords() {}

  static Question of(DiskFullPrompt.Question full, Direction direction, Consumer<Answer> given) {
    String free =
        full.free() < 0
            ? ""
            : Texts.size(full.free())
                + (direction == Direction.BRING_DOWN
                    ? WORDS.say("areFreeHere")
                    : WORDS.say("areFreeThere"))
                + ". ";
    return Question.notice(
        new Message(
            WORDS.say("noRoomFor", full.path()),
            WORDS.say("whatHasArrivedIs", Phrases.sentence(full.why()), free)),
        true,
        new Question.Choice(WORDS.say("tryAgain"), ticked -> given.accept(Answer.TRY_AGAIN)),
        new Question.Choice(WORDS.say("leaveOutWhatDoes"), ticked -> given.accept(Answer.SKIP)),
        new Question.Choice(WORDS.say("stopTheTransfer"), ticked -> given.accept(Answer.STOP)));
  }
}
