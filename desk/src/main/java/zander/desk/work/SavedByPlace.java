package zander.desk.work;

import com.fasterxml.jackson.core.type.TypeReference;
import java.nio.file.Path;
import java.util.Map;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;

/**
 * Something a person chose for each place of a server, in one file on this computer. Interface
 * thread only.
 */
public final class SavedByPlace<T> {
  private final KeptFile<Map<String, T>> file;
  private final Background background;
  private final Map<String, T> kept = new TreeMap<>();

  /**
   * Reads the file in the background.
   *
   * @param read told when that is done
   */
  public SavedByPlace(
      Path file, TypeReference<Map<String, T>> type, Background background, Runnable read) {
    this.file = new KeptFile<>(file, type, Map.of());
    this.background = background;
    background.run(
        this.file::read,
        all -> {
          all.forEach(kept::putIfAbsent);
          read.run();
        },
        failure -> {});
  }

  /** All that was chosen, by its place. */
  public Map<String, T> all() {
    return Map.copyOf(kept);
  }

  /** {@code null} when nothing was chosen for it. */
  public @Nullable T of(String place) {
    return kept.get(place);
  }

  /**
   * @param chosen {@code null} for nothing any more
   */
  public void keep(String place, @Nullable T chosen) {
    if (chosen == null) {
      kept.remove(place);
    } else {
      kept.put(place, chosen);
    }
    file.writeSoon(new TreeMap<>(kept), background);
  }
}
