package zander.core.transfer.remote;

import java.io.IOException;
import org.jspecify.annotations.Nullable;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.phrase.Phrase;
import zander.core.phrase.TransferPhrase;
import zander.core.rights.Mode;

/** Gives a file that arrives on a server an owner and a group, as far as the account may. */
final class OwnerSetter {
  private OwnerSetter() {}

  /**
   * Tries both, then the group alone.
   *
   * @param mode what it must have after it, because a change of owner takes bits away; or {@code
   *     null}
   * @param modified the same for its time; -1 for none
   * @return words on what could not be given; {@code null} when all was
   */
  static @Nullable Phrase give(
      RemoteFiles files,
      RemotePath path,
      RemoteAttributes now,
      int uid,
      int gid,
      @Nullable Mode mode,
      long modified)
      throws IOException {
    RemoteAttributes is = now;
    for (int wanted : new int[] {uid, now.uid()}) {
      try {
        files.setOwner(path, wanted, gid);
        if (mode != null || modified >= 0) {
          RemoteFailure refused =
              files
                  .batch()
                  .set(
                      java.util.List.of(
                          new zander.core.files.RemoteBatch.Setting(path, mode, modified)))
                  .get(0);
          if (refused != null) {
            throw refused;
          }
        }
        is = files.look(path);
      } catch (RemoteFailure e) {
        if (e.reason() == Reason.LINE_LOST) {
          throw e;
        }
      }
      if (is.uid() == uid && is.gid() == gid) {
        return null;
      }
    }
    return TransferPhrase.BELONGS_TO.of(
        files.names().user(is.uid()), files.names().group(is.gid()));
  }
}
