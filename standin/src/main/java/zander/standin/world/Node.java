package zander.standin.world;

import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.Map;

/** A file, folder or symbolic link of the world. Guarded by the world's lock. */
final class Node {
  static final int FORMAT_FILE = 0100000;
  static final int FORMAT_FOLDER = 0040000;
  static final int FORMAT_LINK = 0120000;

  final int format;
  final long number;
  int mode;
  int uid;
  int gid;
  long accessed;
  long modified;
  long changed;
  int links = 1;

  /** {@code null} for most. */
  AccessList list;

  /** The entries of a folder in the order they were made; {@code null} for others. */
  final Map<String, Node> entries;

  /** Where a link points; {@code null} for others. */
  final String target;

  private byte[] data = new byte[0];
  private int size;

  Node(int format, long number, int mode, int uid, int gid, String target, long now) {
    this.format = format;
    this.number = number;
    this.mode = mode;
    this.uid = uid;
    this.gid = gid;
    this.target = target;
    this.entries = format == FORMAT_FOLDER ? new LinkedHashMap<>() : null;
    this.accessed = now;
    this.modified = now;
    this.changed = now;
  }

  boolean isFolder() {
    return format == FORMAT_FOLDER;
  }

  boolean isLink() {
    return format == FORMAT_LINK;
  }

  boolean isFile() {
    return format == FORMAT_FILE;
  }

  long size() {
    return isLink() ? target.length() : isFolder() ? 4096 : size;
  }

  byte[] read(long at, int length) {
    if (at >= size) {
      return new byte[0];
    }
    int from = (int) at;
    return Arrays.copyOfRange(data, from, Math.min(size, from + length));
  }

  void write(long at, byte[] bytes, int offset, int length) {
    int end = Math.toIntExact(at + length);
    if (end > data.length) {
      data = Arrays.copyOf(data, Math.max(end, Math.min(data.length * 2, 1 << 30)));
    }
    System.arraycopy(bytes, offset, data, (int) at, length);
    size = Math.max(size, end);
  }

  void truncate(int length) {
    if (length < size) {
      Arrays.fill(data, length, size, (byte) 0);
    } else if (length > data.length) {
      data = Arrays.copyOf(data, length);
    }
    size = length;
  }
}
