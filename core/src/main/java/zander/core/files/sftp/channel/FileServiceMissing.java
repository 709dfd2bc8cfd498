package zander.core.files.sftp.channel;

import java.util.stream.Collectors;
import zander.core.files.WireName;
import zander.core.phrase.ExplainedException;
import zander.core.phrase.SignInPhrase;

/** No file service began to speak on a channel that was opened for it. */
public final class FileServiceMissing extends ExplainedException {
  private static final int MOST_LINES = 4;
  private static final int LONGEST_LINE = 200;

  private final String printed;

  FileServiceMissing(SignInPhrase why, String printed) {
    super(printed.isEmpty() ? why.of() : SignInPhrase.CAME_INSTEAD.of(why, printed));
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
