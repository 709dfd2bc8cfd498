package zander.core.listing;

import zander.core.files.FileKind;
import zander.core.files.RemoteEntry;
import zander.core.rights.Mode;

/**
 * What of a row a person can ask for, whichever side of the waterline it is on.
 *
 * @param name as shown
 * @param size bytes
 * @param modified seconds since 1970-01-01 UTC
 */
public record Listed(
    String name, FileKind kind, long size, long modified, Mode mode, String owner, String group) {

  public static Listed of(RemoteEntry entry) {
    return new Listed(
        entry.name(),
        entry.kind(),
        entry.attributes().size(),
        entry.attributes().modified(),
        entry.attributes().mode(),
        entry.owner(),
        entry.group());
  }
}
