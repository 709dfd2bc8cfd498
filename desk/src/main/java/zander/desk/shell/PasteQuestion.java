package zander.desk.shell;

import java.util.List;
import java.util.stream.Collectors;
import zander.desk.sheet.Question;
import zander.desk.term.PastedText;
import zander.desk.work.Message;

/** Asks before a paste runs something, or holds what cannot be seen. */
final class PasteQuestion {
  private static final int MOST_LINES = 3;
  private static final int LONGEST_LINE = 160;

  private PasteQuestion() {}

  /**
   * @param runsAtOnce whether the shell takes each line as soon as it is there
   */
  static Question of(PastedText pasted, boolean runsAtOnce, Runnable paste, Runnable cancel) {
    List<String> lines = pasted.lines();
    String count = lines.size() == 1 ? "one line" : lines.size() + " lines";
    String headline = runsAtOnce ? "Run " + count + " from the clipboard?" : "Paste " + count + "?";
    String why =
        (runsAtOnce ? "This shell runs each line as soon as it arrives. " : "")
            + (pasted.hadControls()
                ? "Marks stand for control characters, which are left out. "
                : pasted.hasHidden() ? "Marks stand for what cannot be seen. " : "");
    String shown =
        lines.stream().limit(MOST_LINES).map(PasteQuestion::cut).collect(Collectors.joining("\n"));
    int more = lines.size() - MOST_LINES;
    return Question.notice(
        new Message(
            headline, why.strip() + "\n" + shown + (more > 0 ? "\nand " + more + " more" : "")),
        false,
        new Question.Choice(runsAtOnce ? "Run" : "Paste", ticked -> paste.run()),
        new Question.Choice("Cancel", ticked -> cancel.run()));
  }

  private static String cut(String line) {
    return line.length() > LONGEST_LINE ? line.substring(0, LONGEST_LINE) + "..." : line;
  }
}
