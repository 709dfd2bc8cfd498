package zander.standin.world;

/** A file that is open: it stays readable and writable however its name and mode change. */
public final class OpenFile {
  private final World world;
  private final Node node;
  private final boolean readable;
  private final boolean writable;
  private final Caller caller;

  OpenFile(World world, Node node, boolean readable, boolean writable, Caller caller) {
    this.world = world;
    this.node = node;
    this.readable = readable;
    this.writable = writable;
    this.caller = caller;
  }

  /** At most {@code length} bytes; none at the end. */
  public byte[] read(long at, int length) throws PosixError {
    synchronized (world) {
      if (!readable) {
        throw new PosixError(PosixError.Errno.EPERM);
      }
      return node.read(at, length);
    }
  }

  public void write(long at, byte[] bytes, int offset, int length) throws PosixError {
    synchronized (world) {
      if (!writable) {
        throw new PosixError(PosixError.Errno.EPERM);
      }
      world.claim(Math.max(0, at + length - node.size()));
      node.write(at, bytes, offset, length);
      world.touched(node);
      if (!caller.isRoot()) {
        node.mode &= ~World.SET_IDS;
      }
    }
  }

  public long size() {
    synchronized (world) {
      return node.size();
    }
  }

  public Stat stat() {
    synchronized (world) {
      return Stat.of(node);
    }
  }

  public void chmod(int mode) throws PosixError {
    world.chmod(caller, node, mode);
  }

  public void chown(int uid, int gid) throws PosixError {
    world.chown(caller, node, uid, gid);
  }

  public void setTimes(long accessed, long modified) throws PosixError {
    world.setTimes(caller, node, accessed, modified);
  }

  public void truncate(long size) throws PosixError {
    synchronized (world) {
      world.claim(size - node.size());
      node.truncate((int) size);
      world.touched(node);
    }
  }
}
