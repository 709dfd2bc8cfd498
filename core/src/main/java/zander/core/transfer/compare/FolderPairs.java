package zander.core.transfer.compare;

import java.io.IOException;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import zander.core.files.FileKind;
import zander.core.transfer.endpoint.Endpoint;
import zander.core.transfer.endpoint.TreeEntry;

/**
 * The entries of one folder on both sides.
 *
 * @param both what the source has, by name, with what the target has there
 * @param onlyThere what only the target has; empty when that was not asked for
 */
public record FolderPairs(List<Pair> both, List<TreeEntry> onlyThere) {
  /** So many names are looked at one by one rather than listing a folder that may be huge. */
  private static final int FEW = 48;

  /**
   * @param there {@code null} for nothing
   */
  public record Pair(TreeEntry node, @Nullable TreeEntry there) {}

  /**
   * @param children of the source's folder
   * @param to the target's folder; {@code null} when it is not there
   * @param all whether what only the target has is wanted
   */
  public static FolderPairs of(
      List<TreeEntry> children, Endpoint target, @Nullable String to, boolean all)
      throws IOException {
    List<TreeEntry> sorted = new ArrayList<>(children);
    sorted.sort(Comparator.comparing(TreeEntry::name));
    Map<String, TreeEntry> there = new HashMap<>();
    if (to != null && (all || children.size() > FEW)) {
      target.list(to).forEach(node -> there.put(node.name(), node));
    } else if (to != null) {
      List<String> paths = sorted.stream().map(node -> Endpoint.join(to, node.name())).toList();
      List<TreeEntry> found = target.lookAll(paths);
      for (int i = 0; i < sorted.size(); i++) {
        if (found.get(i) != null) {
          there.put(sorted.get(i).name(), found.get(i));
        }
      }
    }
    List<Pair> both = new ArrayList<>(sorted.size());
    for (TreeEntry node : sorted) {
      both.add(new Pair(node, there.remove(node.name())));
    }
    List<TreeEntry> only = new ArrayList<>(there.values());
    only.sort(Comparator.comparing(TreeEntry::name));
    return new FolderPairs(both, all ? only : List.of());
  }

  public static boolean isFolder(@Nullable TreeEntry node) {
    return node != null && node.kind() == FileKind.FOLDER;
  }
}
