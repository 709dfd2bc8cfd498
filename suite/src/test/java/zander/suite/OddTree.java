package zander.suite;

import static java.nio.charset.StandardCharsets.UTF_8;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Instant;
import java.util.Random;
import java.util.stream.Stream;

/** A tree with what goes wrong in transfers: odd names, all kinds of modes, old times, links. */
final class OddTree {
  static final int FILES_AND_LINKS = 40 + 9 + 3;

  private OddTree() {}

  static void make(Path root) throws IOException {
    Random random = new Random(20261123);
    Files.createDirectories(root.resolve("deep/er/and/deeper"));
    Files.createDirectory(root.resolve("empty"));
    for (int i = 0; i < 40; i++) {
      byte[] content = new byte[i < 4 ? i : random.nextInt(1 << (i % 18))];
      random.nextBytes(content);
      Path folder = i % 3 == 0 ? root.resolve("deep/er") : root;
      file(folder.resolve("reading-" + i + ".csv"), content, random.nextInt(0400) | 0400, i);
    }
    String[] names = {
      "with space",
      "quote'quote\"",
      "-dash",
      "new\nline",
      "ünï→",
      "$HOME",
      "back\\slash",
      ".hidden",
      "x".repeat(255)
    };
    for (String name : names) {
      file(root.resolve("deep/er/and/deeper").resolve(name), name.getBytes(UTF_8), 0644, 1);
    }
    Files.createSymbolicLink(root.resolve("link"), Path.of("reading-1.csv"));
    Files.createSymbolicLink(root.resolve("broken"), Path.of("/no where"));
    Files.createSymbolicLink(root.resolve("deep/round"), Path.of(".."));
    Files.setAttribute(root.resolve("empty"), "unix:mode", 01755);
    Files.setAttribute(root.resolve("deep/er/and"), "unix:mode", 0555);
    try (Stream<Path> folders = Files.walk(root).filter(Files::isDirectory)) {
      for (Path folder : (Iterable<Path>) folders::iterator) {
        Files.setLastModifiedTime(folder, FileTime.from(Instant.ofEpochSecond(1_000_000_000)));
      }
    }
  }

  private static void file(Path path, byte[] content, int mode, int age) throws IOException {
    Files.write(path, content);
    Files.setLastModifiedTime(
        path, FileTime.from(Instant.ofEpochSecond(1_700_000_000 - age * 86_400L)));
    Files.setAttribute(path, "unix:mode", mode);
  }

  static long bytes(Path root) throws IOException {
    try (Stream<Path> files =
        Files.walk(root).filter(path -> Files.isRegularFile(path) && !Files.isSymbolicLink(path))) {
      return files.mapToLong(path -> path.toFile().length()).sum();
    }
  }
}
