package zander.desk.waterline;

import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.concurrent.CancellationException;
import java.util.stream.Stream;
import zander.core.connect.command.ExecResult;
import zander.core.connect.command.ShellWords;
import zander.core.files.RemoteFailure;
import zander.core.files.RemotePath;
import zander.core.files.WireName;
import zander.core.work.Cancellation;
import zander.desk.folder.FolderModel;
import zander.desk.sheet.OpenDesk;
import zander.desk.sheet.Question;
import zander.desk.words.Words;
import zander.desk.work.FailureWords;
import zander.desk.work.Message;

/**
 * Runs the command that a person chose for a folder once all that was sent up into it has arrived,
 * and tells how it ended.
 */
final class AfterUpload {
  private static final Words WORDS = Words.of(AfterUpload.class);

  /** More of its output than this is for a shell. */
  private static final int MOST_LINES = 6;

  private static final int MOST_BYTES = 16 * 1024;

  private final OpenDesk desk;
  private final FolderModel folder;

  AfterUpload(OpenDesk desk, FolderModel folder) {
    this.desk = desk;
    this.folder = folder;
  }

  void run(String command, RemotePath at) {
    StringBuilder out = new StringBuilder();
    String script =
        "cd " + ShellWords.quote(at) + " || exit 1\n" + WireName.fromText(command) + "\n";
    Cancellation stop = new Cancellation();
    folder.ask(
        Question.notice(
            new Message(WORDS.say("runningAfterSendingUp", command), ""),
            false,
            new Question.Choice(WORDS.say("stop"), ticked -> stop.stop())));
    desk.background()
        .run(
            () -> desk.commands().stream(script, part -> keep(out, part), stop),
            result -> ended(command, result, out.toString()),
            failure -> {
              if (failure instanceof CancellationException) {
                tell(WORDS.say("stopped", command), WORDS.say("itsInputAndOutput"), false);
                return;
              }
              Message said = FailureWords.of(failure);
              boolean never =
                  failure instanceof RemoteFailure remote
                      && remote.reason() == RemoteFailure.Reason.NO_SHELL;
              tell(
                  (never ? WORDS.say("itWasNotRun") : WORDS.say("itWasNotRunTo")) + command,
                  said.headline(),
                  true);
              desk.checkLine();
            });
  }

  private static synchronized void keep(StringBuilder out, byte[] part) {
    out.append(new String(part, StandardCharsets.ISO_8859_1));
    out.delete(0, Math.max(0, out.length() - MOST_BYTES));
  }

  private void ended(String command, ExecResult result, String out) {
    boolean well = result.exit() == 0;
    List<String> lines =
        Stream.concat(out.lines().map(WireName::toText), result.errorText().lines())
            .filter(line -> !line.isBlank())
            .toList();
    List<String> last = lines.subList(Math.max(0, lines.size() - MOST_LINES), lines.size());
    String how =
        well ? WORDS.say("ranAfterSendingUp") : WORDS.say("itFailedWithStatus", result.exit());
    tell(how + command, String.join("\n", last), !well);
    desk.changed(List.of());
    folder.refresh();
  }

  private void tell(String headline, String detail, boolean danger) {
    folder.ask(Question.notice(new Message(headline, detail), danger, folder.dismiss()));
  }
}
