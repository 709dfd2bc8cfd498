package zander.core.change;

import java.io.IOException;
import java.time.LocalDateTime;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.ThreadLocalRandom;
import zander.core.files.FileSpace;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.rights.Mode;

/**
 * Where deleted things are held, so that they can be put back: a folder closed to others on the
 * same file system, because a rename into it costs nothing and keeps everything.
 *
 * <p>That is {@code .zander-held} in the home folder where that is on the same file system, and
 * otherwise in the highest folder of the file system that the account may write to. Each deletion
 * has a folder of its own in it, so that names never meet.
 */
public final class HoldingFolder {
  /** The name, which marks what is in it as held. */
  public static final String NAME = ".zander-held";

  private static final DateTimeFormatter STAMP = DateTimeFormatter.ofPattern("yyyyMMdd-HHmmss");
  private static final Mode CLOSED = new Mode(0700);

  private final RemoteFiles files;
  private final RemotePath home;

  public HoldingFolder(RemoteFiles files, RemotePath home) {
    this.files = files;
    this.home = home;
  }

  /** Whether something is held, and would only be moved from one holding place to another. */
  public static boolean isHeld(RemotePath path) {
    return path.chain().stream().anyMatch(part -> part.wireName().equals(NAME));
  }

  /**
   * Makes a place of its own for one deletion in a folder.
   *
   * @return an empty folder on the folder's file system
   * @throws RemoteFailure with {@code PERMISSION_DENIED} when no such place can be made
   */
  public RemotePath newPlace(RemotePath folder) throws IOException {
    RemoteFailure last = null;
    for (RemotePath candidate : candidates(folder)) {
      try {
        return makeIn(candidate.child(NAME));
      } catch (RemoteFailure e) {
        if (e.reason() == Reason.LINE_LOST || e.reason() == Reason.NO_SPACE) {
          throw e;
        }
        last = e;
      }
    }
    throw new RemoteFailure(
        Reason.PERMISSION_DENIED, "make a holding folder for", folder, "no place for it", last);
  }

  private RemotePath makeIn(RemotePath holding) throws IOException {
    if (!Renames.exists(files, holding)) {
      files.makeFolder(holding, CLOSED);
      files.setMode(holding, CLOSED);
    }
    String stamp = LocalDateTime.now().format(STAMP);
    RemotePath place =
        holding.child(
            stamp + "-" + Integer.toHexString(ThreadLocalRandom.current().nextInt(1 << 20)));
    files.makeFolder(place, CLOSED);
    return place;
  }

  private List<RemotePath> candidates(RemotePath folder) throws IOException {
    List<RemotePath> candidates = new ArrayList<>();
    FileSpace here = files.space(folder);
    if (isSame(here, home)) {
      candidates.add(home);
    }
    if (here == null) {
      candidates.add(folder);
      return candidates;
    }
    for (RemotePath above : folder.chain()) {
      if (isSame(here, above)) {
        candidates.add(above);
      }
    }
    return candidates;
  }

  private boolean isSame(FileSpace here, RemotePath path) throws IOException {
    if (here == null) {
      return true;
    }
    try {
      FileSpace there = files.space(path);
      return there != null && there.id() == here.id();
    } catch (RemoteFailure e) {
      if (e.reason() == Reason.LINE_LOST) {
        throw e;
      }
      return false;
    }
  }
}
