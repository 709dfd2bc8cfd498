package zander.core.transfer.server;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Queue;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.atomic.AtomicInteger;
import org.jspecify.annotations.Nullable;
import zander.core.change.place.HoldingFolder;
import zander.core.files.AccountNames;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.journal.Journal;
import zander.core.transfer.endpoint.Endpoint;
import zander.core.transfer.endpoint.PartialNames;

/**
 * What all that works on one server for one transfer shares: the channels, the folder, the journal,
 * and what is to be removed at the end. For any thread.
 */
public final class RemoteContext {
  private final ServerChannels channels;
  private final RemotePath base;
  private final RemoteLookup lookup;
  private final Journal journal;
  private final @Nullable RemotePath home;
  private final PartialNames partialNames;
  private final TransferStrategy strategy;
  private final AtomicInteger nextChannel = new AtomicInteger();

  /** Temporary files that are to be removed at the end, because that was not possible before. */
  private final Queue<RemotePath> leftovers = new ConcurrentLinkedQueue<>();

  private volatile String owner = "";
  private volatile String ownerGroup = "";
  private long group;
  private @Nullable RemotePath holdingFolder;
  private int held;

  /**
   * @param base the folder that paths are relative to
   * @param home where what is replaced is held, if that is on the same file system; {@code null}
   *     for not at all
   */
  public RemoteContext(
      ServerChannels channels,
      RemotePath base,
      Journal journal,
      @Nullable RemotePath home,
      PartialNames partialNames,
      TransferStrategy.Wish wish) {
    this.channels = channels;
    this.base = base;
    this.lookup = new RemoteLookup(channels, base);
    this.journal = journal;
    this.home = home;
    this.partialNames = partialNames;
    this.strategy = new TransferStrategy(channels, wish);
  }

  /** The same with other temporary names, or another wish; nothing of it has begun. */
  public RemoteContext with(PartialNames names, TransferStrategy.Wish wish) {
    return new RemoteContext(channels, base, journal, home, names, wish);
  }

  /** Gives what arrives this owner and group, where that is allowed; empty to leave them. */
  public void giveTo(String user, String toGroup) {
    owner = user;
    ownerGroup = toGroup;
  }

  /** -1 to leave it. */
  public int ownerUid() {
    return owner.isEmpty() ? -1 : names().uidOf(owner).orElse(-1);
  }

  /** -1 to leave it. */
  public int ownerGid() {
    return ownerGroup.isEmpty() ? -1 : names().gidOf(ownerGroup).orElse(-1);
  }

  private AccountNames names() {
    try {
      return files().names();
    } catch (IOException e) {
      return new AccountNames();
    }
  }

  /** What this transfer does belongs together in the journal. */
  public synchronized long group() {
    if (group == 0) {
      group = journal.newGroup();
    }
    return group;
  }

  public Journal journal() {
    return journal;
  }

  public ServerChannels channels() {
    return channels;
  }

  public RemotePath base() {
    return base;
  }

  public RemoteLookup lookup() {
    return lookup;
  }

  public PartialNames partialNames() {
    return partialNames;
  }

  public TransferStrategy strategy() {
    return strategy;
  }

  public RemotePath at(String path) throws Endpoint.NameNotPossible {
    return lookup.at(path);
  }

  public RemoteFiles files() throws IOException {
    return channels.files();
  }

  /**
   * Whether a file must arrive by requests alone: a program is given paths, and another account can
   * turn this one while it runs.
   */
  public boolean isByRequestsOnly(RemotePath file) throws IOException {
    return files().othersMayTurn(file);
  }

  /** The same for where something goes; where it cannot be told, whoever goes there meets that. */
  public boolean takesPrograms(String path) {
    try {
      return !isByRequestsOnly(at(path));
    } catch (IOException e) {
      return false;
    }
  }

  /** The next of the channels that batches go over in turn, where one would carry too little. */
  public RemoteFiles filesForBatch() throws IOException {
    int count = strategy.channelsUp();
    if (count == 1) {
      return files();
    }
    List<RemoteFiles> all = new ArrayList<>(List.of(files()));
    all.addAll(channels.lanes(count - 1));
    return all.get(Math.floorMod(nextChannel.getAndIncrement(), all.size()));
  }

  /** To be removed by {@link #removeLeftovers}. */
  public void leave(RemotePath part) {
    leftovers.add(part);
  }

  /**
   * Removes what a lost connection left behind.
   *
   * @throws IOException when it is lost again; what is left is tried at the next call
   */
  public void removeLeftovers() throws IOException {
    List<RemotePath> left = List.copyOf(leftovers);
    if (left.isEmpty()) {
      // A connection that is lost at the very end does not matter then.
      return;
    }
    // What cannot be removed has a name that says what it is.
    files().batch().removeFiles(left);
    leftovers.removeAll(left);
  }

  /** A free name in the holding folder; {@code null} when nothing is or can be held. */
  public synchronized @Nullable RemotePath holdingName() throws IOException {
    if (home == null) {
      return null;
    }
    if (held == 0) {
      try {
        holdingFolder = new HoldingFolder(files(), home).newPlace(base);
      } catch (RemoteFailure e) {
        if (isLost(e)) {
          throw e;
        }
      }
    }
    held++;
    return holdingFolder == null ? null : holdingFolder.child(Integer.toString(held));
  }

  /** Whether what is replaced is to be held on the server. */
  public boolean holds() {
    return home != null;
  }

  public static boolean isLost(IOException failure) {
    return failure instanceof RemoteFailure remote && remote.reason() == Reason.LINE_LOST;
  }
}
