package zander.desk.folder;

import java.util.List;
import java.util.Objects;
import zander.core.files.FileKind;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.files.RemotePath;
import zander.desk.sheet.OpenDesk;

/** What becomes of a folder that could not be read: a file is opened, anything else is told. */
final class NotRead {
  private final FolderModel folder;
  private final OpenDesk desk;

  NotRead(FolderModel folder, OpenDesk desk) {
    this.folder = folder;
    this.desk = desk;
  }

  void take(RemotePath to, Throwable failure) {
    RemotePath here = folder.path();
    Reason reason = failure instanceof RemoteFailure remote ? remote.reason() : null;
    // Of a file, OpenSSH says that there is no such folder, others that it failed.
    boolean mayBeFile =
        reason == Reason.NO_SUCH_FILE || reason == Reason.NOT_A_FOLDER || reason == Reason.FAILED;
    if (to.equals(here) || !mayBeFile) {
      tell(to, failure);
      return;
    }
    desk.background()
        .run(
            () -> desk.files().lookThrough(to).kind() == FileKind.FILE,
            file -> {
              if (!file) {
                tell(to, failure);
              } else if (Objects.equals(here, folder.path())) {
                // Nobody has gone on meanwhile.
                folder.selectNext(List.of(to));
                folder.go(to.parent());
                desk.openFile(to, 0);
              }
            },
            another -> tell(to, failure));
  }

  private void tell(RemotePath to, Throwable failure) {
    boolean lost = failure instanceof RemoteFailure it && it.reason() == Reason.LINE_LOST;
    // A line that broke is told above all sheets, and this is read again when it is back.
    if (!lost || !to.equals(folder.path())) {
      folder.tellFailure(failure, desk, () -> desk.actAsRoot(to, opened -> {}));
    }
    desk.checkLine();
  }
}
