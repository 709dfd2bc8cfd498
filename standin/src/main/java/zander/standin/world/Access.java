package zander.standin.world;

import zander.standin.world.PosixError.Errno;

/** File access permissions (POSIX XBD 4.7): one class of bits decides, or a list; root passes. */
final class Access {
  static final int READ = 4;
  static final int WRITE = 2;
  static final int SEARCH = 1;

  private Access() {}

  static boolean may(Node node, Caller caller, int want) {
    if (caller.isRoot()) {
      return node.isFolder() || (want & SEARCH) == 0 || (node.mode & 0111) != 0;
    }
    if (node.list != null && caller.uid() != node.uid) {
      return node.list.may(node, caller, want);
    }
    int shift = caller.uid() == node.uid ? 6 : caller.isIn(node.gid) ? 3 : 0;
    return ((node.mode >> shift) & want) == want;
  }

  static void need(Node node, Caller caller, int want) throws PosixError {
    if (!may(node, caller, want)) {
      throw new PosixError(Errno.EACCES);
    }
  }

  static void needOwner(Node node, Caller caller) throws PosixError {
    if (!caller.isRoot() && caller.uid() != node.uid) {
      throw new PosixError(Errno.EPERM);
    }
  }

  /** Removing from a sticky folder is for the owner of the entry or of the folder. */
  static void needRemove(Node folder, Node entry, Caller caller) throws PosixError {
    need(folder, caller, WRITE | SEARCH);
    boolean sticky = (folder.mode & 01000) != 0;
    if (sticky && !caller.isRoot() && caller.uid() != entry.uid && caller.uid() != folder.uid) {
      throw new PosixError(Errno.EPERM);
    }
  }
}
