package zander.desk.shell;

import zander.desk.sheet.Question;
import zander.desk.term.PastedText;
import zander.desk.work.Message;

/** Asks before a paste runs something, or holds what cannot be seen. */
final class PasteQuestion {
  private PasteQuestion() {}

  /**
   * @param runsAtOnce whether the shell takes each line as soon as it is there
   */
  static Question of(PastedText pasted, boolean runsAtOnce, Runnable paste, Runnable cancel) {
    String count = pasted.lines() == 1 ? "one line" : pasted.lines() + " lines";
    String headline = runsAtOnce ? "Run " + count + " from the clipboard?" : "Paste " + count + "?";
    String why =
        (runsAtOnce ? "This shell runs each line as soon as it arrives. " : "")
            + (pasted.hadControls()
                ? "Marks stand for control characters, which are left out. "
                : pasted.hasHidden() ? "Marks stand for what cannot be seen. " : "");
    String shown = String.join("\n", pasted.first());
    long more = pasted.lines() - pasted.first().size();
    return Question.notice(
        new Message(
            headline, why.strip() + "\n" + shown + (more > 0 ? "\nand " + more + " more" : "")),
        false,
        new Question.Choice(runsAtOnce ? "Run" : "Paste", ticked -> paste.run()),
        new Question.Choice("Cancel", ticked -> cancel.run()));
  }
}
