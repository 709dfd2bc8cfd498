package zander.suite;

import static java.nio.charset.StandardCharsets.UTF_8;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.file.FileVisitResult;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.nio.file.SimpleFileVisitor;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.BasicFileAttributes;
import java.nio.file.attribute.FileTime;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.stream.Stream;

/**
 * A tree with all that a transfer must keep: files from nothing to 64 MiB, one of them full of
 * holes, folders 30 deep, links, all mode bits, odd names and odd times. Its size is set by {@code
 * -Dlarge.tree=50000}; a tenth as many folders.
 */
final class LargeTree {
  private static final int DEPTH = 30;

  private LargeTree() {}

  static int size() {
    return Integer.getInteger("large.tree", 3000);
  }

  static void make(Path root, int files) throws IOException {
    Random random = new Random(42);
    List<Path> folders = new ArrayList<>(List.of(Files.createDirectories(root)));
    for (Path at = root; folders.size() < DEPTH; ) {
      at = Files.createDirectory(at.resolve("d" + folders.size()));
      folders.add(at);
    }
    while (folders.size() < files / 10) {
      Path in = folders.get(random.nextInt(folders.size()));
      if (in.getNameCount() - root.getNameCount() < DEPTH) {
        folders.add(Files.createDirectory(in.resolve("folder-" + folders.size())));
      }
    }
    for (int i = 0; i < files; i++) {
      Path in = folders.get(random.nextInt(folders.size()));
      byte[] content = new byte[sizeOf(i, random)];
      random.nextBytes(content);
      file(in.resolve("reading-" + i), content, random.nextInt(010000), random);
    }
    byte[] large = new byte[files < 10_000 ? 9 << 20 : 64 << 20];
    random.nextBytes(large);
    file(root.resolve("large"), large, 0640, random);
    holes(root.resolve("holes"));
    OddTree.make(root.resolve("odd"));
    for (int i = 0; i < files / 100; i++) {
      Path in = folders.get(random.nextInt(folders.size()));
      Files.createSymbolicLink(in.resolve("link-" + i), Path.of("../somewhere/" + i));
    }
    for (int i = folders.size() - 1; i >= 0; i--) {
      Files.setLastModifiedTime(folders.get(i), time(random));
      Files.setAttribute(folders.get(i), "unix:mode", random.nextInt(010000) | 0500);
    }
  }

  /** Most are small, as in a site; some are empty, and a few are large. */
  private static int sizeOf(int i, Random random) {
    return i % 50 == 0 ? 0 : i % 97 == 0 ? random.nextInt(600_000) : random.nextInt(4096);
  }

  private static void file(Path path, byte[] content, int mode, Random random) throws IOException {
    Files.write(path, content);
    Files.setLastModifiedTime(path, time(random));
    Files.setAttribute(path, "unix:mode", mode);
  }

  /** From 1970 to the end of what SFTP version 3 can tell. */
  private static FileTime time(Random random) {
    return FileTime.from(Instant.ofEpochSecond(random.nextInt(Integer.MAX_VALUE)));
  }

  private static void holes(Path path) throws IOException {
    try (FileChannel out =
        FileChannel.open(path, StandardOpenOption.CREATE_NEW, StandardOpenOption.WRITE)) {
      out.write(ByteBuffer.wrap("level".getBytes(UTF_8)), 3 << 20);
      out.write(ByteBuffer.wrap("level".getBytes(UTF_8)), 12 << 20);
      out.write(ByteBuffer.wrap(new byte[1]), (20 << 20) - 1);
    }
    Files.setLastModifiedTime(path, FileTime.from(Instant.ofEpochSecond(1_500_000_000)));
  }

  /** Every entry in order: kind, mode, time, and content or target. */
  static List<String> describe(Path root) throws IOException {
    return describe(root, 0);
  }

  /**
   * @param without bits of modes that are left out
   */
  static List<String> describe(Path root, int without) throws IOException {
    List<String> lines = new ArrayList<>();
    try (Stream<Path> paths = Files.walk(root)) {
      for (Path path : (Iterable<Path>) paths::iterator) {
        Map<String, Object> unix =
            Files.readAttributes(
                path, "unix:mode,size,lastModifiedTime", LinkOption.NOFOLLOW_LINKS);
        int mode = (Integer) unix.get("mode") & ~without;
        String what =
            Files.isSymbolicLink(path)
                ? "-> " + Files.readSymbolicLink(path)
                : ((FileTime) unix.get("lastModifiedTime")).toInstant().getEpochSecond()
                    + (Files.isDirectory(path) ? "" : " " + unix.get("size") + " " + digest(path));
        lines.add(root.relativize(path) + " " + Integer.toOctalString(mode) + " " + what);
      }
    }
    lines.sort(null);
    return lines;
  }

  private static long digest(Path path) throws IOException {
    java.util.zip.CRC32C sum = new java.util.zip.CRC32C();
    try (FileChannel in = FileChannel.open(path)) {
      ByteBuffer buffer = ByteBuffer.allocate(1 << 18);
      while (in.read(buffer) >= 0) {
        sum.update(buffer.flip());
        buffer.clear();
      }
    }
    return sum.getValue();
  }

  static void remove(Path root) throws IOException {
    Files.walkFileTree(
        root,
        new SimpleFileVisitor<>() {
          @Override
          public FileVisitResult visitFile(Path file, BasicFileAttributes attributes)
              throws IOException {
            Files.delete(file);
            return FileVisitResult.CONTINUE;
          }

          @Override
          public FileVisitResult postVisitDirectory(Path folder, IOException failure)
              throws IOException {
            Files.delete(folder);
            return FileVisitResult.CONTINUE;
          }
        });
  }
}
