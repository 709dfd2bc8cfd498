package zander.standin.server;

import java.io.IOException;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import zander.standin.server.Packet.Builder;
import zander.standin.shell.process.LongLine;
import zander.standin.world.Account;
import zander.standin.world.Caller;
import zander.standin.world.Machine;
import zander.standin.world.OpenFile;
import zander.standin.world.PosixError;
import zander.standin.world.PosixError.Errno;
import zander.standin.world.Stat;
import zander.standin.world.World;

/**
 * Answers the requests of SFTP version 3 (draft-ietf-secsh-filexfer-02) and the extensions that
 * OpenSSH documents, on a made-up world. For one channel and thread.
 */
final class SftpRequests {
  private static final int NAMES_IN_ONE = 100;
  private static final int LONGEST_READ = 255 * 1024;
  private static final int UMASK = 022;

  private final Machine machine;
  private final Faults faults;
  private final World world;
  private final Caller caller;
  private final String home;
  private final Map<String, OpenFile> files = new HashMap<>();
  private final Map<String, Deque<String>> folders = new HashMap<>();
  private final Map<String, String> folderPaths = new HashMap<>();
  private int lastHandle;

  SftpRequests(Machine machine, Faults faults, Account account) {
    this(machine, faults, machine.accounts().caller(account), account.home());
  }

  SftpRequests(Machine machine, Faults faults, Caller caller, String home) {
    this.machine = machine;
    this.faults = faults;
    this.world = machine.world();
    this.caller = caller;
    this.home = home;
  }

  byte[] answer(Packet packet) throws IOException {
    int type = packet.readByte();
    if (type == 1) {
      return version();
    }
    int id = packet.readInt();
    try {
      return handle(type, id, packet);
    } catch (PosixError e) {
      return status(id, code(e.errno()), e.getMessage());
    }
  }

  private static int code(Errno errno) {
    return switch (errno) {
      case ENOENT, ENOTDIR, ELOOP -> 2;
      case EACCES, EPERM -> 3;
      case ENAMETOOLONG, EINVAL -> 5;
      default -> 4;
    };
  }

  private byte[] version() throws IOException {
    Builder answer = new Builder().putByte(2).putInt(3);
    if (!faults.plainProtocol()) {
      answer.putString("posix-rename@openssh.com").putString("1");
      answer.putString("statvfs@openssh.com").putString("2");
      answer.putString("hardlink@openssh.com").putString("1");
      answer.putString("fsync@openssh.com").putString("1");
      answer.putString("limits@openssh.com").putString("1");
      answer.putString("users-groups-by-id@openssh.com").putString("1");
    }
    return answer.bytes();
  }

  private static byte[] status(int id, int code, String text) throws IOException {
    return new Builder().putByte(101).putInt(id).putInt(code).putString(text).putString("").bytes();
  }

  private static byte[] ok(int id) throws IOException {
    return status(id, 0, "Success");
  }

  private static Builder reply(int type, int id) throws IOException {
    return new Builder().putByte(type).putInt(id);
  }

  private String path(Packet packet) {
    return path(packet.readString());
  }

  private String path(String given) {
    return given.startsWith("/") ? given : home + "/" + given;
  }

  private byte[] handle(int type, int id, Packet packet) throws IOException {
    switch (type) {
      case 3:
        return open(id, packet);
      case 4:
        return close(id, packet.readString());
      case 5:
        return read(id, packet);
      case 6:
        OpenFile written = file(packet);
        long at = packet.readLong();
        byte[] data = packet.readBytes();
        written.write(at, data, 0, data.length);
        return ok(id);
      case 7:
        return attributes(id, world.lstat(caller, path(packet)));
      case 8:
        return attributes(id, file(packet).stat());
      case 9:
        return setStat(id, packet);
      case 10:
        return setOpenStat(id, packet);
      case 11:
        return openFolder(id, path(packet));
      case 12:
        return readFolder(id, packet.readString());
      case 13:
        world.unlink(caller, path(packet));
        return ok(id);
      case 14:
        return makeFolder(id, packet);
      case 15:
        world.rmdir(caller, path(packet));
        return ok(id);
      case 16:
        return name(id, realPath(path(packet)));
      case 17:
        return attributes(id, world.stat(caller, path(packet)));
      case 18:
        return rename(id, path(packet), path(packet));
      case 19:
        return name(id, world.readLink(caller, path(packet)));
      case 20:
        String target = packet.readString();
        world.symlink(caller, target, path(packet));
        return ok(id);
      case 200:
        return extended(id, packet);
      default:
        return status(id, 8, "Operation unsupported");
    }
  }

