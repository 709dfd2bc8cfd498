package zander.core.files.sftp.wire;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicLong;
import java.util.function.IntSupplier;
import org.jspecify.annotations.Nullable;
import zander.core.files.FileKind;
import zander.core.files.PathTrust;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.files.RemotePath;
import zander.core.phrase.FilePhrase;
import zander.core.phrase.FileStep;
import zander.core.rights.Mode;

/**
 * Knows in which folders of a server another account can turn a path while root works there: put a
 * link in the place of a folder or file between two requests. In those, requests go by open handles
 * ({@link FolderHandles}). One for all channels of a connection; safe for several threads.
 *
 * <p>Only root is guarded: what another account can be made to do, it does to what is its own.
 */
public final class FolderGuard {
  public static final int ROOT = 0;

  /** Owners and modes above a folder change seldom, and by root alone where it is closed. */
  private static final long KNOWN_NANOS = TimeUnit.SECONDS.toNanos(60);

  /** What a file service reads its requests from, by the names of handles (proc(5)). */
  private static final List<String> INPUTS = List.of("pipe:[", "socket:[", "/dev/pts/");

  private static final int MOST_KNOWN = 20_000;
  private static final int MOST_LINKS = 8;

  /**
   * A folder as it is guarded.
   *
   * @param open whether others can turn its entries, or it
   * @param real where it is, without links that root made on the way
   */
  public record Place(boolean open, RemotePath real) {}

  private record Known(Place place, long at) {}

  private final IntSupplier uid;
  private final Map<RemotePath, Known> known = new ConcurrentHashMap<>();
  private final AtomicLong moves = new AtomicLong();
  private volatile @Nullable Boolean active;

  /**
   * @param uid who one is there; -1 while that is not known
   */
  public FolderGuard(IntSupplier uid) {
    this.uid = uid;
  }

  public int uid() {
    return uid.getAsInt();
  }

  /** Tells that names may lead elsewhere from now on, because we moved or removed something. */
  public void moved() {
    moves.incrementAndGet();
  }

  /** A number that changes with {@link #moved}. */
  public long moves() {
    return moves.get();
  }

  /**
   * Whether one is root on a server whose handles have names. Asks the server at the first time:
   * what the service's standard input is; and who opened it, where it is not known who one is.
   */
  public boolean isActive(SftpWire wire) throws RemoteFailure {
    Boolean decided = active;
    if (decided == null) {
      int known = uid.getAsInt();
      // A script names no handles: there, what would need one is refused.
      decided = known <= ROOT && (wire.isByScripts() || isRootWithHandles(wire, known == ROOT));
      active = decided;
    }
    return decided;
  }

  /** Whether it is known that nothing is guarded here. */
  public boolean isOff() {
    return Boolean.FALSE.equals(active);
  }

  /**
   * @param known that one is root: by sudo, the input is opened by the account that signed in
   */
  private static boolean isRootWithHandles(SftpWire wire, boolean known) throws RemoteFailure {
    RemotePath input = RemotePath.of(FolderHandles.HANDLES + "0");
    SftpWire.Sent target = wire.sendAsIs(SftpWire.READLINK, input, FileStep.LOOK_AT);
    SftpWire.Sent owner = wire.sendAsIs(SftpWire.STAT, input, FileStep.LOOK_AT);
    String leads = Answers.takeOr(target, wire::expectName, "");
    int account = Answers.takeOr(owner, wire::expectAttributes, NOBODY).uid();
    return (known || account == ROOT) && INPUTS.stream().anyMatch(leads::startsWith);
  }

  private static final RemoteAttributes NOBODY =
      new RemoteAttributes(FileKind.OTHER, 0, -1, -1, new Mode(0), 0, 0);

  /** What is known of a folder, without asking; {@code null} for nothing. */
  public @Nullable Place known(RemotePath folder) {
    Known one = known.get(folder);
    return one == null || System.nanoTime() - one.at > KNOWN_NANOS ? null : one.place;
  }

  private Place learn(RemotePath folder, Place place) {
    if (known.size() > MOST_KNOWN) {
      known.clear();
    }
    known.put(folder, new Known(place, System.nanoTime()));
    return place;
  }

