package zander.core.change.rights;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import zander.core.change.rights.look.TreeRoots;
import zander.core.files.RemotePath;
import zander.core.rights.RightsStep;

/** What a change of the rights of trees would do. For any thread. */
public final class TreePlan {
  private final TreeRoots roots;
  private final boolean otherFileSystems;
  private final boolean byTools;
  private final long looked;
  private final List<PlanGroup> groups;
  private final Entries entries;

  /**
   * All entries that would be changed.
   *
   * @param steps what becomes of those with a tag, by its number
   * @param groups which group those are in
   */
  record Entries(PackedPaths paths, List<RightsStep> steps, List<Integer> groups) {}

  TreePlan(
      TreeRoots roots,
      boolean otherFileSystems,
      boolean byTools,
      long looked,
      List<PlanGroup> groups,
      Entries entries) {
    this.roots = roots;
    this.otherFileSystems = otherFileSystems;
    this.byTools = byTools;
    this.looked = looked;
    this.groups = List.copyOf(groups);
    this.entries = entries;
    entries.paths.seal();
  }

  public TreeRoots roots() {
    return roots;
  }

  /** How many entries were looked at. */
  public long looked() {
    return looked;
  }

  /** Whether other file systems could be told apart: the file service alone does not tell. */
  public boolean seesFileSystems() {
    return byTools;
  }

  public List<PlanGroup> groups() {
    return groups;
  }

  /** One entry of a group. */
  public record Planned(RemotePath path, RightsStep step) {}

  /**
   * The first entries of a group that are changed; of the others only examples are kept.
   *
   * @param most no more are given
   */
  public List<Planned> entriesOf(PlanGroup group, int most) throws IOException {
    int number = groups.indexOf(group);
    List<Planned> found = new ArrayList<>();
    entries.paths.forEach(
        (path, tag, file) -> {
          if (entries.groups.get(tag) == number && found.size() < most) {
            found.add(new Planned(roots.at(path), entries.steps.get(tag)));
          }
        });
    return found;
  }

  /**
   * What is to be done.
   *
   * @param chosen the groups that are to be changed
   * @param leftOut entries of these that are not
   */
  public TreeSteps choose(Set<PlanGroup> chosen, Set<RemotePath> leftOut) throws IOException {
    boolean[] wanted = new boolean[entries.steps.size()];
    for (int tag = 0; tag < wanted.length; tag++) {
      wanted[tag] = chosen.contains(groups.get(entries.groups.get(tag)));
    }
    PackedPaths paths = new PackedPaths();
    entries.paths.forEach(
        (path, tag, file) -> {
          if (wanted[tag] && (leftOut.isEmpty() || !leftOut.contains(roots.at(path)))) {
            paths.add(path, tag, file);
          }
        });
    return new TreeSteps(roots, otherFileSystems, entries.steps, paths);
  }
}
