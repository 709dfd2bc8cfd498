package zander.core.kept;

import java.util.ArrayList;
import java.util.BitSet;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.OptionalInt;
import java.util.Set;
import java.util.TreeSet;
import java.util.concurrent.ConcurrentHashMap;
import org.jspecify.annotations.Nullable;
import zander.core.files.AccountNames;
import zander.core.rights.ModeRule;
import zander.core.rights.RightsWish;
import zander.core.rights.TreeRights;

/**
 * What entries should have by the folders that keep rights: the nearest of those above an entry
 * says it. Remembers what it found of the folder it was last asked in, as entries come folder by
 * folder. Safe for several threads.
 */
public final class KeptWish implements RightsWish {
  private static final TreeRights NOTHING =
      new TreeRights(OptionalInt.empty(), OptionalInt.empty(), null, null);

  /** The folders, the deepest first. */
  private final List<Top> tops = new ArrayList<>();

  private final Set<String> unknown = new TreeSet<>();

  /**
   * @param names turns names into numbers; what a name that is not known is to set is left alone,
   *     see {@link #unknownNames()}
   */
  public KeptWish(List<KeptFolder> folders, AccountNames names) {
    folders.stream()
        .filter(folder -> !folder.rights().isNothing())
        .sorted(Comparator.comparingInt((KeptFolder one) -> one.path().wire().length()).reversed())
        .forEach(folder -> tops.add(new Top(folder, names)));
  }

  /** Names in the rules that no account or group of the server has. */
  public List<String> unknownNames() {
    return List.copyOf(unknown);
  }

  @Override
  public @Nullable TreeRights of(String path, boolean folder) {
    for (Top top : tops) {
      String below = top.below(path);
      if (below != null) {
        return top.of(below, folder);
      }
    }
    return null;
  }

  /** A folder, and the rules that fit it or one above it; not changed once it is here. */
  private record Parent(String path, BitSet fitting) {}

  /** One folder with what was found of it. */
  private final class Top {
    private final String path;
    private final List<KeptRule> rules;
    private final AccountNames names;
    private final Map<BitSet, TreeRights> byRules = new ConcurrentHashMap<>();
    private volatile Parent last = new Parent("", new BitSet());

    Top(KeptFolder folder, AccountNames names) {
      this.path = folder.path().isRoot() ? "" : folder.path().wire();
      this.rules = folder.rights().rules();
      this.names = names;
      rules.forEach(
          rule -> {
            note(rule.owner(), idOf(rule.owner(), true));
            note(rule.group(), idOf(rule.group(), false));
          });
    }

    /** The path from it on; {@code null} when the path is not in it. */
    @Nullable String below(String entry) {
      if (entry.equals(path) || (path.isEmpty() && entry.equals("/"))) {
        return "";
      }
      boolean in = entry.length() > path.length() && entry.startsWith(path);
      return in && entry.charAt(path.length()) == '/' ? entry.substring(path.length() + 1) : null;
    }

    TreeRights of(String below, boolean folder) {
      BitSet fitting = (BitSet) inherited(below).clone();
      mark(fitting, below, folder);
      return byRules.computeIfAbsent(fitting, this::made);
    }

    /** The rules that fit a folder above an entry. */
    private BitSet inherited(String below) {
      int slash = below.lastIndexOf('/');
      if (slash < 0) {
        return new BitSet();
      }
      String parent = below.substring(0, slash);
      Parent known = last;
      if (!parent.equals(known.path)) {
        BitSet found = new BitSet();
        for (int at = parent.indexOf('/'); at >= 0; at = parent.indexOf('/', at + 1)) {
          mark(found, parent.substring(0, at), true);
        }
        mark(found, parent, true);
        known = new Parent(parent, found);
        last = known;
      }
      return known.fitting;
    }

    private void mark(BitSet fitting, String below, boolean folder) {
      for (int i = 0; i < rules.size(); i++) {
        if (!fitting.get(i) && rules.get(i).fits(below, folder)) {
          fitting.set(i);
        }
      }
    }

    private TreeRights made(BitSet fitting) {
      String owner = null;
      String group = null;
      ModeRule files = null;
      ModeRule folders = null;
      for (int i = fitting.nextSetBit(0); i >= 0; i = fitting.nextSetBit(i + 1)) {
        KeptRule rule = rules.get(i);
        boolean frees = rule.freed();
        owner = frees ? null : rule.owner() == null ? owner : rule.owner();
        group = frees ? null : rule.group() == null ? group : rule.group();
        files = frees ? null : rule.files() == null ? files : rule.files();
        folders = frees ? null : rule.folders() == null ? folders : rule.folders();
      }
      TreeRights made = new TreeRights(idOf(owner, true), idOf(group, false), files, folders);
      return made.equals(NOTHING) ? NOTHING : made;
    }

    private OptionalInt idOf(@Nullable String name, boolean user) {
      return name == null ? OptionalInt.empty() : user ? names.uidOf(name) : names.gidOf(name);
    }

    private void note(@Nullable String name, OptionalInt found) {
      if (name != null && found.isEmpty()) {
        unknown.add(name);
      }
    }
  }
}
