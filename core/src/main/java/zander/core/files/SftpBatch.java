package zander.core.files;

import java.io.IOException;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import zander.core.files.RemoteFailure.Reason;

/**
 * The same small request for many paths, many of them under way at once: one round trip for all
 * instead of one for each.
 */
final class SftpBatch {
  private static final int UNDER_WAY = 128;

  private final SftpWire wire;

  SftpBatch(SftpWire wire) {
    this.wire = wire;
  }

  private interface Answer {
    void of(int index, SftpWire.Sent sent) throws RemoteFailure;
  }

  private void each(int type, String step, List<RemotePath> paths, Answer answer)
      throws IOException {
    Deque<SftpWire.Sent> sent = new ArrayDeque<>();
    int answered = 0;
    for (RemotePath path : paths) {
      sent.addLast(wire.send(type, SftpWire.body(path), step, path));
      if (sent.size() >= UNDER_WAY) {
        answer.of(answered++, sent.removeFirst());
      }
    }
    while (!sent.isEmpty()) {
      answer.of(answered++, sent.removeFirst());
    }
  }

  /** The attributes of each, links not followed; {@code null} for what cannot be looked at. */
  List<RemoteAttributes> look(List<RemotePath> paths) throws IOException {
    List<RemoteAttributes> found = new ArrayList<>();
    each(
        SftpWire.LSTAT,
        "look at",
        paths,
        (index, sent) -> {
          try {
            found.add(wire.expectAttributes(sent));
          } catch (RemoteFailure e) {
            if (e.reason() == Reason.LINE_LOST) {
              throw e;
            }
            found.add(null);
          }
        });
    return found;
  }

  /** Removes each; gives those that the server refused. One that is gone already is no failure. */
  List<RemoteFailure> remove(List<RemotePath> paths, boolean folders) throws IOException {
    List<RemoteFailure> refused = new ArrayList<>();
    each(
        folders ? SftpWire.RMDIR : SftpWire.REMOVE,
        folders ? "remove folder" : "remove",
        paths,
        (index, sent) -> {
          try {
            wire.expectOk(sent);
          } catch (RemoteFailure e) {
            if (e.reason() == Reason.LINE_LOST) {
              throw e;
            }
            if (e.reason() != Reason.NO_SUCH_FILE) {
              refused.add(e);
            }
          }
        });
    return refused;
  }
}
