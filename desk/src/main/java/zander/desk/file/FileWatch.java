package zander.desk.file;

import java.util.List;
import org.jspecify.annotations.Nullable;
import zander.core.change.save.FileVersion;
import zander.core.files.RemoteAttributes;
import zander.desk.sheet.OpenDesk;

/**
 * Notices that a file in front was changed on the server, by its size and time: one small request a
 * look. Interface thread only.
 */
final class FileWatch {
  private final OpenDesk desk;
  private boolean looking;

  /** What was told already, or is ours. */
  private @Nullable RemoteAttributes known;

  private @Nullable FileVersion told;

  FileWatch(OpenDesk desk) {
    this.desk = desk;
  }

  /**
   * Looks, and runs something when the file is not that version any more; not for one of which the
   * person knows.
   */
  void look(FileVersion version, Runnable changed) {
    if (looking || version == told) {
      return;
    }
    looking = true;
    desk.background()
        .run(
            () -> desk.files().batch().lookThrough(List.of(version.real())).get(0),
            found -> {
              looking = false;
              if (found != null
                  && !isAs(found, version.attributes())
                  && (known == null || !isAs(found, known))) {
                known = found;
                changed.run();
              }
            },
            // A dead line is told elsewhere.
            failure -> looking = false);
  }

  /** The person was told that this version is not the server's any more; once is enough. */
  void told(FileVersion version) {
    told = version;
  }

  /** What was noticed last could not be told: it is noticed again. */
  void forget() {
    known = null;
  }

  private static boolean isAs(RemoteAttributes one, RemoteAttributes other) {
    return one.size() == other.size() && one.modified() == other.modified();
  }
}
