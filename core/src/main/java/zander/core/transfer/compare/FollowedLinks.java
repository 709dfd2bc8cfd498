package zander.core.transfer.compare;

import java.io.IOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import zander.core.files.FileKind;
import zander.core.phrase.Phrase;
import zander.core.phrase.TransferPhrase;
import zander.core.transfer.endpoint.Endpoint;
import zander.core.transfer.endpoint.TreeEntry;

/** Links that stand for what they lead to, asked about together for each folder. */
public final class FollowedLinks {
  /** A chain of links to folders that is longer leads round. */
  public static final int MOST = 8;

  private FollowedLinks() {}

  /** Whether a link is followed. */
  @FunctionalInterface
  public interface Rule {
    boolean follows(String path, TreeEntry node);
  }

  /**
   * What the followed links of a folder lead to.
   *
   * @return by the links' names; {@code null} for one that leads nowhere
   */
  public static Map<String, TreeEntry> of(
      Endpoint source, String folder, List<TreeEntry> nodes, Rule rule) throws IOException {
    List<String> names = new ArrayList<>();
    List<String> paths = new ArrayList<>();
    for (TreeEntry node : nodes) {
      String path = Endpoint.join(folder, node.name());
      if (node.kind() == FileKind.LINK && rule.follows(path, node)) {
        names.add(node.name());
        paths.add(path);
      }
    }
    if (paths.isEmpty()) {
      return Map.of();
    }
    List<TreeEntry> found = source.lookThroughAll(paths);
    Map<String, TreeEntry> behind = new HashMap<>();
    for (int i = 0; i < names.size(); i++) {
      behind.put(names.get(i), found.get(i));
    }
    return behind;
  }

  /**
   * Why a link cannot be followed.
   *
   * @param behind {@code null} for nothing
   * @param links how many followed links lead to the folder it is in
   * @return {@code null} when it can be followed
   */
  public static @Nullable Phrase whyNot(@Nullable TreeEntry behind, int links) {
    if (behind == null) {
      return TransferPhrase.LEADS_NOWHERE.of();
    }
    return FolderPairs.isFolder(behind) && links >= MOST ? TransferPhrase.LEADS_ROUND.of() : null;
  }
}
