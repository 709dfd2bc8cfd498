package zander.core.rights;

import java.util.Map;
import java.util.Set;

/**
 * What an access control list has beyond owner and mode (acl(5)). Bits are 4 to read, 2 to write, 1
 * to run or enter.
 *
 * @param owningGroup what the file's own group may, before the mask
 * @param users what further accounts may, by number, before the mask
 * @param groups the same for further groups
 * @param mask what none but the owner and others may go beyond
 */
public record AccessList(
    int owningGroup, Map<Integer, Integer> users, Map<Integer, Integer> groups, int mask) {

  private static final int GROUP_BITS = 070;

  public AccessList {
    users = Map.copyOf(users);
    groups = Map.copyOf(groups);
  }

  /** Whether somebody may, as far as it is known who they are. */
  public enum Answer {
    YES,
    NO,
    /** It depends on groups that are not known. */
    UNKNOWN;

    static Answer of(boolean may) {
      return may ? YES : NO;
    }
  }

  /**
   * Who asks.
   *
   * @param gids the numbers of all groups; empty where they are not known
   */
  public record Asker(int uid, Set<Integer> gids) {
    private static final int ROOT = 0;

    private boolean isRoot() {
      return uid == ROOT;
    }
  }

  /**
   * What the kernel would answer (acl(5), access check algorithm; POSIX XBD 4.5 without a list).
   *
   * @param attached {@code null} for a file without one
   * @param want the bits that are needed, all of them
   */
  public static Answer may(Asker asker, Rights rights, AccessList attached, int want) {
    int bits = rights.mode().bits();
    // Against acl(5), Linux does not look at a list whose mask lets nothing through: somebody in it
    // is one of the others then.
    AccessList list = (bits & GROUP_BITS) == 0 ? null : attached;
    if (asker.isRoot()) {
      return Answer.YES;
    }
    if (asker.uid() == rights.uid()) {
      return Answer.of(has(bits >> 6, want));
    }
    if (list != null && list.users.containsKey(asker.uid())) {
      return Answer.of(has(list.users.get(asker.uid()) & list.mask, want));
    }
    boolean others = has(bits, want);
    if (asker.gids().isEmpty()) {
      boolean same = has(bits >> 3, want) == others && list == null;
      return same ? Answer.of(others) : Answer.UNKNOWN;
    }
    if (list == null) {
      return Answer.of(asker.gids().contains(rights.gid()) ? has(bits >> 3, want) : others);
    }
    return list.mayAsMember(asker, rights.gid(), want, others);
  }

  private Answer mayAsMember(Asker asker, int gid, int want, boolean others) {
    boolean isMember = asker.gids().contains(gid);
    boolean may = isMember && has(owningGroup & mask, want);
    for (Map.Entry<Integer, Integer> group : groups.entrySet()) {
      if (asker.gids().contains(group.getKey())) {
        isMember = true;
        may |= has(group.getValue() & mask, want);
      }
    }
    return Answer.of(isMember ? may : others);
  }

  private static boolean has(int bits, int want) {
    return (bits & want) == want;
  }
}
