package zander.core.access;

import org.jspecify.annotations.Nullable;
import zander.core.files.RemotePath;
import zander.core.rights.Rights;
import zander.core.rights.RightsStep;

/**
 * One change that is part of a cure: of owner, group and mode, or an entry of an access control
 * list.
 *
 * @param rights {@code null} where an entry is added
 * @param entryUid the account that the entry is for; -1 for none
 * @param entryBits what it allows: 4 to read, 2 to write, 1 to run or enter
 */
public record CureChange(
    RemotePath path, @Nullable RightsStep rights, int entryUid, int entryBits) {

  static CureChange ofRights(RemotePath path, boolean folder, Rights before, Rights after) {
    return new CureChange(path, new RightsStep(folder, before, after), -1, 0);
  }

  static CureChange ofEntry(RemotePath path, int uid, int bits) {
    return new CureChange(path, null, uid, bits);
  }

  public boolean isEntry() {
    return rights == null;
  }
}
