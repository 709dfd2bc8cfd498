package zander.core.config;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import zander.core.config.ConfigReader.Block;

/**
 * A person's OpenSSH client configuration: which hosts it names, and what holds for each. As with
 * OpenSSH, the first value found for a keyword is the one that counts, and every {@code
 * IdentityFile} counts.
 */
public final class ClientConfig {
  private final List<Block> blocks;
  private final List<String> problems;
  private final Path home;

  private ClientConfig(List<Block> blocks, List<String> problems, Path home) {
    this.blocks = blocks;
    this.problems = List.copyOf(problems);
    this.home = home;
  }

  /**
   * Reads {@code ~/.ssh/config}; one that is not there names no hosts. Waits for the disk.
   *
   * @param home the person's home folder, also for {@code ~} in it
   */
  public static ClientConfig read(Path home) {
    return read(home.resolve(".ssh").resolve("config"), home);
  }

  static ClientConfig read(Path file, Path home) {
    ConfigReader reader = new ConfigReader(home);
    if (java.nio.file.Files.exists(file)) {
      reader.read(file);
    }
    return new ClientConfig(reader.blocks(), reader.problems(), home);
  }

  /** What could not be read, with file and line; empty when all is well. */
  public List<String> problems() {
    return problems;
  }

  /** The names in {@code Host} lines that are no patterns, in their order. */
  public List<String> hosts() {
    Set<String> names = new LinkedHashSet<>();
    for (Block block : blocks) {
      block.patterns().stream().filter(HostPatterns::isPlain).forEach(names::add);
    }
    return List.copyOf(names);
  }

  /**
   * What holds for one host.
   *
   * @param name as a person would type it
   */
  public ConfiguredHost resolve(String name) {
    List<ConfigLine> lines = new ArrayList<>();
    for (Block block : blocks) {
      if (block.appliesTo(name)) {
        lines.addAll(block.lines());
      }
    }
    return ConfiguredHost.of(name, lines, home);
  }
}
