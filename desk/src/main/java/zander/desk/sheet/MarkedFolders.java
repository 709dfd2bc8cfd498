package zander.desk.sheet;

import java.util.List;
import javafx.beans.property.ReadOnlyLongProperty;
import org.jspecify.annotations.Nullable;
import zander.core.book.MarkedFolder;
import zander.core.files.AccountNames;
import zander.core.files.RemotePath;
import zander.core.kept.KeptFolder;
import zander.core.kept.KeptWish;

/** The folders of a server that the person marked, as its entry has them now. */
public interface MarkedFolders {
  List<MarkedFolder> all();

  /** Those that keep rights. */
  List<KeptFolder> keeping();

  /**
   * Keeps the lines of the rights that a folder keeps; one that is not marked yet is marked.
   *
   * @param lines none to ask nothing of it any more
   */
  void keep(RemotePath folder, List<String> lines, Runnable done);

  /**
   * Shows how entries differ from what the nearest folder above them keeps, as a sheet.
   *
   * @param entries of one folder: these and all that is in them
   */
  void showDifferences(List<RemotePath> entries);

  /** Counts up whenever they are others. */
  ReadOnlyLongProperty changesProperty();

  /** The nearest folder that keeps rights, of those that a path is in; {@code null} for none. */
  default @Nullable KeptFolder keeperOf(RemotePath path) {
    KeptFolder nearest = null;
    for (KeptFolder one : keeping()) {
      boolean deeper =
          nearest == null || one.path().wire().length() > nearest.path().wire().length();
      nearest = deeper && path.chain().contains(one.path()) ? one : nearest;
    }
    return nearest;
  }

  /** What entries should have by those that keep rights; {@code null} when none does. */
  default @Nullable KeptWish wish(AccountNames names) {
    List<KeptFolder> keeping = keeping();
    return keeping.isEmpty() ? null : new KeptWish(keeping, names);
  }
}
