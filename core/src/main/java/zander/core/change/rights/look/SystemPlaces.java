package zander.core.change.rights.look;

import java.util.Set;
import org.jspecify.annotations.Nullable;
import zander.core.files.RemotePath;

/**
 * Folders whose rights the system itself or all accounts depend on (hier(7)): a change of all that
 * is in one is seldom meant.
 */
public final class SystemPlaces {
  private static final Set<String> ALL =
      Set.of(
          "/",
          "/bin",
          "/boot",
          "/dev",
          "/etc",
          "/home",
          "/lib",
          "/lib64",
          "/opt",
          "/proc",
          "/root",
          "/run",
          "/sbin",
          "/srv",
          "/sys",
          "/usr",
          "/usr/bin",
          "/usr/lib",
          "/usr/local",
          "/usr/sbin",
          "/usr/share",
          "/var",
          "/var/lib",
          "/var/log",
          "/var/spool",
          "/tmp");

  private SystemPlaces() {}

  /** The first of them that is one, or somebody's home folder; {@code null} for none. */
  public static @Nullable RemotePath among(TreeRoots roots) {
    return roots.entries().stream().filter(SystemPlaces::isOne).findFirst().orElse(null);
  }

  private static boolean isOne(RemotePath path) {
    return ALL.contains(path.wire()) || path.parent().wire().equals("/home");
  }
}
