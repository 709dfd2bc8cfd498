package zander.core.access;

import java.util.HashMap;
import java.util.Map;
import java.util.Objects;
import java.util.function.BiConsumer;
import org.jspecify.annotations.Nullable;
import zander.core.rights.Mode;

/**
 * The access control list that new entries of a folder get (acl(5), "object creation and default
 * ACLs"). Bits are 4 to read, 2 to write, 1 to run or enter.
 *
 * @param mask -1 where there is none
 */
public record DefaultList(
    int owner,
    Map<Integer, Integer> users,
    int group,
    Map<Integer, Integer> groups,
    int mask,
    int others) {
  private static final String PREFIX = "default:";

  /**
   * Reads the lines of {@code getfacl -n}.
   *
   * @return {@code null} where there is none, or it is not whole
   */
  static @Nullable DefaultList parse(String lines) {
    Map<Integer, Integer> users = new HashMap<>();
    Map<Integer, Integer> groups = new HashMap<>();
    Map<String, Integer> single = new HashMap<>();
    BiConsumer<String, Integer> each =
        (who, bits) -> {
          String[] named = who.split(":", -1);
          boolean number = named.length == 2 && named[1].matches("[0-9]{1,10}");
          if (number && named[0].equals("user")) {
            users.put((int) Long.parseLong(named[1]), bits);
          } else if (number && named[0].equals("group")) {
            groups.put((int) Long.parseLong(named[1]), bits);
          } else {
            single.put(named[0], bits);
          }
        };
    lines.lines().filter(line -> line.startsWith(PREFIX)).forEach(line -> entry(line, each));
    return single.keySet().containsAll(java.util.Set.of("user", "group", "other"))
        ? new DefaultList(
            Objects.requireNonNull(single.get("user")),
            Map.copyOf(users),
            Objects.requireNonNull(single.get("group")),
            Map.copyOf(groups),
            single.getOrDefault("mask", -1),
            Objects.requireNonNull(single.get("other")))
        : null;
  }

  /** {@code default:user:33:rw-}, perhaps with what the mask leaves behind it. */
  private static void entry(String line, BiConsumer<String, Integer> each) {
    String entry = line.substring(PREFIX.length()).split("[\t #]", 2)[0];
    int colon = entry.lastIndexOf(':');
    if (colon > 0 && entry.length() == colon + 4) {
      int bits = 0;
      for (char c : entry.substring(colon + 1).toCharArray()) {
        bits |= c == 'r' ? 4 : c == 'w' ? 2 : c == 'x' ? 1 : 0;
      }
      each.accept(entry.substring(0, colon), bits);
    }
  }

  /**
   * The mode of a new entry; the group's bits are those of the mask where there is one.
   *
   * @param asked what the program asks for, usually 0666 or 0777
   */
  Mode modeOf(int asked) {
    int middle = mask >= 0 ? mask : group;
    return new Mode(
        (owner & asked >> 6) << 6 | (middle & asked >> 3 & 7) << 3 | (others & asked & 7));
  }
}
