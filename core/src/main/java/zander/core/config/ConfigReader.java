package zander.core.config;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileSystems;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.PathMatcher;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import zander.core.phrase.ConfigPhrase;
import zander.core.phrase.ExplainedException;
import zander.core.phrase.Phrase;
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

  private record Place(Path file, int line) {
    Phrase about(Phrase found) {
      return ConfigPhrase.AT_LINE.of(file, line, found);
    }
  }

  private final LocalSide local;
  private final List<Phrase> problems = new ArrayList<>();

  /** Of {@code IgnoreUnknown}, as far as it was read. */
  private final List<String> ignored = new ArrayList<>();

  private int files;

  ConfigReader(LocalSide local) {
    this.local = local;
  }

  List<Phrase> problems() {
    return problems;
  }

  /** Reads a file; names of others in it, if not absolute, are from its folder. Waits. */
  List<ConfigBlock> read(Path file) {
    BlockingCalls.check("reading an OpenSSH configuration");
    return read(file, file.getParent(), 0);
  }

  private List<ConfigBlock> read(Path file, @Nullable Path base, int depth) {
    List<ConfigBlock> blocks = new ArrayList<>();
    if (depth > DEEPEST) {
      problems.add(ConfigPhrase.IN_FILE.of(file, ConfigPhrase.TOO_DEEP));
      return blocks;
    }
    if (++files > MOST_FILES) {
      if (files == MOST_FILES + 1) {
        problems.add(ConfigPhrase.IN_FILE.of(file, ConfigPhrase.TOO_MANY_FILES.of(MOST_FILES)));
      }
      return blocks;
    }
    List<String> lines;
    try {
      if (Files.size(file) > LARGEST) {
        throw new ExplainedException(ConfigPhrase.TOO_LARGE.of());
      }
      lines = Files.readString(file, StandardCharsets.ISO_8859_1).lines().toList();
    } catch (IOException e) {
      problems.add(ConfigPhrase.IN_FILE.of(file, ConfigPhrase.UNREADABLE.of(Phrase.of(e))));
      return blocks;
    }
    ConfigBlock current = begin(Condition.ALWAYS, blocks);
    for (int number = 1; number <= lines.size(); number++) {
      Place where = new Place(file, number);
      try {
        ConfigLine line = ConfigLine.parse(utf8(lines.get(number - 1))).orElse(null);
        if (line == null) {
          continue;
        }
        switch (line.keyword()) {
          case "host" -> current = begin(new Condition.Hosts(line.arguments()), blocks);
          case "match" -> current = begin(match(line, where), blocks);
          case "include" -> current.items().addAll(include(line, base, depth));
          default -> {
            check(line, where);
            current.items().add(line);
          }
        }
      } catch (IllegalArgumentException e) {
        problems.add(where.about(Phrase.of(e)));
      }
    }
    return blocks;
  }

  private Condition match(ConfigLine line, Place where) {
    try {
      return Condition.Match.of(line.arguments());
    } catch (IllegalArgumentException e) {
      problems.add(where.about(Phrase.of(e)));
      return Condition.NEVER;
    }
  }

  /** OpenSSH ends over a keyword that it does not know. */
  private void check(ConfigLine line, Place where) {
    if (line.keyword().equals("ignoreunknown")) {
      ignored.addAll(Arrays.asList(line.first().toLowerCase(Locale.ROOT).split(",")));
    } else if (Keywords.of(line.keyword()) == null
        && !HostPatterns.match(ignored, line.keyword())) {
      problems.add(where.about(ConfigPhrase.NO_SUCH_KEYWORD.of(line.keyword())));
    }
  }

  private static String utf8(String bytes) {
    return new String(bytes.getBytes(StandardCharsets.ISO_8859_1), StandardCharsets.UTF_8);
  }

  private static ConfigBlock begin(Condition condition, List<ConfigBlock> blocks) {
    ConfigBlock block = new ConfigBlock(condition, new ArrayList<>());
    blocks.add(block);
    return block;
  }

  private List<ConfigBlock.Item> include(ConfigLine line, @Nullable Path base, int depth) {
    List<ConfigBlock.Item> included = new ArrayList<>();
    for (String named : line.arguments()) {
      for (Path file : matching(named, base)) {
        included.add(new ConfigBlock.Included(read(file, base, depth + 1)));
      }
    }
    return included;
  }

  /** Wildcards as in a shell; none matching is no fault. */
  private List<Path> matching(String named, @Nullable Path base) {
    String plain = Tokens.home(named, local).orElse(named);
    Path path = base == null ? Path.of(plain) : base.resolve(plain);
    if (!plain.matches(".*[*?\\[].*")) {
      return Files.exists(path) ? List.of(path) : List.of();
    }
    List<Path> found = List.of(path.getRoot());
    for (Path part : path) {
      found = found.stream().flatMap(folder -> entries(folder, part.toString())).toList();
    }
    return found.stream().filter(Files::isRegularFile).sorted().toList();
  }

  /** As glob(7): wildcards stand in any part, and for no dot at the front of a name. */
  private static Stream<Path> entries(Path folder, String part) {
    if (!part.matches(".*[*?\\[].*")) {
      Path one = folder.resolve(part);
      return Files.exists(one) ? Stream.of(one) : Stream.empty();
    }
    PathMatcher matcher =
        FileSystems.getDefault().getPathMatcher("glob:" + part.replaceAll("[{}]", "\\\\$0"));
    try (Stream<Path> all = Files.list(folder)) {
      return all
          .filter(one -> matcher.matches(one.getFileName()))
          .filter(one -> part.startsWith(".") || !one.getFileName().toString().startsWith("."))
          .toList()
          .stream();
    } catch (IOException e) {
      return Stream.empty();
    }
  }
}
