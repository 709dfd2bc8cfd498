package zander.suite;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Instant;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import java.util.stream.Stream;

/** A small tree in two versions: one that is there in part, and one that is to take its place. */
final class TwoVersions {
  private TwoVersions() {}

  /** Files of some sizes; each version has other bytes and times. */
  static void make(Path tree, int version) throws IOException {
    Random random = new Random(version);
    Files.createDirectories(tree.resolve("deep/er"));
    for (int i = 0; i < 90; i++) {
      byte[] content = new byte[i == 7 || i == 60 ? 1_200_000 : random.nextInt(20_000)];
      random.nextBytes(content);
      Path file = tree.resolve((i % 3 == 0 ? "deep/er/" : "") + "reading-" + i);
      Files.write(file, content);
      Files.setLastModifiedTime(
          file, FileTime.from(Instant.ofEpochSecond(1_000_000_000L * version + i)));
    }
  }

  /** What is there before: some of the files in an older version. */
  static void makeOld(Path goal) throws IOException {
    make(goal.resolve("tree"), 0);
    for (int i = 0; i < 90; i += 2) {
      Files.deleteIfExists(goal.resolve("tree/deep/er/reading-" + i));
      Files.deleteIfExists(goal.resolve("tree/reading-" + i));
    }
    Files.setAttribute(goal.resolve("tree"), "unix:mode", 0755);
  }

  static void assertOnlyWholeFiles(Path goal, Path old, Path whole) throws IOException {
    try (Stream<Path> paths = Files.walk(goal)) {
      for (Path path : (Iterable<Path>) paths.filter(Files::isRegularFile)::iterator) {
        if (!path.getFileName().toString().contains(".zander-")) {
          String name = goal.relativize(path).toString();
          byte[] is = Files.readAllBytes(path);
          boolean one =
              Arrays.equals(is, Files.readAllBytes(whole.resolve(name)))
                  || (Files.exists(old.resolve(name))
                      && Arrays.equals(is, Files.readAllBytes(old.resolve(name))));
          assertThat(one).as("%s is whole", name).isTrue();
        }
      }
    }
  }

  static List<String> temporary(Path goal) throws IOException {
    try (Stream<Path> paths = Files.walk(goal)) {
      return paths.map(Path::toString).filter(name -> name.contains(".zander-")).toList();
    }
  }

  /** Files with their modes, times and bytes; folders that were there keep their own. */
  static List<String> contents(Path tree) throws IOException {
    return LargeTree.describe(tree).stream().filter(line -> line.contains("reading-")).toList();
  }
}
