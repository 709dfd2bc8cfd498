package zander.core.kept;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import zander.core.files.AccountNames;
import zander.core.files.WireName;
import zander.core.rights.Mode;
import zander.core.rights.ModeRule;
import zander.core.rights.Rights;

/**
 * Learns from a tree as it is what rights it keeps: first what most entries have, then, one after
 * the other, the folder or the ending of names whose entries explain the most of what is left. At
 * most {@value #MOST_RULES} lines, for people read them; what fits none is shown as a difference.
 * What a line would make right is counted once, and afterwards only for the entries that the last
 * line is about. For one thread.
 */
public final class KeptLearner {
  /** Entries that are looked at; what comes later is hardly another kind of tree. */
  public static final int MOST_ENTRIES = 50_000;

  private static final int MOST_RULES = 16;
  private static final int DEEPEST = 4;

  /** One entry that differs is named by itself. */
  private static final int LEAST_ALIKE = 2;

  /** So many single entries that fit nothing are named; more are a difference. */
  private static final int MOST_SINGLE = 12;

  private static final String RUNS = "+X";
  private static final String ALL = "*";
  private static final String IN_ALL = "/**/";
  private static final int RUN = 0111;

  private enum Field {
    OWNER,
    GROUP,
    FILES,
    FOLDERS
  }

  /** An entry with the value of each field; one of the last two is {@code null}. */
  private static final class Seen {
    final String path;
    final boolean folder;
    final Mode mode;
    final Map<Field, String> has = new EnumMap<>(Field.class);
    final Map<Field, String> said = new EnumMap<>(Field.class);
    final List<String> scopes = new ArrayList<>();

    Seen(String path, boolean folder, Mode mode) {
      this.path = path;
      this.folder = folder;
      this.mode = mode;
    }
  }

  /** How many entries of a scope have a value, and of how many the lines so far say it. */
  private static final class Counted {
    int all;
    int right;
  }

  private final List<Seen> entries = new ArrayList<>();
  private final Map<String, Map<Field, Map<String, Counted>>> counts = new HashMap<>();
  private final Map<String, String> texts = new HashMap<>();
  private final AccountNames names;
  private final StringBuilder lines = new StringBuilder();
  private int rules;

  public KeptLearner(AccountNames names) {
    this.names = names;
  }

  /** Whether more is to be seen. */
  public boolean hasRoom() {
    return entries.size() < MOST_ENTRIES;
  }

  /**
   * @param path from the folder that is to keep them, in wire form; empty for that folder
   */
  public void add(String path, boolean folder, Rights rights) {
    if (!hasRoom()) {
      return;
    }
    Seen seen = new Seen(path, folder, rights.mode());
    seen.has.put(Field.OWNER, names.user(rights.uid()));
    seen.has.put(Field.GROUP, names.group(rights.gid()));
    seen.has.put(folder ? Field.FOLDERS : Field.FILES, value(rights.mode(), folder));
    seen.scopes.add(ALL);
    scopes(seen);
    // Thousands of entries are in one scope.
    seen.scopes.replaceAll(scope -> texts.computeIfAbsent(scope, same -> same));
    seen.has.replaceAll((field, value) -> texts.computeIfAbsent(value, same -> same));
    entries.add(seen);
    for (String scope : seen.scopes) {
      seen.has.forEach((field, value) -> counted(scope, field, value).all++);
    }
  }

  private Counted counted(String scope, Field field, String value) {
    return counts
        .computeIfAbsent(scope, key -> new EnumMap<>(Field.class))
        .computeIfAbsent(field, key -> new HashMap<>())
        .computeIfAbsent(value, key -> new Counted());
  }

  /** Modes that differ only in that some may be run are of one rule. */
  private static String value(Mode mode, boolean folder) {
    if (!folder) {
      Mode plain = new Mode(mode.bits() & ~RUN);
      if (new ModeRule.Exact(plain, true).apply(mode, false).equals(mode)) {
        return plain.octal() + RUNS;
      }
    }
    return mode.octal();
  }

  /** The patterns that would fit an entry, besides the one for all; none that nobody can type. */
  private static void scopes(Seen seen) {
    if (!canBeTyped(seen.path)) {
      return;
    }
    int depth = 0;
    for (int at = seen.path.indexOf('/');
        at >= 0 && depth < DEEPEST;
        at = seen.path.indexOf('/', at + 1)) {
      seen.scopes.add(seen.path.substring(0, at) + "/");
      depth++;
    }
    if (seen.folder && !seen.path.isEmpty() && depth < DEEPEST) {
      seen.scopes.add(seen.path + "/");
    }
    int dot = seen.path.lastIndexOf('.');
    boolean ending = dot >= 0 && seen.path.indexOf('/', dot) < 0 && dot + 1 < seen.path.length();
    if (!seen.folder && ending) {
      String named = "*" + seen.path.substring(dot);
      seen.scopes.add(named);
      int first = seen.path.indexOf('/');
      if (first >= 0) {
        seen.scopes.add(seen.path.substring(0, first) + IN_ALL + named);
      }
    }
  }

