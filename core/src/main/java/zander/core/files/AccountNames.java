package zander.core.files;

import java.util.List;
import java.util.Map;
import java.util.OptionalInt;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ConcurrentSkipListMap;

/**
 * The names of a server's accounts and groups, as far as they were learnt. Safe for any thread.
 *
 * <p>Learnt from the server's {@code getent} where there is a shell, from the answers to {@code
 * users-groups-by-id@openssh.com}, and from the long lines of a listing, whatever comes first.
 */
public final class AccountNames {
  private final Map<Integer, String> users = new ConcurrentHashMap<>();
  private final Map<Integer, String> groups = new ConcurrentHashMap<>();
  private final Map<String, Integer> uids = new ConcurrentSkipListMap<>();
  private final Map<String, Integer> gids = new ConcurrentSkipListMap<>();
  private final Map<String, Set<Integer>> memberOf = new ConcurrentHashMap<>();

  public void learnUser(int uid, String name) {
    learn(uid, name, users, uids);
  }

  public void learnGroup(int gid, String name) {
    learn(gid, name, groups, gids);
  }

  private static void learn(
      int id, String name, Map<Integer, String> byId, Map<String, Integer> byName) {
    // An empty name means that nobody has this number: remembered, so that it is asked only once.
    byId.putIfAbsent(id, name);
    if (!name.isEmpty()) {
      byName.putIfAbsent(name, id);
    }
  }

  /** Learns from lines in the form of {@code /etc/passwd}; lines of another form are skipped. */
  public void learnPasswd(String lines) {
    forEachLine(lines, this::learnUser);
    forEachFields(lines, fields -> isIn(fields[0], fields[3]));
  }

  /** Learns from lines in the form of {@code /etc/group}; lines of another form are skipped. */
  public void learnGroupFile(String lines) {
    forEachLine(lines, this::learnGroup);
    forEachFields(
        lines,
        fields -> {
          for (String member : fields[3].split(",")) {
            isIn(member, fields[2]);
          }
        });
  }

  private interface Learner {
    void learn(int id, String name);
  }

  private static void forEachLine(String lines, Learner learner) {
    forEachFields(lines, fields -> learner.learn((int) Long.parseLong(fields[2]), fields[0]));
  }

  private static void forEachFields(String lines, java.util.function.Consumer<String[]> each) {
    for (String line : lines.split("\n")) {
      String[] fields = line.split(":", -1);
      if (fields.length >= 4 && fields[2].matches("[0-9]{1,10}")) {
        each.accept(fields);
      }
    }
  }

  private void isIn(String user, String gid) {
    if (!user.isEmpty() && gid.matches("[0-9]{1,10}")) {
      memberOf
          .computeIfAbsent(user, name -> ConcurrentHashMap.newKeySet())
          .add((int) Long.parseLong(gid));
    }
  }

  /** The numbers of all groups that an account is known to be in; empty when none is known. */
  public Set<Integer> groupsOf(String user) {
    return Set.copyOf(memberOf.getOrDefault(user, Set.of()));
  }

  /** The names of all accounts that are known to be in a group, in their order. */
  public List<String> membersOf(int gid) {
    return memberOf.entrySet().stream()
        .filter(one -> one.getValue().contains(gid))
        .map(Map.Entry::getKey)
        .sorted()
        .toList();
  }

  /** The names of all groups that are known, in their order. */
  public List<String> groups() {
    return List.copyOf(gids.keySet());
  }

  /** The names of all accounts that are known, in their order. */
  public List<String> accounts() {
    return List.copyOf(uids.keySet());
  }

  public boolean knowsUser(int uid) {
    return users.containsKey(uid);
  }

  public boolean knowsGroup(int gid) {
    return groups.containsKey(gid);
  }

  /** The account's name, or its number as text. */
  public String user(int uid) {
    String name = users.get(uid);
    return name == null || name.isEmpty() ? Integer.toUnsignedString(uid) : name;
  }

  /** The group's name, or its number as text. */
  public String group(int gid) {
    String name = groups.get(gid);
    return name == null || name.isEmpty() ? Integer.toUnsignedString(gid) : name;
  }

  /** The number of an account given by name or number; empty when the name is not known. */
  public OptionalInt uidOf(String nameOrNumber) {
    return idOf(nameOrNumber, uids);
  }

  /** The number of a group given by name or number; empty when the name is not known. */
  public OptionalInt gidOf(String nameOrNumber) {
    return idOf(nameOrNumber, gids);
  }

  private static OptionalInt idOf(String text, Map<String, Integer> byName) {
    Integer id = byName.get(text);
    if (id != null) {
      return OptionalInt.of(id);
    }
    if (text.matches("[0-9]{1,10}") && Long.parseLong(text) < 0xffffffffL) {
      return OptionalInt.of((int) Long.parseLong(text));
    }
    return OptionalInt.empty();
  }
}
