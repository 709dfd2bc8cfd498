package zander.core.config;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import zander.core.phrase.Phrase;

/**
 * An OpenSSH client configuration, a person's and then the computer's: which hosts it names, and
 * what holds for each. As with OpenSSH, the first value found for a keyword is the one that counts,
 * and every {@code IdentityFile} counts.
 */
public final class ClientConfig {
  /** One that says nothing. */
  public static final ClientConfig NONE =
      new ClientConfig(List.of(), List.of(), LocalSide.of(Path.of("/")));

  private static final Path SYSTEM = Path.of("/etc/ssh/ssh_config");

  private final List<ConfigBlock> blocks;
  private final List<Phrase> problems;
  private final LocalSide local;

  private ClientConfig(List<ConfigBlock> blocks, List<Phrase> problems, LocalSide local) {
    this.blocks = blocks;
    this.problems = List.copyOf(problems);
    this.local = local;
  }

  /**
   * Reads {@code ~/.ssh/config}, and after it the computer's own; one that is not there names no
   * hosts. Waits for the disk.
   *
   * @param home the person's home folder, also for {@code ~} in it
   */
  public static ClientConfig read(Path home) {
    return read(home.resolve(".ssh").resolve("config"), SYSTEM, LocalSide.of(home));
  }

  static ClientConfig read(Path file, Path system, LocalSide local) {
    ConfigReader reader = new ConfigReader(local);
    List<ConfigBlock> blocks = new ArrayList<>();
    for (Path one : List.of(file, system)) {
      if (Files.exists(one)) {
        blocks.addAll(reader.read(one));
      }
    }
    return new ClientConfig(blocks, reader.problems(), local);
  }

  /** What could not be read, with file and line; empty when all is well. */
  public List<Phrase> problems() {
    return problems;
  }

  /** The names in {@code Host} lines that are no patterns, in their order. */
  public List<String> hosts() {
    Set<String> names = new LinkedHashSet<>();
    addHosts(blocks, names);
    return List.copyOf(names);
  }

  private static void addHosts(List<ConfigBlock> blocks, Set<String> names) {
    for (ConfigBlock block : blocks) {
      if (block.condition() instanceof Condition.Hosts hosts) {
        hosts.patterns().stream().filter(HostPatterns::isPlain).forEach(names::add);
      }
      for (ConfigBlock.Item item : block.items()) {
        if (item instanceof ConfigBlock.Included included) {
          addHosts(included.blocks(), names);
        }
      }
    }
  }

  /**
   * What holds for one host.
   *
   * @param name as a person would type it
   */
  public ConfiguredHost resolve(String name) {
    return ConfiguredHost.of(Resolution.of(name, blocks, local));
  }

  /** Whether anything is said about a host that is not said about all. */
  public boolean isAbout(String name) {
    return Resolution.of(name, blocks, local).isSpecific();
  }
}
