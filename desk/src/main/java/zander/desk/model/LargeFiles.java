package zander.desk.model;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import zander.core.files.RemoteFailure;
import zander.core.files.RemotePath;
import zander.core.files.WireName;
import zander.desk.sheet.Question;
import zander.desk.sheet.Texts;
import zander.desk.work.Message;

/** What can be done with a file that the editor does not take. */
final class LargeFiles {
  private final DeskModel desk;

  LargeFiles(DeskModel desk) {
    this.desk = desk;
  }

  static boolean isTooLarge(Throwable failure) {
    return failure instanceof RemoteFailure remote
        && remote.reason() == RemoteFailure.Reason.TOO_LARGE;
  }

  /** Asks in the folder; nothing of the file was fetched. */
  void ask(RemotePath path) {
    List<Question.Choice> choices = new ArrayList<>();
    choices.add(choice("Show its end", () -> desk.show(new FileEndModel(desk, path))));
    choices.add(choice("Bring it down", () -> bringDown(path)));
    if (desk.whyNoShell().isEmpty()) {
      choices.add(choice("Read it in a shell", () -> desk.openShell(path.parent(), less(path))));
    }
    choices.add(choice("Close", () -> {}));
    desk.folder()
        .ask(
            Question.notice(
                new Message(
                    path.name() + " is too large for the editor",
                    sizeOf(path)
                        + "The editor takes files of up to "
                        + Texts.size(FileModel.LARGEST)
                        + ". Its last "
                        + Texts.size(FileEndModel.END)
                        + " can be shown here; a shell opens all of it with less."),
                false,
                choices.toArray(Question.Choice[]::new)));
  }

  /** As far as the folder shown tells it. */
  private String sizeOf(RemotePath path) {
    return desk.folder().allProperty().get().stream()
        .filter(entry -> entry.path().equals(path))
        .map(entry -> entry.behind() == null ? entry.attributes() : entry.behind())
        .map(is -> "It has " + Texts.size(is.size()) + ". ")
        .findFirst()
        .orElse("");
  }

  private Question.Choice choice(String words, Runnable then) {
    return new Question.Choice(
        words,
        ticked -> {
          desk.folder().dismissQuestion();
          then.run();
        });
  }

  private void bringDown(RemotePath path) {
    desk.transfers().bringDown(path.parent(), desk.local().folder(), List.of(path.wireName()));
  }

  /** The command as it is typed, in single quotes, which every shell reads alike. */
  private static byte[] less(RemotePath path) {
    String quoted = "'" + path.wireName().replace("'", "'\\''") + "'";
    byte[] name = WireName.bytes(quoted);
    byte[] command = "less -- ".getBytes(StandardCharsets.US_ASCII);
    byte[] all = new byte[command.length + name.length + 1];
    System.arraycopy(command, 0, all, 0, command.length);
    System.arraycopy(name, 0, all, command.length, name.length);
    all[all.length - 1] = '\r';
    return all;
  }
}
