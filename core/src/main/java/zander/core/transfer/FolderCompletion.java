package zander.core.transfer;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import zander.core.transfer.endpoint.Target;
import zander.core.transfer.endpoint.TransferItem;
import zander.core.transfer.resume.ResumeLog;

/** Gives folders that are filled their modes and times, many at once, deepest first. */
final class FolderCompletion {
  private static final int ENOUGH = 128;

  private final Target target;
  private final Retrier retrier;
  private final ResumeLog resumeLog;
  private List<TransferItem> filled = new ArrayList<>();

  FolderCompletion(Target target, Retrier retrier, ResumeLog resumeLog) {
    this.target = target;
    this.retrier = retrier;
    this.resumeLog = resumeLog;
  }

  synchronized void add(TransferItem folder) {
    filled.add(folder);
    if (filled.size() >= ENOUGH) {
      flush();
    }
  }

  /** One at a time, because a folder that is closed by its mode must come after what is in it. */
  synchronized void flush() {
    List<TransferItem> now = filled;
    filled = new ArrayList<>();
    if (now.isEmpty()) {
      return;
    }
    List<IOException> failures =
        retrier.attempt(now.get(0).from(), () -> target.finishFolders(now));
    for (int i = 0; failures != null && i < now.size(); i++) {
      if (failures.get(i) != null) {
        retrier.failed(now.get(i).from(), failures.get(i));
      }
      resumeLog.folderFinished(now.get(i).to());
    }
  }
}
