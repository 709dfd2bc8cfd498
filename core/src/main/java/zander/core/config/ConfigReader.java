package zander.core.config;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileSystems;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.PathMatcher;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import zander.core.work.BlockingCalls;

/**
 * Reads a configuration and what it includes into blocks, in the order of the lines. A line that
 * cannot be read is told and left out, and so is the block of a condition that is not understood:
 * the rest still counts.
 */
final class ConfigReader {
  /** As deep as OpenSSH follows includes. */
  private static final int DEEPEST = 16;

  private static final long LARGEST = 4 << 20;

  /**
   * Files that include several others, each of which does so again, are read as often as there are
   * ways to them: sixteen deep, that is without end.
   */
  private static final int MOST_FILES = 1000;

  private final Path home;
  private final List<Block> blocks = new ArrayList<>();
  private final List<String> problems = new ArrayList<>();
  private int files;

  /**
   * @param patterns of {@code Host}; empty for a block that never applies
   * @param nested the conditions of the blocks that the file was included from
   */
  record Block(List<String> patterns, List<Block> nested, List<ConfigLine> lines) {
    boolean appliesTo(String name) {
      return HostPatterns.match(patterns, name)
          && nested.stream().allMatch(outer -> HostPatterns.match(outer.patterns, name));
    }
  }

  ConfigReader(Path home) {
    this.home = home;
  }

  List<Block> blocks() {
    return blocks;
  }

  List<String> problems() {
    return problems;
  }

  void read(Path file) {
    BlockingCalls.check("reading an OpenSSH configuration");
    read(file, List.of(), 0);
  }

  private void read(Path file, List<Block> outer, int depth) {
    if (depth > DEEPEST) {
      problems.add(file + ": included too deep, or in a circle");
      return;
    }
    if (++files > MOST_FILES) {
      if (files == MOST_FILES + 1) {
        problems.add(file + ": more than " + MOST_FILES + " files are included, or in a circle");
      }
      return;
    }
    List<String> lines;
    try {
      if (Files.size(file) > LARGEST) {
        throw new IOException("larger than any configuration");
      }
      lines = Files.readString(file, StandardCharsets.ISO_8859_1).lines().toList();
    } catch (IOException e) {
      problems.add(file + ": cannot be read: " + e.getMessage());
      return;
    }
    Block current = begin(List.of("*"), outer);
    for (int number = 1; number <= lines.size(); number++) {
      try {
        ConfigLine line = ConfigLine.parse(utf8(lines.get(number - 1))).orElse(null);
        if (line == null) {
          continue;
        }
        switch (line.keyword()) {
          case "host" -> current = begin(line.arguments(), outer);
          case "match" -> {
            boolean always = line.arguments().equals(List.of("all"));
            current = begin(always ? List.of("*") : List.of(), outer);
            if (!always) {
              problems.add(file + " line " + number + ": this Match block is left out");
            }
          }
          case "include" -> {
            include(line, outer, current, depth);
            current = begin(current.patterns(), outer);
          }
          default -> current.lines().add(line);
        }
      } catch (IllegalArgumentException e) {
        problems.add(file + " line " + number + ": " + e.getMessage());
      }
    }
  }

  private static String utf8(String bytes) {
    return new String(bytes.getBytes(StandardCharsets.ISO_8859_1), StandardCharsets.UTF_8);
  }

  private Block begin(List<String> patterns, List<Block> outer) {
    Block block = new Block(patterns, outer, new ArrayList<>());
    blocks.add(block);
    return block;
  }

  private void include(ConfigLine line, List<Block> outer, Block inside, int depth) {
    List<Block> around = new ArrayList<>(outer);
    around.add(inside);
    for (String named : line.arguments()) {
      for (Path file : matching(named)) {
        read(file, around, depth + 1);
      }
    }
  }

  /** Relative names are from {@code ~/.ssh}; wildcards as in a shell; none matching is no fault. */
  private List<Path> matching(String named) {
    String plain = named.startsWith("~/") ? home + named.substring(1) : named;
    Path path = home.resolve(".ssh").resolve(plain);
    if (!plain.matches(".*[*?\\[].*")) {
      return Files.exists(path) ? List.of(path) : List.of();
    }
    Path folder = path.getParent();
    PathMatcher matcher = FileSystems.getDefault().getPathMatcher("glob:" + path.getFileName());
    try (Stream<Path> all = Files.list(folder)) {
      return all.filter(one -> matcher.matches(one.getFileName())).sorted().toList();
    } catch (IOException e) {
      return List.of();
    }
  }
}
