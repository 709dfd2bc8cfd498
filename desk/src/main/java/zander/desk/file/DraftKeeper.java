package zander.desk.file;

import java.io.IOException;
import java.time.Duration;
import java.util.function.Supplier;
import zander.core.files.RemotePath;
import zander.desk.sheet.OpenDesk;

/**
 * Keeps what is typed in a file, a moment after the last key, so that a crash loses no more than
 * that. Interface thread only.
 */
final class DraftKeeper {
  private static final Duration PAUSE = Duration.ofMillis(1500);

  private final OpenDesk desk;
  private final Drafts drafts;
  private final Supplier<Wanted> wanted;
  private boolean due;

  /**
   * @param wanted what is to be kept, asked when it is time
   */
  DraftKeeper(OpenDesk desk, Drafts drafts, Supplier<Wanted> wanted) {
    this.desk = desk;
    this.drafts = drafts;
    this.wanted = wanted;
  }

  /**
   * What is to be kept of a file.
   *
   * @param keep whether there is something unsaved at all
   * @param closedToOthers whether others may not read the file on the server
   * @param cannot run when it could not be kept
   */
  record Wanted(boolean keep, Drafts.Draft draft, boolean closedToOthers, Runnable cannot) {}

  void keepSoon() {
    if (due) {
      return;
    }
    due = true;
    desk.background()
        .later(
            PAUSE,
            () -> {
              due = false;
              Wanted now = wanted.get();
              desk.background()
                  .run(
                      () -> write(now),
                      well -> {
                        if (!well) {
                          now.cannot.run();
                        }
                      },
                      failure -> {});
            });
  }

  /** The person does not want it any more. */
  void drop(RemotePath real) {
    desk.background()
        .run(() -> write(new Wanted(false, new Drafts.Draft(real, "", ""), false, () -> {})));
  }

  /** Gives whether all is as it should be with it. */
  private boolean write(Wanted now) {
    try {
      if (now.keep) {
        return drafts.keep(now.draft, now.closedToOthers);
      }
      drafts.drop(now.draft.path());
    } catch (IOException e) {
      // A full disk here must not stop the editing; the next change tries again.
    }
    return true;
  }
}
