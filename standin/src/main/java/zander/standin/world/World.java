package zander.standin.world;

import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import zander.standin.world.PathWalk.Place;
import zander.standin.world.PosixError.Errno;

/**
 * The file system of one made-up server: POSIX calls on absolute paths, each made by a {@link
 * Caller}. Names are bytes, one char a byte. Safe for several threads: one lock for all.
 */
public final class World {
  static final int SET_IDS = 06000;
  private static final int SET_GID = 02000;

  private final Node root;
  private final Clock clock;
  private long lastNumber = 1;
  private long capacity = 512L << 20;
  private long used;

  public World(Clock clock) {
    this.clock = clock;
    this.root = new Node(Node.FORMAT_FOLDER, 2, 0755, 0, 0, null, now());
  }

  private long now() {
    return clock.instant().getEpochSecond();
  }

  /** Leaves just so many bytes free from now on. */
  public synchronized void setFree(long bytes) {
    capacity = used + bytes;
  }

  public synchronized long capacity() {
    return capacity;
  }

  public synchronized long free() {
    return Math.max(0, capacity - used);
  }

  void claim(long more) throws PosixError {
    if (more > 0 && used + more > capacity) {
      throw new PosixError(Errno.ENOSPC);
    }
    used += more;
  }

  void touched(Node node) {
    node.modified = now();
    node.changed = node.modified;
  }

  private Place place(Caller caller, String path, boolean follow) throws PosixError {
    if (path.isEmpty()) {
      throw new PosixError(Errno.ENOENT);
    }
    return new PathWalk(root, caller).walk(path, follow);
  }

  private Node existing(Caller caller, String path, boolean follow) throws PosixError {
    Node node = place(caller, path, follow).node();
    if (node == null) {
      throw new PosixError(Errno.ENOENT);
    }
    return node;
  }

  public synchronized Stat stat(Caller caller, String path) throws PosixError {
    return Stat.of(existing(caller, path, true));
  }

  public synchronized Stat lstat(Caller caller, String path) throws PosixError {
    return Stat.of(existing(caller, path, false));
  }

  public synchronized String realPath(Caller caller, String path) throws PosixError {
    return place(caller, path, true).real();
  }

  /** The names in a folder, in the order they were made, without {@code .} and {@code ..}. */
  public synchronized List<String> list(Caller caller, String path) throws PosixError {
    Node folder = existing(caller, path, true);
    if (!folder.isFolder()) {
      throw new PosixError(Errno.ENOTDIR);
    }
    Access.need(folder, caller, Access.READ);
    return new ArrayList<>(folder.entries.keySet());
  }

  /** Whether the caller may do all of this ({@code access(2)}): 4 read, 2 write, 1 run. */
  public synchronized boolean may(Caller caller, String path, int want) throws PosixError {
    return Access.may(existing(caller, path, true), caller, want);
  }

  /**
   * How to open a file, as the flags of POSIX {@code open}.
   *
   * @param mode for a file that is made, umask already taken off
   */
  public record Open(
      boolean read, boolean write, boolean create, boolean exclusive, boolean truncate, int mode) {
    public static final Open READ = new Open(true, false, false, false, false, 0);
  }

  public synchronized OpenFile open(Caller caller, String path, Open how) throws PosixError {
    Place place = place(caller, path, !how.exclusive());
    Node node = place.node();
    if (node == null) {
      if (!how.create()) {
        throw new PosixError(Errno.ENOENT);
      }
      node = add(caller, place, Node.FORMAT_FILE, how.mode(), null);
      return new OpenFile(this, node, how.read(), how.write(), caller);
    }
    if (how.create() && how.exclusive()) {
      throw new PosixError(Errno.EEXIST);
    }
    if (node.isFolder() && how.write()) {
      throw new PosixError(Errno.EISDIR);
    }
    if (node.isLink()) {
      throw new PosixError(Errno.ELOOP);
    }
    Access.need(node, caller, (how.read() ? Access.READ : 0) | (how.write() ? Access.WRITE : 0));
    if (how.truncate()) {
      used -= node.size();
      node.truncate(0);
      touched(node);
    }
    return new OpenFile(this, node, how.read(), how.write(), caller);
  }

  private Node add(Caller caller, Place place, int format, int mode, String target)
      throws PosixError {
    Node folder = place.folder();
    Access.need(folder, caller, Access.WRITE | Access.SEARCH);
    boolean inherit = (folder.mode & SET_GID) != 0;
    int bits = format == Node.FORMAT_FOLDER && inherit ? mode | SET_GID : mode;
    Node node =
        new Node(
            format,
            ++lastNumber,
            bits,
            caller.uid(),
            inherit ? folder.gid : caller.gid(),
            target,
            now());
    folder.entries.put(place.name(), node);
    touched(folder);
    return node;
  }

  /**
   * @param mode umask already taken off
   */
  public synchronized void mkdir(Caller caller, String path, int mode) throws PosixError {
    Place place = place(caller, path, false);
    if (place.node() != null) {
      throw new PosixError(Errno.EEXIST);
    }
    add(caller, place, Node.FORMAT_FOLDER, mode, null);
  }

  public synchronized void symlink(Caller caller, String target, String path) throws PosixError {
    Place place = place(caller, path, false);
    if (place.node() != null) {
      throw new PosixError(Errno.EEXIST);
    }
    add(caller, place, Node.FORMAT_LINK, 0777, target);
  }

  public synchronized void link(Caller caller, String from, String to) throws PosixError {
    Node node = existing(caller, from, false);
    Place place = place(caller, to, false);
    if (node.isFolder()) {
      throw new PosixError(Errno.EPERM);
    }
    if (place.node() != null) {
      throw new PosixError(Errno.EEXIST);
    }
    Access.need(place.folder(), caller, Access.WRITE | Access.SEARCH);
    place.folder().entries.put(place.name(), node);
    node.links++;
    node.changed = now();
    touched(place.folder());
  }

