package zander.core.local;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.InvalidPathException;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.util.Map;
import java.util.Objects;
import java.util.OptionalInt;
import org.jspecify.annotations.Nullable;
import zander.core.files.RemotePath;
import zander.core.files.WireName;
import zander.core.rights.Mode;
import zander.core.rights.ModeRule;
import zander.core.rights.RightsWish;
import zander.core.rights.TreeRights;

/**
 * Modes as the entries of the same names below a folder of this computer have them. Links are not
 * followed; what is not there, or is another kind of thing, says nothing. Waits for the disk.
 */
public final class LocalModes implements RightsWish {
  private static final int TYPE = 0170000;
  private static final int FOLDER = 0040000;
  private static final int FILE = 0100000;

  private final String there;
  private final Path here;

  /**
   * @param there the folder of the server
   * @param here the folder of this computer that goes with it
   */
  public LocalModes(RemotePath there, Path here) {
    this.there = there.isRoot() ? "" : there.wire();
    this.here = here;
  }

  @Override
  public @Nullable TreeRights of(String path, boolean folder) {
    Path file = fileOf(path);
    if (file == null) {
      return null;
    }
    try {
      Map<String, Object> is = Files.readAttributes(file, "unix:mode", LinkOption.NOFOLLOW_LINKS);
      int mode = (Integer) Objects.requireNonNull(is.get("mode"));
      if ((mode & TYPE) != (folder ? FOLDER : FILE)) {
        return null;
      }
      ModeRule rule = new ModeRule.Exact(new Mode(mode & 07777), false);
      return new TreeRights(OptionalInt.empty(), OptionalInt.empty(), rule, rule);
    } catch (IOException e) {
      return null;
    }
  }

  private @Nullable Path fileOf(String path) {
    if (path.equals(there)) {
      return here;
    }
    if (!path.startsWith(there + "/") || !WireName.isUtf8(path)) {
      return null;
    }
    String below = path.substring(there.length() + 1);
    String text = WireName.toText(below);
    try {
      // A name that is shown otherwise than it is has no partner that could be found by it.
      return WireName.fromText(text).equals(below) ? here.resolve(text) : null;
    } catch (InvalidPathException e) {
      return null;
    }
  }
}
