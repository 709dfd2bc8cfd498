package zander.desk.folder;

import java.util.ArrayDeque;
import java.util.Deque;
import zander.core.files.RemotePath;

/** The folders one came through, to go back and forward. */
final class FolderVisits {
  private static final int LONGEST = 100;

  private final Deque<RemotePath> before = new ArrayDeque<>();
  private final Deque<RemotePath> after = new ArrayDeque<>();

  /** One went from a folder to another by choice: what was forward is forgotten. */
  void went(RemotePath from) {
    before.push(from);
    after.clear();
    if (before.size() > LONGEST) {
      before.removeLast();
    }
  }

  RemotePath peekBack() {
    return before.peek();
  }

  RemotePath peekForward() {
    return after.peek();
  }

  void wentBack(RemotePath from) {
    before.pop();
    after.push(from);
  }

  void wentForward(RemotePath from) {
    after.pop();
    before.push(from);
  }
}
