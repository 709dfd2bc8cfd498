package zander.desk.work;

import com.fasterxml.jackson.core.type.TypeReference;
import com.fasterxml.jackson.databind.DeserializationFeature;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.concurrent.atomic.AtomicReference;
import org.jspecify.annotations.Nullable;
import zander.core.work.AtomicFile;
import zander.core.work.BlockingCalls;
import zander.core.work.UnknownFields;

/**
 * What a person chose, in a JSON file on this computer. What this version does not know in it stays
 * in it; a file that cannot be read is put aside before it is written over. Waits for the disk;
 * safe for several threads.
 */
public final class KeptFile<T> {
  private static final ObjectMapper JSON =
      new ObjectMapper()
          .disable(DeserializationFeature.FAIL_ON_UNKNOWN_PROPERTIES)
          .enable(DeserializationFeature.READ_UNKNOWN_ENUM_VALUES_AS_NULL);

  private final Path file;
  private final TypeReference<T> type;
  private final T usual;

  /** What is to be written, and for which somebody is under way. */
  private final AtomicReference<T> next = new AtomicReference<>();

  /**
   * @param usual what holds where there is no file
   */
  public KeptFile(Path file, TypeReference<T> type, T usual) {
    this.file = file;
    this.type = type;
    this.usual = usual;
  }

  /**
   * @throws IOException when the file cannot be read or is damaged
   */
  public synchronized T read() throws IOException {
    BlockingCalls.check("reading what was chosen");
    return understood(tree());
  }

  private T understood(@Nullable JsonNode tree) throws IOException {
    T read = tree == null ? null : JSON.readValue(JSON.treeAsTokens(tree), type);
    return read == null ? usual : read;
  }

  private @Nullable JsonNode tree() throws IOException {
    return Files.exists(file) ? JSON.readTree(file.toFile()) : null;
  }

  /**
   * The same in the background, from any thread. Of several that follow each other the last is
   * written, and none that a later one has outdated; while something is dragged that is one for
   * many.
   */
  public void writeSoon(T chosen, Background background) {
    if (next.getAndSet(chosen) == null) {
      background.run(this::writeNext);
    }
  }

  private synchronized void writeNext() {
    // Taken under the lock: who comes later writes later.
    write(next.getAndSet(null));
  }

  /** What cannot be written holds until the program ends; nothing of a person's depends on it. */
  public synchronized void write(T chosen) {
    BlockingCalls.check("writing down what was chosen");
    try {
      JsonNode now = JSON.valueToTree(chosen);
      try {
        JsonNode before = tree();
        UnknownFields.keep(before, JSON.valueToTree(understood(before)), now);
      } catch (IOException e) {
        AtomicFile.putAside(file);
      }
      AtomicFile.write(file, JSON.writerWithDefaultPrettyPrinter().writeValueAsBytes(now));
    } catch (IOException e) {
      // See above.
    }
  }
}