  /** The lines; none when nothing was seen. */
  public String text() {
    if (entries.isEmpty()) {
      return "";
    }
    Map<Field, String> most = new EnumMap<>(Field.class);
    Objects.requireNonNull(counts.get(ALL))
        .forEach((field, values) -> most.put(field, mostFrequent(values).getKey()));
    say(ALL, most);
    while (rules < MOST_RULES && sayTheNext()) {
      rules++;
    }
    saySingle();
    return KeptText.aligned(lines.toString());
  }

  /** The first by its text, of those that are as frequent. */
  private static Map.Entry<String, Counted> mostFrequent(Map<String, Counted> values) {
    return values.entrySet().stream()
        .max(
            Comparator.comparingInt((Map.Entry<String, Counted> one) -> one.getValue().all)
                .thenComparing(Map.Entry.<String, Counted>comparingByKey().reversed()))
        .orElseThrow();
  }

  /** Adds the line that makes the most entries right that are not; false when none makes many. */
  private boolean sayTheNext() {
    String best = null;
    int most = 0;
    Map<Field, String> says = Map.of();
    for (var scope : counts.entrySet()) {
      if (scope.getKey().equals(ALL)) {
        continue;
      }
      Map<Field, String> better = new EnumMap<>(Field.class);
      int gain = 0;
      int alike = 0;
      for (var field : scope.getValue().entrySet()) {
        int right = field.getValue().values().stream().mapToInt(one -> one.right).sum();
        Map.Entry<String, Counted> top = mostFrequent(field.getValue());
        int more = top.getValue().all - right;
        if (more > 0) {
          better.put(field.getKey(), top.getKey());
          gain += more;
          alike = Math.max(alike, more);
        }
      }
      if (alike < LEAST_ALIKE) {
        continue;
      }
      // The shortest of those that are alike: the folder above, and not one in it.
      boolean shorter = gain == most && best != null && isBefore(scope.getKey(), best);
      if (gain > most || shorter) {
        best = scope.getKey();
        most = gain;
        says = better;
      }
    }
    if (best != null) {
      say(best, says);
    }
    return best != null;
  }

  private static boolean isBefore(String scope, String other) {
    return scope.length() < other.length()
        || (scope.length() == other.length() && scope.compareTo(other) < 0);
  }

  private void say(String scope, Map<Field, String> says) {
    boolean runs = false;
    for (Seen seen : entries) {
      if (seen.scopes.contains(scope)) {
        runs |= !seen.folder && seen.mode.has(RUN);
        says.forEach((field, value) -> say(seen, field, value));
      }
    }
    lines.append(scope.equals(ALL) ? scope : pattern(scope));
    append(says, runs);
  }

  private void say(Seen seen, Field field, String value) {
    String has = seen.has.get(field);
    boolean was = has != null && has.equals(seen.said.put(field, value));
    if (has != null && was != has.equals(value)) {
      seen.scopes.forEach(scope -> counted(scope, field, has).right += was ? -1 : 1);
    }
  }

  private void append(Map<Field, String> says, boolean runs) {
    for (Field field : Field.values()) {
      String value = says.get(field);
      boolean plain = value != null && value.endsWith(RUNS) && !runs;
      lines
          .append(' ')
          .append(
              value == null
                  ? "-"
                  : plain ? value.substring(0, value.length() - RUNS.length()) : value);
    }
    lines.append('\n');
  }

  /** Entries that fit nothing, each by its path, when they are few. */
  private void saySingle() {
    List<Seen> wrong =
        entries.stream()
            .filter(seen -> canBeTyped(seen.path))
            .filter(seen -> !seen.said.entrySet().containsAll(seen.has.entrySet()))
            .sorted(Comparator.comparing((Seen seen) -> seen.path))
            .toList();
    if (wrong.size() > MOST_SINGLE) {
      return;
    }
    for (Seen seen : wrong) {
      Map<Field, String> says = new EnumMap<>(seen.has);
      says.entrySet().removeIf(one -> one.getValue().equals(seen.said.get(one.getKey())));
      boolean itself = seen.path.isEmpty();
      lines.append(itself ? KeptRule.ITSELF : pattern("/" + seen.path));
      append(says, seen.mode.has(RUN));
    }
  }

  private static boolean canBeTyped(String path) {
    return WireName.fromText(WireName.toText(path)).equals(path);
  }

  /** As a pattern that fits just that: a folder from the top on, an ending, or one in a folder. */
  private static String pattern(String scope) {
    int in = scope.indexOf(IN_ALL + "*.");
    if (in >= 0) {
      int ending = in + IN_ALL.length();
      return literal("/" + scope.substring(0, in)) + IN_ALL + pattern(scope.substring(ending));
    }
    if (scope.startsWith("*.")) {
      return "*" + literal(scope.substring(1));
    }
    return literal(scope.startsWith("/") ? scope : "/" + scope);
  }

  private static String literal(String wire) {
    return WireName.toText(wire).replaceAll("[\\\\*?\\[ ]", "\\\\$0");
  }
}
