package zander.desk.rights;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import zander.core.files.FileKind;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteEntry;
import zander.core.files.RemotePath;
import zander.core.rights.Rights;
import zander.desk.folder.FolderModel;
import zander.desk.words.Words;

/**
 * Rights that are taken from one entry, or from those beside it, and filled in for others. They
 * come into the fields, to be looked at and set. Interface thread only.
 */
public final class CopiedRights {
  private static final Words WORDS = Words.of(CopiedRights.class);

  private final RightsModel model;
  private final FolderModel folder;
  private @Nullable Rights copied;
  private boolean ofFolder;

  CopiedRights(RightsModel model, FolderModel folder) {
    this.model = model;
    this.folder = folder;
  }

  /** Takes those of the one entry that is selected. */
  public void copy() {
    if (model.entries().size() != 1) {
      model.say(WORDS.say("selectOneEntry"));
      return;
    }
    RemoteAttributes has = RightsSummary.real(model.entries().get(0));
    copied = rights(has);
    ofFolder = has.isFolder();
    model.say(WORDS.say("rightsAreCopied"));
  }

  /** Fills them in for what is selected. */
  public void give() {
    if (copied == null) {
      model.say(WORDS.say("noRightsAreCopied"));
    } else {
      model.fill(copied, ofFolder);
    }
  }

  /** Fills in what most entries of the same kind beside those that are selected have. */
  public void asNeighbours() {
    List<RemoteEntry> entries = model.entries();
    if (entries.isEmpty()) {
      return;
    }
    boolean folders = RightsSummary.real(entries.get(0)).isFolder();
    Set<RemotePath> own = entries.stream().map(RemoteEntry::path).collect(Collectors.toSet());
    // Of two that are as frequent, those of the entry that is listed first.
    Map<Rights, Integer> counts = new LinkedHashMap<>();
    for (RemoteEntry one : folder.rows()) {
      boolean counted = one.kind() == FileKind.FILE || one.kind() == FileKind.FOLDER;
      if (counted && one.attributes().isFolder() == folders && !own.contains(one.path())) {
        counts.merge(rights(one.attributes()), 1, Integer::sum);
      }
    }
    Rights most =
        counts.entrySet().stream()
            .reduce((one, other) -> other.getValue() > one.getValue() ? other : one)
            .map(Map.Entry::getKey)
            .orElse(null);
    if (most == null) {
      model.say(folders ? WORDS.say("noOtherFolder") : WORDS.say("noOtherFile"));
    } else {
      model.fill(most, folders);
    }
  }

  private static Rights rights(RemoteAttributes has) {
    return new Rights(has.uid(), has.gid(), has.mode());
  }
}
