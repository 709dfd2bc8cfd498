package zander.core.change.save;

import java.io.IOException;
import org.jspecify.annotations.Nullable;
import zander.core.change.place.HoldingFolder;
import zander.core.change.place.TemporaryName;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.files.RemoteWriter;
import zander.core.rights.Mode;

/**
 * New content as it lies on the server before it counts: closed to others, because it may be a
 * secret, until it has the owner that it is for.
 */
final class StagedContent {
  private static final Mode CLOSED = new Mode(0600);

  private final RemoteFiles files;
  private final RemotePath path;

  /** A place of its own in the holding folder; {@code null} where it lies beside its goal. */
  private final @Nullable RemotePath place;

  private boolean made;

  private StagedContent(RemoteFiles files, RemotePath path, @Nullable RemotePath place) {
    this.files = files;
    this.path = path;
    this.place = place;
  }

  static StagedContent beside(RemoteFiles files, RemotePath target) {
    return new StagedContent(files, TemporaryName.beside(target), null);
  }

  /** For a target whose folder takes no new file. */
  static StagedContent inHome(RemoteFiles files, RemotePath target) throws IOException {
    RemotePath place = new HoldingFolder(files, files.realPath(".")).placeInHome();
    return new StagedContent(files, place.child(target.wireName()), place);
  }

  RemotePath path() {
    return path;
  }

  /** Whether it may be there. */
  boolean isMade() {
    return made;
  }

  /** It has taken its goal's name. */
  void placed() {
    made = false;
  }

  RemoteFiles.CreatedFile create() throws IOException {
    try {
      RemoteFiles.CreatedFile fresh = files.createAndLook(path, CLOSED);
      made = true;
      return fresh;
    } catch (RemoteFailure e) {
      // What was refused was not made; of a lost line nobody knows.
      made = e.reason() == Reason.LINE_LOST;
      throw e;
    }
  }

  /**
   * Gives it the owner, group and mode of the old file.
   *
   * @param fresh what it has by now
   * @param mayDiffer whether it gets as much of them as can be, where it cannot get all
   * @return whether it belongs to the same owner and group
   */
  static boolean giveRights(
      RemoteWriter writer, RemoteAttributes old, RemoteAttributes fresh, boolean mayDiffer)
      throws IOException {
    boolean owned = fresh.uid() == old.uid() && fresh.gid() == old.gid();
    if (!owned) {
      owned = own(writer, old.uid(), old.gid());
      if (!owned && !mayDiffer) {
        return false;
      }
      if (!owned) {
        own(writer, fresh.uid(), old.gid());
      }
    }
    // After the owner, because a change of owner clears the set-id bits; and those bits are not
    // for another owner than the one who set them.
    writer.setMode(owned ? old.mode() : new Mode(old.mode().bits() & 01777));
    return owned;
  }

  private static boolean own(RemoteWriter writer, int uid, int gid) throws IOException {
    try {
      writer.setOwner(uid, gid);
      RemoteAttributes now = writer.look();
      return now.uid() == uid && now.gid() == gid;
    } catch (RemoteFailure e) {
      if (e.reason() == Reason.LINE_LOST) {
        throw e;
      }
      return false;
    }
  }

  /**
   * Takes it away.
   *
   * @return whether nothing of it is left
   */
  boolean remove() throws IOException {
    boolean gone = !made;
    if (made) {
      try {
        files.removeFile(path);
        gone = true;
      } catch (RemoteFailure e) {
        if (e.reason() == Reason.LINE_LOST) {
          throw e;
        }
        gone = e.reason() == Reason.NO_SUCH_FILE;
      }
      made = !gone;
    }
    if (gone && place != null) {
      files.removeFolders(java.util.List.of(place));
    }
    return gone;
  }
}
