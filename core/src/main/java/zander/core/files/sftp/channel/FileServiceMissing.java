package zander.core.files.sftp.channel;

import java.io.IOException;
import java.util.stream.Collectors;
import zander.core.files.WireName;

/** No file service began to speak on a channel that was opened for it. */
public final class FileServiceMissing extends IOException {
  private static final int MOST_LINES = 4;
  private static final int LONGEST_LINE = 200;

  private final String printed;

  FileServiceMissing(String why, String printed) {
    super(printed.isEmpty() ? why : why + "; what came instead: " + printed);
    this.printed = printed;
  }

  /** What came in its place: from the account's start files, or of whatever could not be run. */
  public String printed() {
    return printed;
  }

  /** The first lines of something that was printed, fit to be shown. */
  static String plain(byte[] text) {
    return WireName.fromBytes(text)
        .lines()
        .filter(line -> !line.isBlank())
        .limit(MOST_LINES)
        .map(line -> line.substring(0, Math.min(line.length(), LONGEST_LINE)).strip())
        .map(WireName::toText)
        .collect(Collectors.joining("\n"));
  }
}
