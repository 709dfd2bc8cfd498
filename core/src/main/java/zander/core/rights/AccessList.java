package zander.core.rights;

import java.util.HashMap;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;

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

  /** By what somebody may or may not. */
  public enum By {
    ROOT,
    OWNER,
    /** An entry for the account itself. */
    USER_ENTRY,
    GROUP,
    /** An entry for a group that the account is in. */
    GROUP_ENTRY,
    OTHERS
  }

  /**
   * An answer, and what decides.
   *
   * @param group which, where a group decides; 0 otherwise
   * @param masked whether the entry would allow it and the mask takes it
   */
  public record Decision(Answer answer, By by, int group, boolean masked) {
    private static Decision of(boolean may, By by) {
      return new Decision(Answer.of(may), by, 0, false);
    }
  }

  /** {@link #decide} without what decides. */
  public static Answer may(Asker asker, Rights rights, @Nullable AccessList attached, int want) {
    return decide(asker, rights, attached, want).answer;
  }

  /**
   * What the kernel would answer (acl(5), access check algorithm; POSIX XBD 4.5 without a list).
   *
   * @param attached {@code null} for a file without one
   * @param want the bits that are needed, all of them
   */
  public static Decision decide(
      Asker asker, Rights rights, @Nullable AccessList attached, int want) {
    int bits = rights.mode().bits();
    // Against acl(5), Linux does not look at a list whose mask lets nothing through: somebody in it
    // is one of the others then.
    AccessList list = (bits & GROUP_BITS) == 0 ? null : attached;
    if (asker.isRoot()) {
      return Decision.of(true, By.ROOT);
    }
    if (asker.uid() == rights.uid()) {
      return Decision.of(has(bits >> 6, want), By.OWNER);
    }
    if (list != null && list.users.containsKey(asker.uid())) {
      int entry = list.users.get(asker.uid());
      boolean may = has(entry & list.mask, want);
      return new Decision(Answer.of(may), By.USER_ENTRY, 0, !may && has(entry, want));
    }
    boolean others = has(bits, want);
    if (asker.gids().isEmpty()) {
      boolean same = has(bits >> 3, want) == others && list == null;
      return new Decision(same ? Answer.of(others) : Answer.UNKNOWN, By.OTHERS, 0, false);
    }
    if (list != null) {
      return list.decideAsMember(asker, rights.gid(), want, others);
    }
    return asker.gids().contains(rights.gid())
        ? new Decision(Answer.of(has(bits >> 3, want)), By.GROUP, rights.gid(), false)
        : Decision.of(others, By.OTHERS);
  }

  private Decision decideAsMember(Asker asker, int gid, int want, boolean others) {
    Decision refused = null;
    if (asker.gids().contains(gid)) {
      boolean may = has(owningGroup & mask, want);
      boolean masked = !may && has(owningGroup, want);
      refused = new Decision(Answer.of(may), By.GROUP, gid, masked);
      if (may) {
        return refused;
      }
    }
    for (Map.Entry<Integer, Integer> group : groups.entrySet()) {
      if (asker.gids().contains(group.getKey())) {
        boolean may = has(group.getValue() & mask, want);
        boolean masked = !may && has(group.getValue(), want);
        Decision one = new Decision(Answer.of(may), By.GROUP_ENTRY, group.getKey(), masked);
        if (may) {
          return one;
        }
        refused = refused == null || masked ? one : refused;
      }
    }
    return refused == null ? Decision.of(others, By.OTHERS) : refused;
  }

  /** The same with an entry for one more account, the mask reckoned anew as setfacl(1) does. */
  public static AccessList with(@Nullable AccessList before, Rights rights, int uid, int allowed) {
    int group = before == null ? rights.mode().bits() >> 3 & 7 : before.owningGroup;
    Map<Integer, Integer> users = new HashMap<>(before == null ? Map.of() : before.users);
    Map<Integer, Integer> groups = before == null ? Map.of() : before.groups;
    users.merge(uid, allowed, (had, more) -> had | more);
    int mask = group;
    for (int bits : users.values()) {
      mask |= bits;
    }
    for (int bits : groups.values()) {
      mask |= bits;
    }
    return new AccessList(group, users, groups, mask);
  }

  private static boolean has(int bits, int want) {
    return (bits & want) == want;
  }
}
