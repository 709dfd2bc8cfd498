package zander.core.change.place;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.journal.FolderTime;
import zander.core.journal.JournalEntry;

/** The times of the folders that a change touches, looked at before it and after it. */
public final class FolderTimes {
  private final RemoteFiles files;
  private final List<RemotePath> folders;
  private final List<RemoteAttributes> before;

  private FolderTimes(RemoteFiles files, List<RemotePath> folders) throws IOException {
    this.files = files;
    this.folders = folders;
    this.before = files.lookAll(folders);
  }

  public static FolderTimes before(RemoteFiles files, RemotePath... folders) throws IOException {
    return new FolderTimes(files, Stream.of(folders).distinct().toList());
  }

  public List<FolderTime> after() throws IOException {
    List<RemoteAttributes> now = files.lookAll(folders);
    List<FolderTime> times = new ArrayList<>();
    for (int i = 0; i < folders.size(); i++) {
      if (before.get(i) != null && now.get(i) != null) {
        times.add(new FolderTime(folders.get(i), before.get(i).modified(), now.get(i).modified()));
      }
    }
    return times;
  }

  /** The times after a change, for others that were made together with it. */
  public static List<FolderTime> unchanged(List<FolderTime> times) {
    return times.stream()
        .map(time -> new FolderTime(time.folder(), time.after(), time.after()))
        .toList();
  }

  /**
   * Gives folders the times they had before changes that are put back, where nobody touched them in
   * between and this account may.
   */
  public static final class Chain {
    private final RemoteFiles files;
    private final List<RemotePath> folders;
    private final List<RemoteAttributes> seen;
    private final List<JournalEntry> entries;

    private Chain(RemoteFiles files, List<JournalEntry> entries) throws IOException {
      this.files = files;
      this.entries = entries;
      this.folders =
          entries.stream()
              .flatMap(entry -> entry.folders().stream())
              .map(FolderTime::folder)
              .distinct()
              .toList();
      this.seen = files.lookAll(folders);
    }

    /** After all of them were put back. */
    public void giveBack() throws IOException {
      for (int i = 0; i < folders.size(); i++) {
        if (seen.get(i) != null) {
          giveBack(folders.get(i), seen.get(i));
        }
      }
    }

    private void giveBack(RemotePath folder, RemoteAttributes is) throws IOException {
      long time = is.modified();
      boolean ours = false;
      for (JournalEntry entry : entries) {
        for (FolderTime one : entry.folders()) {
          if (one.folder().equals(folder) && one.after() == time) {
            time = one.before();
            ours = true;
          }
        }
      }
      if (!ours) {
        return;
      }
      try {
        files.setTimes(folder, is.accessed(), time);
      } catch (RemoteFailure e) {
        if (e.reason() == Reason.LINE_LOST) {
          throw e;
        }
        // Only a folder's owner may; its time is the smallest part of putting back.
      }
    }
  }

  /**
   * Looks at the folders of changes that are about to be put back.
   *
   * @param entries the newest first
   */
  public static Chain chain(RemoteFiles files, List<JournalEntry> entries) throws IOException {
    return new Chain(files, entries);
  }
}
