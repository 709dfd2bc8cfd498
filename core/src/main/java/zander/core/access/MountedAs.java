package zander.core.access;

import java.util.Set;
import zander.core.files.RemotePath;

/**
 * How the file system is mounted that something is on.
 *
 * @param at where it is mounted
 * @param options such as {@code ro} and {@code noexec} (mount(8))
 */
public record MountedAs(RemotePath at, Set<String> options) {
  boolean isReadOnly() {
    return options.contains("ro");
  }

  boolean runsNothing() {
    return options.contains("noexec");
  }
}