  public synchronized String readLink(Caller caller, String path) throws PosixError {
    Node node = existing(caller, path, false);
    if (!node.isLink()) {
      throw new PosixError(Errno.EINVAL);
    }
    return node.target;
  }

  public synchronized void unlink(Caller caller, String path) throws PosixError {
    Place place = place(caller, path, false);
    Node node = existing(caller, path, false);
    if (node.isFolder()) {
      throw new PosixError(Errno.EISDIR);
    }
    Access.needRemove(place.folder(), node, caller);
    removeEntry(place);
  }

  private void removeEntry(Place place) {
    Node node = place.folder().entries.remove(place.name());
    touched(place.folder());
    if (--node.links == 0 && node.isFile()) {
      used -= node.size();
    }
    node.changed = now();
  }

  public synchronized void rmdir(Caller caller, String path) throws PosixError {
    Place place = place(caller, path, false);
    Node node = existing(caller, path, false);
    if (!node.isFolder()) {
      throw new PosixError(Errno.ENOTDIR);
    }
    if (!node.entries.isEmpty()) {
      throw new PosixError(Errno.ENOTEMPTY);
    }
    if (node == root) {
      throw new PosixError(Errno.EPERM);
    }
    Access.needRemove(place.folder(), node, caller);
    removeEntry(place);
  }

  /** Renames in one step, over what is there, as POSIX {@code rename} does. */
  public synchronized void rename(Caller caller, String from, String to) throws PosixError {
    Place source = place(caller, from, false);
    Node node = existing(caller, from, false);
    Place goal = place(caller, to, false);
    Node there = goal.node();
    if (there == node) {
      return;
    }
    if (node.isFolder() && (goal.real() + "/").startsWith(source.real() + "/")) {
      throw new PosixError(Errno.EINVAL);
    }
    Access.needRemove(source.folder(), node, caller);
    if (there == null) {
      Access.need(goal.folder(), caller, Access.WRITE | Access.SEARCH);
    } else {
      if (there.isFolder() && !node.isFolder()) {
        throw new PosixError(Errno.EISDIR);
      }
      if (!there.isFolder() && node.isFolder()) {
        throw new PosixError(Errno.ENOTDIR);
      }
      if (there.isFolder() && !there.entries.isEmpty()) {
        throw new PosixError(Errno.ENOTEMPTY);
      }
      Access.needRemove(goal.folder(), there, caller);
      removeEntry(goal);
    }
    source.folder().entries.remove(source.name());
    goal.folder().entries.put(goal.name(), node);
    touched(source.folder());
    touched(goal.folder());
    node.changed = now();
  }

  public void chmod(Caller caller, String path, int mode) throws PosixError {
    Node node;
    synchronized (this) {
      node = existing(caller, path, true);
    }
    chmod(caller, node, mode);
  }

  synchronized void chmod(Caller caller, Node node, int mode) throws PosixError {
    Access.needOwner(node, caller);
    boolean dropSetGid = node.isFile() && !caller.isRoot() && !caller.isIn(node.gid);
    node.mode = dropSetGid ? mode & ~SET_GID : mode;
    node.changed = now();
  }

  /**
   * @param uid -1 to leave it
   * @param gid -1 to leave it
   */
  public void chown(Caller caller, String path, int uid, int gid, boolean follow)
      throws PosixError {
    Node node;
    synchronized (this) {
      node = existing(caller, path, follow);
    }
    chown(caller, node, uid, gid);
  }

  synchronized void chown(Caller caller, Node node, int uid, int gid) throws PosixError {
    int toUid = uid == -1 ? node.uid : uid;
    int toGid = gid == -1 ? node.gid : gid;
    boolean own = caller.uid() == node.uid && toUid == node.uid;
    if (!caller.isRoot() && !(own && (toGid == node.gid || caller.isIn(toGid)))) {
      throw new PosixError(Errno.EPERM);
    }
    node.uid = toUid;
    node.gid = toGid;
    if (node.isFile()) {
      node.mode &= (node.mode & 010) != 0 ? ~SET_IDS : ~04000;
    }
    node.changed = now();
  }

  public void setTimes(Caller caller, String path, long accessed, long modified) throws PosixError {
    Node node;
    synchronized (this) {
      node = existing(caller, path, true);
    }
    setTimes(caller, node, accessed, modified);
  }

  synchronized void setTimes(Caller caller, Node node, long accessed, long modified)
      throws PosixError {
    Access.needOwner(node, caller);
    node.accessed = accessed;
    node.modified = modified;
    node.changed = now();
  }

  /** Gives a file a list, whose mask lets through all that is in it. */
  public void setList(String path, AccessList list) throws PosixError {
    setList(Caller.ROOT, path, list);
  }

  /**
   * @param list {@code null} to take it away
   */
  public synchronized void setList(Caller caller, String path, AccessList list) throws PosixError {
    Node node = existing(caller, path, true);
    Access.needOwner(node, caller);
    if (list == null) {
      node.mode = node.list == null ? node.mode : (node.mode & ~070) | node.list.owningGroup() << 3;
      node.list = null;
      return;
    }
    int mask = list.owningGroup();
    for (int bits : list.users().values()) {
      mask |= bits;
    }
    for (int bits : list.groups().values()) {
      mask |= bits;
    }
    node.list = list;
    node.mode = (node.mode & ~070) | mask << 3;
  }

  /** Sets a link's own time, which the demo's data needs. */
  public synchronized void setLinkTime(String path, long modified) throws PosixError {
    existing(Caller.ROOT, path, false).modified = modified;
  }
}
