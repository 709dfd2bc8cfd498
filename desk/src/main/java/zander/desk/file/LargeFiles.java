package zander.desk.file;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.function.BiConsumer;
import java.util.function.BooleanSupplier;
import java.util.function.Consumer;
import zander.core.files.RemoteFailure;
import zander.core.files.RemotePath;
import zander.core.files.WireName;
import zander.desk.folder.FolderModel;
import zander.desk.sheet.OpenDesk;
import zander.desk.sheet.Question;
import zander.desk.sheet.Texts;
import zander.desk.work.Message;

/** What can be done with a file that the editor does not take. */
public final class LargeFiles {
  private final OpenDesk desk;
  private final FolderModel folder;
  private final BooleanSupplier hasShell;
  private final BiConsumer<RemotePath, byte[]> openShell;
  private final Consumer<RemotePath> bringDown;

  /**
   * @param openShell opens a shell in a folder and types into it
   * @param bringDown brings a file down into the folder of this computer
   */
  public LargeFiles(
      OpenDesk desk,
      FolderModel folder,
      BooleanSupplier hasShell,
      BiConsumer<RemotePath, byte[]> openShell,
      Consumer<RemotePath> bringDown) {
    this.desk = desk;
    this.folder = folder;
    this.hasShell = hasShell;
    this.openShell = openShell;
    this.bringDown = bringDown;
  }

  static boolean isTooLarge(Throwable failure) {
    return failure instanceof RemoteFailure remote
        && remote.reason() == RemoteFailure.Reason.TOO_LARGE;
  }

  /** Asks in the folder; nothing of the file was fetched. */
  void ask(RemotePath path) {
    List<Question.Choice> choices = new ArrayList<>();
    choices.add(choice("Show its end", () -> desk.openSheets().show(new FileEndModel(desk, path))));
    choices.add(choice("Bring it down", () -> bringDown.accept(path)));
    if (hasShell.getAsBoolean()) {
      choices.add(choice("Read it in a shell", () -> openShell.accept(path.parent(), less(path))));
    }
    choices.add(choice("Close", () -> {}));
    folder.ask(
        Question.notice(
            new Message(
                path.name() + " is too large for the editor",
                sizeOf(path)
                    + "The editor takes files of up to "
                    + Texts.size(ServerCopy.LARGEST)
                    + ". Its last "
                    + Texts.size(FileEndModel.END)
                    + " can be shown here; a shell opens all of it with less."),
            false,
            choices.toArray(Question.Choice[]::new)));
  }

  /** As far as the folder shown tells it. */
  private String sizeOf(RemotePath path) {
    return folder.allProperty().get().stream()
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
          folder.dismissQuestion();
          then.run();
        });
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
