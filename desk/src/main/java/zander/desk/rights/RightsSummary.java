package zander.desk.rights;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteEntry;
import zander.core.files.RemotePath;
import zander.core.rights.Mode;

/**
 * What the rights of a selection amount to; made on any thread.
 *
 * @param modes of each entry, in their order
 * @param distinct the same, each once
 * @param samePaths whether the same was selected before
 */
record RightsSummary(
    List<RemoteEntry> entries,
    List<Mode> modes,
    Set<Mode> distinct,
    Set<Integer> uids,
    Set<Integer> gids,
    boolean samePaths) {

  static RightsSummary of(List<RemoteEntry> before, List<RemoteEntry> now) {
    Set<Integer> uids = new HashSet<>();
    Set<Integer> gids = new HashSet<>();
    List<Mode> modes = new ArrayList<>(now.size());
    for (RemoteEntry entry : now) {
      RemoteAttributes is = real(entry);
      modes.add(is.mode());
      uids.add(is.uid());
      gids.add(is.gid());
    }
    boolean samePaths = before.size() == now.size() && paths(before).equals(paths(now));
    return new RightsSummary(List.copyOf(now), modes, new HashSet<>(modes), uids, gids, samePaths);
  }

  private static List<RemotePath> paths(List<RemoteEntry> entries) {
    return entries.stream().map(RemoteEntry::path).toList();
  }

  /** Rights are those of what a link leads to, because that is what a change would reach. */
  static RemoteAttributes real(RemoteEntry entry) {
    return entry.behind() == null ? entry.attributes() : entry.behind();
  }
}
