package zander.desk.folder;

import java.util.List;
import java.util.concurrent.Callable;
import org.jspecify.annotations.Nullable;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemotePath;
import zander.desk.sheet.OpenDesk;

/**
 * Notices that others changed a folder, by the time of the folder itself (POSIX, XBD 4.9: it
 * changes with its entries). One small request a look. What changes inside of files is seen at the
 * next reading. Interface thread only.
 */
final class FolderWatch {
  /** A folder that always changes is read for at most a tenth of the time. */
  private static final int SELDOM = 10;

  private final OpenDesk desk;
  private @Nullable RemotePath folder;
  private long reading;
  private long began;
  private long notBefore;
  private boolean looking;

  /** Seconds since 1970-01-01 UTC, from before the folder was read; -1 while it is not known. */
  private long known = -1;

  FolderWatch(OpenDesk desk) {
    this.desk = desk;
  }

  /** A reading begins: what changes from now on may not be in it. */
  void readingBegins(RemotePath path) {
    long mine = ++reading;
    folder = path;
    known = -1;
    began = System.nanoTime();
    ask(time -> known = mine == reading ? time : known);
  }

  void readingEnded() {
    notBefore = System.nanoTime() + SELDOM * (System.nanoTime() - began);
  }

  /** Looks, and runs something when the folder was changed since it was read. */
  void look(Runnable changed) {
    if (folder == null || looking || System.nanoTime() - notBefore < 0) {
      return;
    }
    long mine = reading;
    looking = true;
    ask(
        time -> {
          looking = false;
          if (mine == reading && known >= 0 && time >= 0 && time != known) {
            changed.run();
          }
        });
  }

  private interface Answer {
    /**
     * @param time -1 when it could not be told
     */
    void take(long time);
  }

  private void ask(Answer answer) {
    RemotePath asked = folder;
    Callable<RemoteAttributes> look = () -> desk.files().batch().lookThrough(List.of(asked)).get(0);
    desk.background()
        .run(
            look,
            found -> answer.take(found == null ? -1 : found.modified()),
            failure -> answer.take(-1));
  }
}
