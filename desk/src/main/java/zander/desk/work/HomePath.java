package zander.desk.work;

import java.nio.file.Path;

/** Paths of this computer as people write them: from the home folder on. */
public final class HomePath {
  private HomePath() {}

  public static String shown(Path path, Path home) {
    if (!path.startsWith(home)) {
      return path.toString();
    }
    return path.equals(home) ? "~" : "~/" + home.relativize(path);
  }
}