  /** The place of a folder; asks for the whole way to it at once where it is not known. */
  public Place place(SftpWire wire, RemotePath folder) throws RemoteFailure {
    Place place = known(folder);
    if (place == null && !folder.isRoot()) {
      Place above = known(folder.parent());
      if (above != null && above.open) {
        place = learn(folder, new Place(true, above.real.child(folder.wireName())));
      }
    }
    return place == null ? learn(folder, ask(wire, folder)) : place;
  }

  private static Place ask(SftpWire wire, RemotePath folder) throws RemoteFailure {
    RemotePath real = folder;
    for (int links = 0; links < MOST_LINKS; links++) {
      List<RemotePath> chain = real.chain();
      List<RemoteAttributes> is = look(wire, chain);
      int open = PathTrust.firstOpen(is, ROOT);
      int link = firstLink(is);
      if (open >= 0 && (link < 0 || open < link)) {
        return new Place(true, real);
      }
      if (link < 0) {
        return new Place(false, real);
      }
      // Root's own link, in a folder that is closed to others.
      RemotePath leads = resolve(wire, chain.get(link));
      for (RemotePath rest : chain.subList(link + 1, chain.size())) {
        leads = leads.child(rest.wireName());
      }
      real = leads;
    }
    throw new RemoteFailure(
        Reason.FAILED, FileStep.LOOK_AT, folder, FilePhrase.TOO_MANY_LINKS.of(), null);
  }

  /** A folder that is reached by a link of its owner's. */
  public void leads(RemotePath folder, RemotePath real) {
    learn(folder, new Place(true, real));
  }

  /**
   * Whether the first link on a way may be followed.
   *
   * @param real what the way leads to
   * @param target the same as it is
   */
  public boolean isLinkHarmless(
      SftpWire wire, RemotePath path, RemotePath real, @Nullable RemoteAttributes target)
      throws RemoteFailure {
    List<RemoteAttributes> chain = look(wire, path.chain());
    int link = firstLink(chain);
    if (link <= 0) {
      return false;
    }
    RemotePath folder = place(wire, path.chain().get(link - 1)).real();
    boolean beside = real.parent().equals(folder);
    return PathTrust.isHarmless(chain.get(link - 1), chain.get(link), target, beside);
  }

  private static int firstLink(List<RemoteAttributes> chain) {
    for (int i = 0; i < chain.size(); i++) {
      if (chain.get(i).kind() == FileKind.LINK) {
        return i;
      }
    }
    return -1;
  }

  private static List<RemoteAttributes> look(SftpWire wire, List<RemotePath> chain)
      throws RemoteFailure {
    List<SftpWire.Sent> sent = new ArrayList<>();
    for (RemotePath one : chain) {
      sent.add(wire.sendAsIs(SftpWire.LSTAT, one, FileStep.LOOK_AT));
    }
    List<RemoteAttributes> is = new ArrayList<>();
    boolean ended = false;
    for (SftpWire.Sent one : sent) {
      RemoteAttributes there = Answers.take(one, wire::expectAttributes, refused -> null);
      ended |= there == null;
      if (!ended) {
        is.add(there);
      }
    }
    return is;
  }

  private static RemotePath resolve(SftpWire wire, RemotePath link) throws RemoteFailure {
    String real = wire.expectName(wire.sendAsIs(SftpWire.REALPATH, link, FileStep.RESOLVE));
    return SftpWire.pathOf(real, link);
  }

  /** A folder that was listed in one that is known need not be asked for. */
  public void listed(RemotePath path, RemoteAttributes is) {
    Place above = is.isFolder() ? known(path.parent()) : null;
    if (above != null) {
      boolean open = above.open || PathTrust.mayTurn(is, -1, ROOT);
      learn(path, new Place(open, above.real.child(path.wireName())));
    }
  }

  /**
   * An entry was given away, or opened to others: what is known below it does not hold any more.
   */
  public void givenAway(RemotePath path) {
    if (known.containsKey(path)) {
      known.clear();
    }
  }

  /** The same where it is not known what was given away, or the server's tools did it. */
  public void forget() {
    known.clear();
  }

  /**
   * The same for one that was just made.
   *
   * @param mode {@code null} where the server chose it
   */
  public void made(RemotePath folder, @Nullable Mode mode) {
    if (mode != null) {
      listed(folder, new RemoteAttributes(FileKind.FOLDER, 0, ROOT, ROOT, mode, 0, 0));
    }
  }
}
