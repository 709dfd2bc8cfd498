package zander.desk.file;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.List;
import javafx.beans.property.ReadOnlyBooleanProperty;
import javafx.beans.property.ReadOnlyBooleanWrapper;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.desk.sheet.OpenDesk;
import zander.desk.sheet.Question;
import zander.desk.sheet.Sheet;
import zander.desk.work.FailureWords;

/** The end of a file that is too large for the editor, to be read and not changed. */
public final class FileEndModel extends Sheet {
  /** How much of the end is fetched, in bytes. */
  public static final int END = 1 << 20;

  /**
   * What was read.
   *
   * @param text whole lines; of the first one a part where it is longer than all of this
   * @param from where in the file it begins, in bytes
   * @param size of the file then, in bytes
   */
  public record End(String text, long from, long size) {}

  private final OpenDesk desk;
  private final RemotePath path;
  private final ReadOnlyObjectWrapper<End> end = new ReadOnlyObjectWrapper<>();
  private final ReadOnlyBooleanWrapper busy = new ReadOnlyBooleanWrapper(false);

  FileEndModel(OpenDesk desk, RemotePath path) {
    this.desk = desk;
    this.path = path;
    setTitle("End of " + path.name());
    read();
  }

  /** Reads the end as it is now. */
  public void read() {
    if (busy.get()) {
      return;
    }
    busy.set(true);
    desk.background()
        .run(
            () -> endOf(desk.files(), path),
            found -> {
              busy.set(false);
              dismissQuestion();
              end.set(found);
            },
            failure -> {
              busy.set(false);
              ask(
                  Question.notice(
                      FailureWords.of(failure),
                      true,
                      new Question.Choice("Try again", ticked -> read()),
                      new Question.Choice("Close", ticked -> dismissQuestion())));
              desk.checkLine();
            });
  }

  private static End endOf(RemoteFiles files, RemotePath path) throws IOException {
    long size = files.lookThrough(path).size();
    long from = Math.max(0, size - END);
    byte[] bytes;
    try (InputStream in = files.read(path, from, List.of())) {
      bytes = in.readNBytes(END);
    }
    int first = 0;
    if (from > 0) {
      while (first < bytes.length && bytes[first] != '\n') {
        first++;
      }
      first = first >= bytes.length - 1 ? 0 : first + 1;
    }
    String text = new String(bytes, first, bytes.length - first, StandardCharsets.UTF_8);
    return new End(text, from + first, from + bytes.length);
  }

  public RemotePath path() {
    return path;
  }

  /** What was read last; {@code null} before. */
  public ReadOnlyObjectProperty<End> endProperty() {
    return end.getReadOnlyProperty();
  }

  public ReadOnlyBooleanProperty busyProperty() {
    return busy.getReadOnlyProperty();
  }
}
