package zander.core.change;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.journal.FolderTime;

/** The times of the folders that a change touches, looked at before it and after it. */
final class FolderTimes {
  private final RemoteFiles files;
  private final List<RemotePath> folders;
  private final List<RemoteAttributes> before;

  private FolderTimes(RemoteFiles files, List<RemotePath> folders) throws IOException {
    this.files = files;
    this.folders = folders;
    this.before = files.lookAll(folders);
  }

  static FolderTimes before(RemoteFiles files, RemotePath... folders) throws IOException {
    return new FolderTimes(files, Stream.of(folders).distinct().toList());
  }

  List<FolderTime> after() throws IOException {
    List<RemoteAttributes> now = files.lookAll(folders);
    List<FolderTime> times = new ArrayList<>();
    for (int i = 0; i < folders.size(); i++) {
      if (before.get(i) != null && now.get(i) != null) {
        times.add(new FolderTime(folders.get(i), before.get(i).modified(), now.get(i).modified()));
      }
    }
    return times;
  }

  /** The same when the change is done and nothing may make it fail any more. */
  List<FolderTime> afterIfPossible() {
    try {
      return after();
    } catch (IOException e) {
      return List.of();
    }
  }

  /**
   * Gives folders the times they had before a change that was put back, where nobody touched them
   * in between and this account may.
   *
   * @param times as the change left them
   * @param between the times just before it was put back
   */
  static void giveBack(RemoteFiles files, List<FolderTime> times, List<RemoteAttributes> between)
      throws IOException {
    for (int i = 0; i < times.size(); i++) {
      FolderTime time = times.get(i);
      RemoteAttributes seen = between.get(i);
      if (seen != null && seen.modified() == time.after()) {
        try {
          files.setTimes(time.folder(), seen.accessed(), time.before());
        } catch (zander.core.files.RemoteFailure e) {
          if (e.reason() == zander.core.files.RemoteFailure.Reason.LINE_LOST) {
            throw e;
          }
          // Only a folder's owner may; its time is the smallest part of putting back.
        }
      }
    }
  }
}
