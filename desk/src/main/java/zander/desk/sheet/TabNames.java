package zander.desk.sheet;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.UnaryOperator;

/** What stands on tabs, so that no two of them say the same. */
public final class TabNames {
  /** Where a name that has no room is cut. */
  public enum Cut {
    END,
    START,
    MIDDLE
  }

  private TabNames() {}

  /**
   * Names that differ: equal ones are told by their longer names where those differ, and by a
   * number where not even they do.
   *
   * @param longer for each name, such as {@code account@host:port} or a path
   */
  public static List<String> apart(List<String> names, List<String> longer) {
    List<String> apart = new ArrayList<>();
    Map<String, Integer> seen = new HashMap<>();
    for (int i = 0; i < names.size(); i++) {
      Set<String> told = new HashSet<>();
      for (int other = 0; other < names.size(); other++) {
        if (names.get(other).equals(names.get(i))) {
          told.add(longer.get(other));
        }
      }
      String name = told.size() > 1 ? longer.get(i) : names.get(i);
      int times = seen.merge(name, 1, Integer::sum);
      apart.add(times > 1 ? name + " " + times : name);
    }
    return apart;
  }

  /**
   * Where to cut one of several names so that what is left tells it from the others.
   *
   * @param letters that there is room for, with the dots in the place of the rest
   */
  public static Cut cut(List<String> names, int which, int letters) {
    if (names.get(which).length() <= letters || tells(names, which, name -> head(name, letters))) {
      return Cut.END;
    }
    if (tells(names, which, name -> tail(name, letters))) {
      return Cut.START;
    }
    return tells(names, which, name -> ends(name, letters)) ? Cut.MIDDLE : Cut.END;
  }

  private static boolean tells(List<String> names, int which, UnaryOperator<String> shown) {
    String mine = shown.apply(names.get(which));
    return names.stream().map(shown).filter(mine::equals).count() == 1;
  }

  private static String head(String name, int letters) {
    return name.length() <= letters ? name : name.substring(0, Math.max(0, letters - 1)) + "…";
  }

  private static String tail(String name, int letters) {
    return name.length() <= letters
        ? name
        : "…" + name.substring(name.length() - Math.max(0, letters - 1));
  }

  private static String ends(String name, int letters) {
    if (name.length() <= letters) {
      return name;
    }
    int each = Math.max(0, letters - 1) / 2;
    return name.substring(0, each) + "…" + name.substring(name.length() - each);
  }
}
