package zander.core.transfer.resume;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import zander.core.transfer.compare.FolderPairs;
import zander.core.transfer.compare.TreePairWalk;
import zander.core.transfer.endpoint.PartialNames;
import zander.core.transfer.endpoint.Target;
import zander.core.transfer.endpoint.TreeEntry;
import zander.core.work.Cancellation;

/** Finds and takes away the temporary files that a broken transfer left on its target. */
public final class LeftoverFiles {
  private LeftoverFiles() {}

  /**
   * Looks through the trees that were to arrive, and the folder that they were to arrive in. Waits.
   *
   * @param names of the transfer, in wire form
   * @return how many were taken away
   */
  public static int remove(
      Target target, List<String> names, PartialNames marked, Cancellation stop)
      throws IOException {
    List<String> found = new ArrayList<>();
    for (TreeEntry node : target.list("")) {
      if (marked.isOne(node.name())) {
        found.add(node.name());
      }
    }
    // Both sides are the same here: what only the target has would not be gone into.
    new TreePairWalk(target, target, stop)
        .walk(
            names,
            new TreePairWalk.Visitor() {
              @Override
              public boolean pair(
                  String path,
                  @Nullable TreeEntry node,
                  @Nullable TreeEntry there,
                  boolean followed) {
                if (node != null && !FolderPairs.isFolder(node) && marked.isOne(node.name())) {
                  found.add(path);
                }
                return true;
              }

              @Override
              public void unreadable(String path, IOException why) {
                // What cannot be read could not be written either.
              }
            });
    for (String path : found) {
      target.remove(path);
    }
    return found.size();
  }
}
