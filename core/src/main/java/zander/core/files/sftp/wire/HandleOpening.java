package zander.core.files.sftp.wire;

import java.util.ArrayList;
import java.util.List;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.files.RemotePath;
import zander.core.phrase.FilePhrase;
import zander.core.phrase.FileStep;

/**
 * Opens a file or folder and finds out under which number the service has it, and what its true
 * path is, in one round trip: the service answers in the order it is asked, so the number that was
 * free before and leads somewhere after is the one. On Linux the lowest free number is given
 * (POSIX, {@code open}), so few need to be looked at.
 */
public final class HandleOpening {
  /** Standard input, output and errors. */
  private static final int FIRST = 3;

  private static final int FEW = 12;
  private static final int MOST = 1100;

  /**
   * @param path where it is, as the system says ({@code proc(5)}); a file that has been removed has
   *     words behind it
   */
  public record Opened(byte[] handle, int number, String path) {
    String name() {
      return FolderHandles.HANDLES + number;
    }

    /** Nobody waits for the answer. */
    void close(SftpWire wire) throws RemoteFailure {
      RequestBody body = SftpWire.body();
      body.putBytes(handle);
      wire.forget(wire.sendAsIs(SftpWire.CLOSE, body, FileStep.CLOSE, null));
    }
  }

  private HandleOpening() {}

  /**
   * @param body of OPEN or OPENDIR, with the name as it is to be sent
   */
  public static Opened open(
      SftpWire wire, int type, RequestBody body, FileStep step, RemotePath about)
      throws RemoteFailure {
    for (int many = FEW; many < MOST; many *= 4) {
      List<SftpWire.Sent> before = new ArrayList<>();
      List<SftpWire.Sent> after = new ArrayList<>();
      SftpWire.Sent[] opening = new SftpWire.Sent[1];
      int count = many;
      wire.inOneRun(
          step,
          () -> {
            ask(wire, count, before);
            opening[0] = wire.sendAsIs(type, body, step, about);
            ask(wire, count, after);
          });
      List<String> were = answers(wire, before);
      byte[] handle;
      List<String> are;
      try {
        handle = wire.expectHandle(opening[0]);
      } finally {
        are = answers(wire, after);
      }
      int number = onlyNew(were, are);
      if (number >= 0) {
        return new Opened(handle, FIRST + number, are.get(number));
      }
      new Opened(handle, -1, "").close(wire);
    }
    throw new RemoteFailure(Reason.FAILED, step, about, FilePhrase.OPENED_WHAT_UNKNOWN.of(), null);
  }

  private static void ask(SftpWire wire, int count, List<SftpWire.Sent> sent) throws RemoteFailure {
    for (int i = 0; i < count; i++) {
      RemotePath handle = RemotePath.of(FolderHandles.HANDLES + (FIRST + i));
      sent.add(wire.sendAsIs(SftpWire.READLINK, handle, FileStep.LOOK_AT));
    }
  }

  private static List<String> answers(SftpWire wire, List<SftpWire.Sent> sent)
      throws RemoteFailure {
    List<String> names = new ArrayList<>();
    for (SftpWire.Sent one : sent) {
      names.add(Answers.take(one, wire::expectName, refused -> null));
    }
    return names;
  }

  /** -1 when none is new, or several are. */
  private static int onlyNew(List<String> were, List<String> are) {
    int found = -1;
    for (int i = 0; i < are.size(); i++) {
      if (were.get(i) == null && are.get(i) != null) {
        if (found >= 0) {
          return -1;
        }
        found = i;
      }
    }
    return found;
  }
}
