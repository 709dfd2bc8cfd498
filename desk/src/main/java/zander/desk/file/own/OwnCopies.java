package zander.desk.file.own;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.DirectoryStream;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import zander.core.files.RemotePath;
import zander.core.work.AtomicFile;
import zander.core.work.BlockingCalls;

/**
 * The private copies of one server's files on this computer: each in a folder of its own that only
 * this person may enter, with what it is a copy of beside it. They outlive a program that is
 * killed. Waits for the disk; several threads may use it.
 */
public final class OwnCopies {
  private static final ObjectMapper JSON = new ObjectMapper();
  private static final String ABOUT = "about.json";
  private static final int LONGEST_NAME = 100;

  private final Path folder;

  /** Those of this program that are open now, on all desks. */
  private static final Set<Path> OPEN = ConcurrentHashMap.newKeySet();

  public OwnCopies(Path folder) {
    this.folder = folder;
  }

  /**
   * A copy.
   *
   * @param file where it is
   * @param of the file on the server
   * @param digest of the server's version that it came from
   * @param program what it is open in, as it was typed
   */
  public record Copy(Path file, RemotePath of, String digest, String program) {}

  /** Makes one for a program that is started then. */
  synchronized Copy make(RemotePath of, byte[] content, String digest, String program)
      throws IOException {
    BlockingCalls.check("making a copy");
    Files.createDirectories(
        folder, PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rwx------")));
    // Made with the same mode, and a name that nobody knows before.
    Path own = Files.createTempDirectory(folder, "");
    Copy copy = new Copy(own.resolve(nameFor(of)), of, digest, program);
    AtomicFile.write(copy.file(), content);
    about(copy);
    OPEN.add(own);
    return copy;
  }

  /** As the file is called, so that a program knows its kind, but nothing that could mislead it. */
  private static String nameFor(RemotePath of) {
    String name = of.name().replaceAll("[^\\p{L}\\p{N}._ -]", "_");
    String cut = name.substring(Math.max(0, name.length() - LONGEST_NAME));
    return cut.equals(ABOUT) || cut.isBlank() || cut.matches("\\.*") ? "copy-" + cut : cut;
  }

  private void about(Copy copy) throws IOException {
    var node = JSON.createObjectNode();
    node.put("path", copy.of().wire())
        .put("digest", copy.digest())
        .put("program", copy.program())
        .put("name", copy.file().getFileName().toString())
        .put("process", ProcessHandle.current().pid());
    AtomicFile.write(copy.file().resolveSibling(ABOUT), JSON.writeValueAsBytes(node));
  }

  /** The server has what is in it, as another version. */
  synchronized Copy isOf(Copy copy, String digest) throws IOException {
    Copy now = new Copy(copy.file(), copy.of(), digest, copy.program());
    about(now);
    return now;
  }

  /** It is open in this program now, as those are that it made. */
  synchronized void take(Copy copy) throws IOException {
    OPEN.add(copy.file().getParent());
    about(copy);
  }

  /** Nothing is open in it any more; it stays where it is. */
  void leave(Copy copy) {
    OPEN.remove(copy.file().getParent());
  }

  /** Takes it away. */
  synchronized void remove(Copy copy) throws IOException {
    BlockingCalls.check("removing a copy");
    leave(copy);
    try (Stream<Path> all = Files.walk(copy.file().getParent())) {
      for (Path each : all.sorted(Comparator.reverseOrder()).toList()) {
        Files.deleteIfExists(each);
      }
    } catch (NoSuchFileException e) {
      // It is gone already.
    } catch (UncheckedIOException e) {
      throw e.getCause();
    }
  }

  /** Those that a program left which runs no more; one that cannot be read is left where it is. */
  synchronized List<Copy> left() throws IOException {
    List<Copy> left = new ArrayList<>();
    if (!Files.isDirectory(folder)) {
      return left;
    }
    try (DirectoryStream<Path> all = Files.newDirectoryStream(folder)) {
      for (Path own : all) {
        Copy copy = OPEN.contains(own) ? null : read(own);
        if (copy != null) {
          left.add(copy);
        }
      }
    }
    left.sort(Comparator.comparing(copy -> copy.of().wire()));
    return left;
  }

  /** Null for what is none, and for one of another program that runs. */
  private static @Nullable Copy read(Path own) {
    try {
      JsonNode node = JSON.readTree(own.resolve(ABOUT).toFile());
      long process = node.path("process").asLong();
      boolean isOthers =
          process != ProcessHandle.current().pid()
              && ProcessHandle.of(process)
                  .flatMap(found -> found.info().command())
                  .equals(ProcessHandle.current().info().command());
      Path file = own.resolve(node.path("name").asText()).normalize();
      boolean isInside = own.equals(file.getParent()) && Files.isRegularFile(file);
      return isOthers || !isInside
          ? null
          : new Copy(
              file,
              RemotePath.ofWire(node.path("path").asText()),
              node.path("digest").asText(),
              node.path("program").asText());
    } catch (IOException | IllegalArgumentException e) {
      return null;
    }
  }
}
