package zander.desk.transfer;

import com.fasterxml.jackson.core.type.TypeReference;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import java.util.TreeMap;
import zander.core.work.AtomicFile;
import zander.desk.work.Background;

/**
 * Something a person chose for each marked folder, in one file on this computer. Interface thread
 * only.
 */
final class SavedByFolder<T> {
  private static final ObjectMapper JSON = new ObjectMapper();

  private final Path file;
  private final Background background;
  private final Map<String, T> kept = new TreeMap<>();

  /**
   * Reads the file in the background.
   *
   * @param read told when that is done
   */
  SavedByFolder(
      Path file, TypeReference<Map<String, T>> type, Background background, Runnable read) {
    this.file = file;
    this.background = background;
    background.run(
        () -> Files.exists(file) ? JSON.readValue(file.toFile(), type) : Map.<String, T>of(),
        all -> {
          all.forEach(kept::putIfAbsent);
          read.run();
        },
        failure -> {});
  }

  /** {@code null} when nothing was chosen for it. */
  T of(String place) {
    return kept.get(place);
  }

  /**
   * @param chosen {@code null} for nothing any more
   */
  void keep(String place, T chosen) {
    if (chosen == null) {
      kept.remove(place);
    } else {
      kept.put(place, chosen);
    }
    Map<String, T> now = new TreeMap<>(kept);
    background.run(() -> write(now));
  }

  private synchronized void write(Map<String, T> now) {
    try {
      AtomicFile.write(file, JSON.writerWithDefaultPrettyPrinter().writeValueAsBytes(now));
    } catch (IOException e) {
      // It holds until the program ends; nothing of a person's work depends on it.
    }
  }
}
