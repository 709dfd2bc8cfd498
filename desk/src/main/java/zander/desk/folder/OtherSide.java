package zander.desk.folder;

import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import zander.core.files.FileKind;
import zander.core.files.RemoteEntry;
import zander.core.transfer.endpoint.TreeEntry;
import zander.desk.folder.LocalRow.Standing;

/** The entries of the server's folder that this computer's rows are compared with. */
final class OtherSide {
  static final OtherSide NONE = new OtherSide(null, List.of());

  /** Times on some file systems are kept in steps of two seconds. */
  private static final long SAME_TIME = 2;

  private final String name;
  private final List<RemoteEntry> entries;
  private Map<String, RemoteEntry> byName;

  /**
   * @param name of the folder; {@code null} while none is shown
   * @param entries not changed any more
   */
  OtherSide(String name, List<RemoteEntry> entries) {
    this.name = name;
    this.entries = entries;
  }

  int size() {
    return entries.size();
  }

  /** Folders of different names are not copies of each other: comparing them says nothing. */
  boolean isPartnerOf(Path folder) {
    Path here = folder == null ? null : folder.getFileName();
    return here != null && here.toString().equals(name);
  }

  /** How an entry here stands against the one of its name there; on any thread. */
  Standing standing(TreeEntry here) {
    if (name == null) {
      return Standing.UNKNOWN;
    }
    RemoteEntry there = byName().get(here.name());
    if (there == null) {
      return Standing.ONLY_HERE;
    }
    if (here.kind() != FileKind.FILE || there.kind() != FileKind.FILE) {
      return here.kind() == there.kind() ? Standing.UNKNOWN : Standing.DIFFERS;
    }
    long apart = here.modified() - there.attributes().modified();
    if (Math.abs(apart) <= SAME_TIME) {
      return here.size() == there.attributes().size() ? Standing.SAME : Standing.DIFFERS;
    }
    return apart > 0 ? Standing.NEWER_HERE : Standing.OLDER_HERE;
  }

  private synchronized Map<String, RemoteEntry> byName() {
    if (byName == null) {
      byName = new HashMap<>();
      entries.forEach(entry -> byName.put(entry.path().wireName(), entry));
    }
    return byName;
  }
}
