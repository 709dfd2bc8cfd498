package zander.core.change.place;

import java.io.IOException;
import java.time.LocalDateTime;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.ThreadLocalRandom;
import org.jspecify.annotations.Nullable;
import zander.core.files.DiskSpace;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.phrase.FilePhrase;
import zander.core.phrase.FileStep;
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
  private static final int MOST_TRIES = 5;
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

  /** Puts something into a place that was made for it. */
  public interface Use<T> {
    T of(RemotePath place) throws IOException;
  }

  /**
   * Makes a place of its own for one deletion in a folder, and has it used. Where a rename into it
   * fails although the file system seems to be the same (bind mounts, file systems in user space,
   * servers that do not tell), the next place is tried; the last is in the folder itself.
   *
   * @param use told each place that is tried; fails with {@code FAILED} when it cannot be reached
   * @throws RemoteFailure with {@code PERMISSION_DENIED} when no place can be made
   */
  public <T> T inPlace(RemotePath folder, Use<T> use) throws IOException {
    RemoteFailure last = null;
    for (RemotePath candidate : candidates(folder)) {
      RemotePath place;
      try {
        place = makeIn(candidate.child(NAME));
      } catch (RemoteFailure e) {
        if (ends(e)) {
          throw e;
        }
        last = last == null ? e : last;
        continue;
      }
      try {
        return use.of(place);
      } catch (RemoteFailure e) {
        if (e.reason() == Reason.LINE_LOST) {
          throw e;
        }
        files.removeFolders(List.of(place));
        if (!mayReachAnother(e)) {
          throw e;
        }
        last = e;
      }
    }
    throw last != null && mayReachAnother(last)
        ? last
        : new RemoteFailure(
            Reason.PERMISSION_DENIED,
            FileStep.MAKE_A_HOLDING_FOLDER_FOR,
            folder,
            FilePhrase.NO_PLACE_TO_HOLD.of(),
            last);
  }

  /**
   * Whether a rename failed as one to another mount does, for which there is no status; a file
   * system that is full besides is what is found out for it.
   */
  public static boolean mayReachAnother(RemoteFailure e) {
    return switch (e.reason()) {
      case FAILED, NO_SPACE, NO_INODES -> true;
      default -> false;
    };
  }

  /** Another place would not do either. */
  private static boolean ends(RemoteFailure e) {
    return switch (e.reason()) {
      case LINE_LOST, NO_SPACE, NO_INODES, QUOTA, READ_ONLY -> true;
      default -> false;
    };
  }

  /**
   * The same for what is put there later; tried with an empty folder, because nothing else tells
   * whether a rename leads there.
   *
   * @return an empty folder that a rename from the folder leads to
   */
  public RemotePath newPlace(RemotePath folder) throws IOException {
    RemotePath probe = TemporaryName.beside(folder.child("probe"));
    try {
      files.makeFolder(probe, CLOSED);
    } catch (RemoteFailure e) {
      if (e.reason() == Reason.LINE_LOST) {
        throw e;
      }
      // Nothing can be made in the folder itself; what is held may come from one below it.
      return inPlace(folder, place -> place);
    }
    try {
      return inPlace(
          folder,
          place -> {
            RemotePath there = place.child(probe.wireName());
            files.rename(probe, there);
            files.removeFolder(there);
            return place;
          });
    } catch (IOException e) {
      files.removeFolders(List.of(probe));
      throw e;
    }
  }

  /** A place of its own in the home folder, whatever file system that is on. */
  public RemotePath placeInHome() throws IOException {
    return makeIn(home.child(NAME));
  }

  private RemotePath makeIn(RemotePath holding) throws IOException {
    if (!Renames.exists(files, holding)) {
      try {
        files.makeFolder(holding, CLOSED);
      } catch (RemoteFailure e) {
        if (e.reason() != Reason.ALREADY_EXISTS) {
          throw e;
        }
      }
      files.setMode(holding, CLOSED);
    }
    RemotePath place = freshIn(holding);
    List<RemoteAttributes> are = files.lookAll(List.of(holding, place));
    RemoteAttributes around = are.get(0);
    RemoteAttributes made = are.get(1);
    if (around == null || made == null || !around.isFolder() || around.uid() != made.uid()) {
      files.removeFolders(List.of(place));
      throw notOurs(holding);
    }
    if (!around.mode().equals(made.mode())) {
      files.setMode(holding, CLOSED);
    }
    return place;
  }

  /** Several may be made within one second, by several programs. */
  private RemotePath freshIn(RemotePath holding) throws IOException {
    for (int tries = 1; ; tries++) {
      String stamp = LocalDateTime.now().format(STAMP);
      String number = Integer.toHexString(ThreadLocalRandom.current().nextInt());
      RemotePath place = holding.child(stamp + "-" + number);
      try {
        files.makeFolder(place, CLOSED);
        return place;
      } catch (RemoteFailure e) {
        if (e.reason() != Reason.ALREADY_EXISTS || tries == MOST_TRIES) {
          throw e;
        }
      }
    }
  }

  private static RemoteFailure notOurs(RemotePath holding) {
    return new RemoteFailure(
        Reason.PERMISSION_DENIED,
        FileStep.HOLD_IN,
        holding,
        FilePhrase.OF_ANOTHER_ACCOUNT.of(),
        null);
  }

  /**
   * Makes sure that what is to be put back was held by us: whoever may write to the folder around
   * can put another in its place.
   *
   * @param held a path that may lie in a holding folder
   * @throws RemoteFailure with {@code PERMISSION_DENIED} when it does, and that belongs to another
   */
  public static void check(RemoteFiles files, RemotePath held) throws IOException {
    int me = files.uid();
    for (RemotePath part : held.chain()) {
      if (part.wireName().equals(NAME) && me >= 0 && !part.equals(held)) {
        RemoteAttributes is = files.look(part);
        boolean ours = is.isFolder() && is.uid() == me;
        // Root of one server may be nobody on a disk of another: nobody else can have made it then.
        if (!ours && (me != 0 || !is.isFolder() || files.othersMayTurn(part))) {
          throw notOurs(part);
        }
      }
    }
  }

  private List<RemotePath> candidates(RemotePath folder) throws IOException {
    List<RemotePath> candidates = new ArrayList<>();
    DiskSpace here = spaceOrNull(folder);
    if (isSame(here, home)) {
      candidates.add(home);
    }
    for (RemotePath above : folder.chain()) {
      boolean last = above.equals(folder);
      if (!candidates.contains(above) && (last || (here != null && isSame(here, above)))) {
        candidates.add(above);
      }
    }
    return candidates;
  }

  private boolean isSame(@Nullable DiskSpace here, RemotePath path) throws IOException {
    if (here == null) {
      return true;
    }
    DiskSpace there = spaceOrNull(path);
    return there != null && there.id() == here.id();
  }

  private @Nullable DiskSpace spaceOrNull(RemotePath path) throws IOException {
    try {
      return files.space(path);
    } catch (RemoteFailure e) {
      if (e.reason() == Reason.LINE_LOST) {
        throw e;
      }
      return null;
    }
  }
}
