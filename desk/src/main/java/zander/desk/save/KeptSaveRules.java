package zander.desk.save;

import com.fasterxml.jackson.core.type.TypeReference;
import java.nio.file.Path;
import org.jspecify.annotations.Nullable;
import zander.core.files.RemotePath;
import zander.desk.work.Background;
import zander.desk.work.SavedByPlace;

/**
 * What a person chose to go with the saves of a file, for each file of each server. Interface
 * thread only.
 */
public final class KeptSaveRules {
  private final SavedByPlace<SaveRules> rules;

  /**
   * Reads its file in the background.
   *
   * @param file on this computer
   */
  public KeptSaveRules(Path file, Background background) {
    rules = new SavedByPlace<>(file, new TypeReference<>() {}, background, () -> {});
  }

  /** {@code null} where nothing was chosen. */
  @Nullable SaveRules of(String server, RemotePath path) {
    return rules.of(place(server, path));
  }

  void keep(String server, RemotePath path, SaveRules chosen) {
    rules.keep(place(server, path), chosen);
  }

  private static String place(String server, RemotePath path) {
    return server + path.wire();
  }
}
