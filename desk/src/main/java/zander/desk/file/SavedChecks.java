package zander.desk.file;

import com.fasterxml.jackson.core.type.TypeReference;
import java.nio.file.Path;
import zander.core.files.RemotePath;
import zander.desk.work.Background;
import zander.desk.work.SavedByPlace;

/**
 * The command that a person chose to look at the new content of a file before each save, for each
 * file of each server. Interface thread only.
 */
public final class SavedChecks {
  private final SavedByPlace<String> commands;

  /**
   * Reads its file in the background.
   *
   * @param file on this computer
   */
  public SavedChecks(Path file, Background background) {
    commands = new SavedByPlace<>(file, new TypeReference<>() {}, background, () -> {});
  }

  /** Empty for none; {@code null} where nothing was chosen. */
  String of(String server, RemotePath path) {
    return commands.of(place(server, path));
  }

  /**
   * @param command empty for none
   */
  void keep(String server, RemotePath path, String command) {
    commands.keep(place(server, path), command);
  }

  private static String place(String server, RemotePath path) {
    return server + path.wire();
  }
}
