package zander.desk.folder;

import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import zander.core.files.FileKind;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteEntry;
import zander.core.transfer.endpoint.TreeEntry;
import zander.core.transfer.rules.Comparison;

/** The entries of the server's folder that this computer's rows are compared with. */
public final class OtherSide {
  public static final OtherSide NONE = new OtherSide(null, List.of());

  private final @Nullable String name;
  private final List<RemoteEntry> entries;
  private @Nullable Map<String, RemoteEntry> byName;

  /**
   * @param name of the folder; {@code null} while none is shown
   * @param entries not changed any more
   */
  public OtherSide(@Nullable String name, List<RemoteEntry> entries) {
    this.name = name;
    this.entries = entries;
  }

  public int size() {
    return entries.size();
  }

  /** Folders of different names are not copies of each other: comparing them says nothing. */
  public boolean isPartnerOf(Path folder) {
    Path here = folder == null ? null : folder.getFileName();
    return here != null && here.toString().equals(name);
  }

  /** How a file here compares with the one of its name there; on any thread. */
  public @Nullable Comparison compare(TreeEntry here) {
    if (name == null) {
      return null;
    }
    RemoteEntry there = byName().get(here.name());
    if (there != null && here.kind() == FileKind.FOLDER && there.kind() == FileKind.FOLDER) {
      return null;
    }
    return Comparison.of(here, there == null ? null : entry(there));
  }

  private static TreeEntry entry(RemoteEntry there) {
    RemoteAttributes is = there.attributes();
    return new TreeEntry(
        there.path().wireName(),
        is.kind(),
        is.size(),
        is.modified(),
        is.mode(),
        is.kind() == FileKind.LINK && there.target() == null ? "" : there.target(),
        "");
  }

  private synchronized Map<String, RemoteEntry> byName() {
    if (byName == null) {
      byName = new HashMap<>();
      entries.forEach(entry -> byName.put(entry.path().wireName(), entry));
    }
    return byName;
  }
}
