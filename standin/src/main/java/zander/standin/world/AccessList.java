package zander.standin.world;

import java.util.Map;

/**
 * What an access control list has beyond the mode (acl(5)): its mask is the mode's bits for the
 * group.
 *
 * @param owningGroup the bits of the group that owns the file
 * @param users the bits of further accounts, by number
 * @param groups the bits of further groups
 */
public record AccessList(
    int owningGroup, Map<Integer, Integer> users, Map<Integer, Integer> groups) {

  /** Whether somebody who does not own the file may do it. */
  boolean may(Node node, Caller caller, int want) {
    int mask = node.mode >> 3;
    Integer named = users.get(caller.uid());
    if (named != null) {
      return (named & mask & want) == want;
    }
    boolean isMember = caller.isIn(node.gid);
    if (isMember && (owningGroup & mask & want) == want) {
      return true;
    }
    for (Map.Entry<Integer, Integer> group : groups.entrySet()) {
      if (caller.isIn(group.getKey())) {
        isMember = true;
        if ((group.getValue() & mask & want) == want) {
          return true;
        }
      }
    }
    return !isMember && (node.mode & want) == want;
  }
}
