package zander.desk.reach;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import zander.core.transfer.endpoint.Sha256;
import zander.core.work.AtomicFile;
import zander.core.work.BlockingCalls;

/**
 * The commands of this computer that somebody has said may be run to reach a server, each as it
 * stands: a changed one is asked about anew. Waits for the disk; for any thread.
 */
final class AllowedCommands {
  private final Path file;
  private @Nullable Set<String> commands;

  AllowedCommands(Path file) {
    this.file = file;
  }

  synchronized boolean has(String command) {
    return all().contains(line(command));
  }

  /** A file that cannot be written is no reason not to go on: it is asked again another day. */
  synchronized void add(String command) {
    all().add(line(command));
    try {
      String text = all().stream().sorted().map(one -> one + "\n").collect(Collectors.joining());
      AtomicFile.write(file, text.getBytes(StandardCharsets.UTF_8));
    } catch (IOException e) {
      // It holds for this run.
    }
  }

  private Set<String> all() {
    if (commands == null) {
      BlockingCalls.check("reading the allowed commands");
      commands = new HashSet<>(read());
    }
    return commands;
  }

  private List<String> read() {
    try {
      return Files.exists(file) ? Files.readAllLines(file) : List.of();
    } catch (IOException e) {
      return List.of();
    }
  }

  /** Not the command itself, in which there may be a secret. */
  private static String line(String command) {
    return Sha256.of(command.getBytes(StandardCharsets.UTF_8));
  }
}
