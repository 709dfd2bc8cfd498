package zander.core.reading;

import java.io.IOException;
import java.util.List;
import java.util.function.LongConsumer;
import zander.core.connect.command.Commands;
import zander.core.files.RemoteFiles;
import zander.core.work.Cancellation;

/**
 * Lines of a large file by their numbers: counted on the server where it has a shell, else here.
 */
public final class LineNumbers {
  private static final int PART = 2 << 20;

  private final PagedFile file;
  private final ServerScan scan;

  public LineNumbers(PagedFile file, RemoteFiles files, Commands commands) {
    this.file = file;
    this.scan = new ServerScan(file, files, commands);
  }

  /**
   * Where a line begins, in bytes.
   *
   * @param number counted from 1
   * @param progress told how far the file was read, where it is read here
   * @return the file's length where it has fewer lines
   * @throws java.util.concurrent.CancellationException when it was stopped
   */
  public long offsetOf(long number, LongConsumer progress, Cancellation stop) throws IOException {
    if (number <= 1) {
      return 0;
    }
    if (scan.isPossible()) {
      List<Long> told = scan.places("head -n " + (number - 1) + " FILE | wc -c", 1, stop);
      if (told != null && told.size() == 1) {
        return told.get(0);
      }
    }
    long line = 1;
    for (long at = 0; ; ) {
      stop.throwIfStopped();
      byte[] bytes = file.read(at, PART);
      for (int i = 0; i < bytes.length; i++) {
        if (bytes[i] == '\n' && ++line == number) {
          return at + i + 1;
        }
      }
      at += bytes.length;
      progress.accept(at);
      if (bytes.length < PART) {
        return at;
      }
    }
  }
}
