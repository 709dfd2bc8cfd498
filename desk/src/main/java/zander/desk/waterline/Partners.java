package zander.desk.waterline;

import java.nio.file.Path;
import java.util.Comparator;
import java.util.List;
import java.util.function.Predicate;
import org.jspecify.annotations.Nullable;
import zander.core.book.MarkedFolder;
import zander.core.files.RemotePath;
import zander.core.files.WireName;

/**
 * Where a server's files belong on this computer, as its marked folders say.
 *
 * @param marked the marked folders of the server
 * @param personHome what their folders here are relative to
 */
record Partners(List<MarkedFolder> marked, Path personHome) {

  /** The marked folder that a folder is in, the nearest of those; {@code null} for none. */
  @Nullable MarkedFolder nearest(RemotePath folder, Predicate<MarkedFolder> which) {
    return marked.stream()
        .filter(which)
        .filter(one -> folder.chain().contains(RemotePath.of(one.path())))
        .max(Comparator.comparingInt(one -> one.path().length()))
        .orElse(null);
  }

  /**
   * The folder on this computer that goes with one of the server.
   *
   * @return {@code null} when no marked folder above it has one
   */
  @Nullable Path of(RemotePath folder) {
    MarkedFolder nearest = nearest(folder, one -> one.local() != null);
    if (nearest == null) {
      return null;
    }
    List<RemotePath> chain = folder.chain();
    Path at = personHome.resolve(nearest.local());
    for (int i = chain.indexOf(RemotePath.of(nearest.path())) + 1; i < chain.size(); i++) {
      if (!WireName.isUtf8(chain.get(i).wireName())) {
        return null;
      }
      at = at.resolve(chain.get(i).name());
    }
    return at;
  }
}
