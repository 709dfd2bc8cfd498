package zander.desk.transfer;

import com.fasterxml.jackson.core.type.TypeReference;
import java.nio.file.Path;
import java.util.Map;
import java.util.TreeMap;
import zander.desk.work.Background;
import zander.desk.work.KeptFile;

/**
 * Something a person chose for each marked folder, in one file on this computer. Interface thread
 * only.
 */
final class SavedByFolder<T> {
  private final KeptFile<Map<String, T>> file;
  private final Background background;
  private final Map<String, T> kept = new TreeMap<>();

  /**
   * Reads the file in the background.
   *
   * @param read told when that is done
   */
  SavedByFolder(
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
    file.writeSoon(new TreeMap<>(kept), background);
  }
}
