package zander.standin.world;

import java.util.Set;

/**
 * Who makes a system call.
 *
 * @param groups the numbers of all groups, the main one included
 */
public record Caller(int uid, int gid, Set<Integer> groups) {
  public static final Caller ROOT = new Caller(0, 0, Set.of(0));

  public boolean isRoot() {
    return uid == 0;
  }

  public boolean isIn(int group) {
    return gid == group || groups.contains(group);
  }
}
