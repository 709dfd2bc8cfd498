package zander.desk.work;

import java.nio.file.Path;
import org.jspecify.annotations.Nullable;

/** Paths of this computer as people write them: from the home folder on. */
public final class HomePath {
  private HomePath() {}

  public static String shown(Path path, @Nullable Path home) {
    if (home == null || !path.startsWith(home)) {
      return path.toString();
    }
    return path.equals(home) ? "~" : "~/" + home.relativize(path);
  }
}
