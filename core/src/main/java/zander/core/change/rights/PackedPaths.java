package zander.core.change.rights;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import zander.core.phrase.ExplainedException;
import zander.core.phrase.KeptPhrase;

/**
 * Paths by the hundred thousand, each with two numbers, in a few bytes each: only what differs from
 * the path before is kept. In blocks, so that they can be read from the end too. Used by one thread
 * at a time, until it is sealed.
 */
final class PackedPaths {
  private static final int BLOCK = 4096;

  /** Paths are shorter (POSIX {@code PATH_MAX} is 4096 on Linux), and trees are deeper at most. */
  private static final int LONGEST = 1 << 20;

  private static final int SEVEN_BITS = 0x7f;
  private static final int MORE = 0x80;

  private final List<byte[]> blocks = new ArrayList<>();
  private ByteArrayOutputStream open = new ByteArrayOutputStream();
  private String last = "";
  private long lastFile;
  private int inBlock;
  private long size;

  /** Given each path with its numbers. */
  interface Each {
    void take(String path, int tag, long file) throws IOException;
  }

  /**
   * @param path in wire form
   * @param tag 0 or more
   * @param file any number; near ones after each other take less
   */
  void add(String path, int tag, long file) {
    if (inBlock == BLOCK) {
      seal();
    }
    int shared = shared(last, path);
    put(open, shared);
    put(open, path.length() - shared);
    open.writeBytes(path.substring(shared).getBytes(StandardCharsets.ISO_8859_1));
    put(open, tag);
    long delta = file - lastFile;
    put(open, delta << 1 ^ delta >> (Long.SIZE - 1));
    last = path;
    lastFile = file;
    inBlock++;
    size++;
  }

  /** Ends adding: from then on several threads may read. */
  void seal() {
    if (inBlock > 0) {
      blocks.add(open.toByteArray());
      open = new ByteArrayOutputStream();
      last = "";
      lastFile = 0;
      inBlock = 0;
    }
  }

  private static int shared(String a, String b) {
    int most = Math.min(a.length(), b.length());
    int i = 0;
    while (i < most && a.charAt(i) == b.charAt(i)) {
      i++;
    }
    return i;
  }

  long size() {
    return size;
  }

  /** All, in the order in which they were added. */
  void forEach(Each each) throws IOException {
    seal();
    for (byte[] block : blocks) {
      new Block(block).read(each);
    }
  }

  /** The last first. */
  void forEachBackwards(Each each) throws IOException {
    seal();
    for (int i = blocks.size() - 1; i >= 0; i--) {
      List<String> paths = new ArrayList<>();
      List<Integer> tags = new ArrayList<>();
      List<Long> numbers = new ArrayList<>();
      new Block(blocks.get(i))
          .read(
              (path, tag, file) -> {
                paths.add(path);
                tags.add(tag);
                numbers.add(file);
              });
      for (int at = paths.size() - 1; at >= 0; at--) {
        each.take(paths.get(at), tags.get(at), numbers.get(at));
      }
    }
  }

  /** What {@link #read} reads. */
  void write(ByteArrayOutputStream out) {
    seal();
    put(out, blocks.size());
    for (byte[] block : blocks) {
      put(out, block.length);
      out.writeBytes(block);
    }
  }

  /**
   * @throws IOException when it is not what {@link #write} wrote
   */
  static PackedPaths read(byte[] bytes, int from) throws IOException {
    PackedPaths paths = new PackedPaths();
    Block all = new Block(bytes);
    all.at = from;
    for (long left = all.number(); left > 0; left--) {
      byte[] block = all.bytes(all.number());
      new Block(block).read((path, tag, file) -> paths.size++);
      paths.blocks.add(block);
    }
    return paths;
  }

  /** A number, 0 or more, in groups of seven bits, the lowest first. */
  static void put(ByteArrayOutputStream out, long number) {
    long left = number;
    while ((left & ~SEVEN_BITS) != 0) {
      out.write((int) (left & SEVEN_BITS) | MORE);
      left >>>= 7;
    }
    out.write((int) left);
  }

  /** Reads what {@link #put} and {@link #add} wrote. */
  static final class Block {
    private final byte[] bytes;
    private int at;

    Block(byte[] bytes) {
      this.bytes = bytes;
    }

    int at() {
      return at;
    }

    long number() throws IOException {
      long number = 0;
      for (int shift = 0; shift < Long.SIZE; shift += 7) {
        if (at == bytes.length) {
          break;
        }
        byte b = bytes[at++];
        number |= (long) (b & SEVEN_BITS) << shift;
        if (b >= 0) {
          return number;
        }
      }
      throw new ExplainedException(KeptPhrase.DAMAGED.of());
    }

    byte[] bytes(long length) throws IOException {
      if (length < 0 || length > bytes.length - at) {
        throw new ExplainedException(KeptPhrase.DAMAGED.of());
      }
      at += (int) length;
      return Arrays.copyOfRange(bytes, at - (int) length, at);
    }

    private void read(Each each) throws IOException {
      String last = "";
      long lastFile = 0;
      while (at < bytes.length) {
        long shared = number();
        byte[] rest = bytes(number());
        if (shared < 0 || shared > last.length() || shared + rest.length > LONGEST) {
          throw new ExplainedException(KeptPhrase.DAMAGED.of());
        }
        last =
            last.substring(0, (int) shared).concat(new String(rest, StandardCharsets.ISO_8859_1));
        long tag = number();
        if (tag < 0 || tag > Integer.MAX_VALUE) {
          throw new ExplainedException(KeptPhrase.DAMAGED.of());
        }
        long coded = number();
        lastFile += coded >>> 1 ^ -(coded & 1);
        each.take(last, (int) tag, lastFile);
      }
    }
  }
}