  /** OpenSSH resolves the path even when its last name is not there yet. */
  private String realPath(String path) throws PosixError {
    return world.realPath(caller, path);
  }

  private byte[] open(int id, Packet packet) throws IOException {
    String path = path(packet);
    int flags = packet.readInt();
    Attributes wanted = Attributes.read(packet);
    int mode = (wanted.mode() == -1 ? 0666 : wanted.mode()) & ~UMASK;
    World.Open how =
        new World.Open(
            (flags & 1) != 0,
            (flags & 2) != 0,
            (flags & 8) != 0,
            (flags & 0x20) != 0,
            (flags & 0x10) != 0,
            mode);
    String handle = "f" + ++lastHandle;
    files.put(handle, world.open(caller, path, how));
    return reply(102, id).putString(handle).bytes();
  }

  private byte[] close(int id, String handle) throws IOException {
    boolean file = files.remove(handle) != null;
    boolean folder = folders.remove(handle) != null;
    return file || folder ? ok(id) : status(id, 4, "no such handle");
  }

  private OpenFile file(Packet packet) throws PosixError {
    OpenFile file = files.get(packet.readString());
    if (file == null) {
      throw new PosixError(Errno.EINVAL);
    }
    return file;
  }

  private byte[] read(int id, Packet packet) throws IOException {
    OpenFile file = file(packet);
    long at = packet.readLong();
    int most = faults.shortReads() ? 1000 : LONGEST_READ;
    byte[] data = file.read(at, Math.min(packet.readInt(), most));
    return data.length == 0 ? status(id, 1, "End of file") : reply(103, id).putBytes(data).bytes();
  }

  private static byte[] attributes(int id, Stat stat) throws IOException {
    return reply(105, id).putStat(stat).bytes();
  }

  private byte[] setStat(int id, Packet packet) throws IOException {
    String path = path(packet);
    Attributes wanted = Attributes.read(packet);
    if (wanted.size() != -1) {
      world
          .open(caller, path, new World.Open(false, true, false, false, false, 0))
          .truncate(wanted.size());
    }
    if (wanted.mode() != -1) {
      world.chmod(caller, path, wanted.mode());
    }
    if (wanted.modified() != -1) {
      world.setTimes(caller, path, wanted.accessed(), wanted.modified());
    }
    if (wanted.hasOwner()) {
      world.chown(caller, path, wanted.uid(), wanted.gid(), true);
    }
    return ok(id);
  }

  private byte[] setOpenStat(int id, Packet packet) throws IOException {
    OpenFile file = file(packet);
    Attributes wanted = Attributes.read(packet);
    if (wanted.size() != -1) {
      file.truncate(wanted.size());
    }
    if (wanted.mode() != -1) {
      file.chmod(wanted.mode());
    }
    if (wanted.modified() != -1) {
      file.setTimes(wanted.accessed(), wanted.modified());
    }
    if (wanted.hasOwner()) {
      file.chown(wanted.uid(), wanted.gid());
    }
    return ok(id);
  }

  private byte[] openFolder(int id, String path) throws IOException {
    List<String> names = new ArrayList<>(List.of(".", ".."));
    names.addAll(world.list(caller, path));
    names.addAll(faults.extraNames());
    String handle = "d" + ++lastHandle;
    folders.put(handle, new ArrayDeque<>(names));
    folderPaths.put(handle, path);
    return reply(102, id).putString(handle).bytes();
  }

  private byte[] readFolder(int id, String handle) throws IOException {
    Deque<String> left = folders.get(handle);
    if (left == null) {
      return status(id, 4, "no such handle");
    }
    String folder = folderPaths.get(handle);
    Builder names = new Builder();
    int count = 0;
    while (count < NAMES_IN_ONE && !left.isEmpty()) {
      String name = left.removeFirst();
      Stat stat = statOrNull(folder + "/" + name);
      if (stat != null || faults.extraNames().contains(name)) {
        Stat shown = stat == null ? world.stat(caller, folder) : stat;
        names.putString(name);
        names.putString(LongLine.of(shown, name, machine.accounts(), machine.clock()));
        names.putStat(shown);
        count++;
      }
    }
    if (count == 0) {
      return status(id, 1, "End of file");
    }
    Builder answer = reply(104, id).putInt(count);
    return concat(answer.bytes(), names.bytes());
  }

