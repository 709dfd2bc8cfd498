package zander.desk.file;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import zander.core.edit.LineDifference;
import zander.core.edit.ThreeWayMerge;
import zander.desk.save.EditedFile;
import zander.desk.sheet.Question;
import zander.desk.sheet.Question.Choice;
import zander.desk.words.Words;
import zander.desk.work.Message;

/**
 * Asks place by place what both sides changed, in the sheet, and gives the text that comes of it.
 * Nothing is changed before the last answer. Interface thread only.
 */
final class MergeSteps {
  private static final Words WORDS = Words.of(MergeSteps.class);

  private final EditedFile file;
  private final ThreeWayMerge merge;
  private final Consumer<String> done;
  private final List<List<String>> chosen = new ArrayList<>();

  MergeSteps(EditedFile file, ThreeWayMerge merge, Consumer<String> done) {
    this.file = file;
    this.merge = merge;
    this.done = done;
  }

  /** Asks the next, or ends. */
  void next() {
    List<ThreeWayMerge.Part> conflicts = merge.conflicts();
    if (chosen.size() == conflicts.size()) {
      done.accept(merge.text(chosen));
      return;
    }
    ThreeWayMerge.Part place = conflicts.get(chosen.size());
    file.goal().set(place.line(), 0);
    List<String> both = new ArrayList<>(place.mine());
    both.addAll(place.theirs());
    file.ask(
        Question.notice(
                new Message(
                    WORDS.say("youAndTheServer", where(place)),
                    WORDS.say("conflictOfLinesWith", chosen.size() + 1, conflicts.size())),
                false,
                choice(WORDS.say("takeMine"), place.mine()),
                choice(WORDS.say("takeTheServers"), place.theirs()),
                choice(WORDS.say("takeBothMineFirst"), both),
                new Choice(WORDS.say("stopMerging"), ticked -> file.dismissQuestion()))
            .withDifference(
                LineDifference.of(
                    String.join("\n", place.mine()),
                    String.join("\n", place.theirs()),
                    place.line())));
  }

  private static String where(ThreeWayMerge.Part place) {
    int last = place.line() + place.mine().size() - 1;
    return last > place.line()
        ? WORDS.say("linesTo", place.line(), last)
        : WORDS.say("line", place.line());
  }

  private Choice choice(String words, List<String> lines) {
    return new Choice(
        words,
        ticked -> {
          chosen.add(lines);
          next();
        });
  }
}
