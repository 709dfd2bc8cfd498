package zander.desk.shell;

import zander.desk.sheet.Question;
import zander.desk.term.PastedText;
import zander.desk.words.Words;
import zander.desk.work.Message;

/** Asks before a paste runs something, or holds what cannot be seen. */
final class PasteQuestion {
  private static final Words WORDS = Words.of(PasteQuestion.class);

  private PasteQuestion() {}

  /**
   * @param runsAtOnce whether the shell takes each line as soon as it is there
   */
  static Question of(PastedText pasted, boolean runsAtOnce, Runnable paste, Runnable cancel) {
    String count = pasted.lines() == 1 ? WORDS.say("oneLine") : WORDS.say("lines", pasted.lines());
    String headline =
        runsAtOnce ? WORDS.say("runFromTheClipboard", count) : WORDS.say("paste", count);
    String why =
        (runsAtOnce ? WORDS.say("thisShellRunsEach") : "")
            + (pasted.hadControls()
                ? WORDS.say("marksStandForControl")
                : pasted.hasHidden() ? WORDS.say("marksStandForWhat") : "");
    String shown = String.join("\n", pasted.first());
    long more = pasted.lines() - pasted.first().size();
    return Question.notice(
        new Message(
            headline, why.strip() + "\n" + shown + (more > 0 ? WORDS.say("andMore", more) : "")),
        false,
        new Question.Choice(
            runsAtOnce ? WORDS.say("run") : WORDS.say("pasteIt"), ticked -> paste.run()),
        new Question.Choice(WORDS.say("cancel"), ticked -> cancel.run()));
  }
}