  private static byte[] concat(byte[] first, byte[] second) {
    byte[] both = java.util.Arrays.copyOf(first, first.length + second.length);
    System.arraycopy(second, 0, both, first.length, second.length);
    return both;
  }

  private Stat statOrNull(String path) {
    try {
      return world.lstat(caller, path);
    } catch (PosixError e) {
      return null;
    }
  }

  private byte[] makeFolder(int id, Packet packet) throws IOException {
    String path = path(packet);
    Attributes wanted = Attributes.read(packet);
    world.mkdir(caller, path, (wanted.mode() == -1 ? 0777 : wanted.mode() & 0777) & ~UMASK);
    return ok(id);
  }

  private static byte[] name(int id, String name) throws IOException {
    return reply(104, id).putInt(1).putString(name).putString(name).putInt(0).bytes();
  }

  /** Version 3 says that an existing target is an error. */
  private byte[] rename(int id, String from, String to) throws IOException {
    if (statOrNull(to) != null) {
      throw new PosixError(Errno.EEXIST);
    }
    world.rename(caller, from, to);
    return ok(id);
  }

  private byte[] extended(int id, Packet packet) throws IOException {
    String name = packet.readString();
    if (faults.plainProtocol()) {
      return status(id, 8, "Operation unsupported");
    }
    switch (name) {
      case "posix-rename@openssh.com":
        world.rename(caller, path(packet), path(packet));
        return ok(id);
      case "hardlink@openssh.com":
        world.link(caller, path(packet), path(packet));
        return ok(id);
      case "fsync@openssh.com":
        file(packet);
        return ok(id);
      case "statvfs@openssh.com":
        world.stat(caller, path(packet));
        return freeSpace(id);
      case "limits@openssh.com":
        return reply(201, id)
            .putLong(256 * 1024)
            .putLong(LONGEST_READ)
            .putLong(LONGEST_READ)
            .putLong(1000)
            .bytes();
      case "users-groups-by-id@openssh.com":
        return namesById(id, packet);
      default:
        return status(id, 8, "Operation unsupported");
    }
  }

  private byte[] freeSpace(int id) throws IOException {
    Builder answer = reply(201, id).putLong(1).putLong(1);
    answer.putLong(world.capacity()).putLong(world.free()).putLong(world.free());
    answer.putLong(1 << 20).putLong(1 << 20).putLong(1 << 20);
    return answer.putLong(1).putLong(0).putLong(255).bytes();
  }

  private byte[] namesById(int id, Packet packet) throws IOException {
    Packet uids = new Packet(packet.readBytes());
    Packet gids = new Packet(packet.readBytes());
    Builder users = new Builder();
    Builder groups = new Builder();
    for (int uid : ints(uids)) {
      users.putString(machine.accounts().userName(uid).orElse(""));
    }
    for (int gid : ints(gids)) {
      groups.putString(machine.accounts().groupName(gid).orElse(""));
    }
    return reply(201, id).putBytes(users.bytes()).putBytes(groups.bytes()).bytes();
  }

  private static List<Integer> ints(Packet packet) {
    List<Integer> values = new ArrayList<>();
    while (packet.hasMore()) {
      values.add(packet.readInt());
    }
    return values;
  }

  /** The attributes a client asks to be set; -1 for what it leaves alone. */
  private record Attributes(
      long size, boolean hasOwner, int uid, int gid, int mode, long accessed, long modified) {
    static Attributes read(Packet packet) {
      int flags = packet.readInt();
      long size = (flags & 1) != 0 ? packet.readLong() : -1;
      boolean owner = (flags & 2) != 0;
      int uid = owner ? packet.readInt() : -1;
      int gid = owner ? packet.readInt() : -1;
      int mode = (flags & 4) != 0 ? packet.readInt() & 07777 : -1;
      boolean times = (flags & 8) != 0;
      long accessed = times ? packet.readInt() & 0xffffffffL : -1;
      long modified = times ? packet.readInt() & 0xffffffffL : -1;
      return new Attributes(size, owner, uid, gid, mode, accessed, modified);
    }
  }
}
