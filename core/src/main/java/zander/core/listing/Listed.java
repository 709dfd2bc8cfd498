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
    String name, FileKind kind, long size, long modified, Mode mode, Account owner, Account group) {

  /**
   * An account or a group.
   *
   * @param name or its number as text
   * @param number as an unsigned number; -1 where it is not known
   */
  public record Account(String name, long number) {
    /** Where the number is not known. */
    public static Account of(String name) {
      return new Account(name, -1);
    }

    boolean is(String nameOrNumber) {
      return name.equals(nameOrNumber)
          || (number >= 0
              && Long.toString(number).equals(nameOrNumber.replaceFirst("^0+(?=.)", "")));
    }
  }

  public static Listed of(RemoteEntry entry) {
    return new Listed(
        entry.name(),
        entry.kind(),
        entry.attributes().size(),
        entry.attributes().modified(),
        entry.attributes().mode(),
        new Account(entry.owner(), Integer.toUnsignedLong(entry.attributes().uid())),
        new Account(entry.group(), Integer.toUnsignedLong(entry.attributes().gid())));
  }
}
