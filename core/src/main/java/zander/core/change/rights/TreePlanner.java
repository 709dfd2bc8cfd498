package zander.core.change.rights;

import java.io.IOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.LongConsumer;
import org.jspecify.annotations.Nullable;
import zander.core.change.rights.PlanGroup.Fate;
import zander.core.change.rights.look.ScannedEntry;
import zander.core.change.rights.look.TreeLook;
import zander.core.change.rights.look.TreeRoots;
import zander.core.connect.command.Commands;
import zander.core.files.FileKind;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.files.RemoteFiles;
import zander.core.phrase.FilePhrase;
import zander.core.phrase.FileStep;
import zander.core.rights.AccessList.Asker;
import zander.core.rights.Mode;
import zander.core.rights.Rights;
import zander.core.rights.RightsDanger;
import zander.core.rights.RightsStep;
import zander.core.rights.RightsWish;
import zander.core.rights.TreeRights;
import zander.core.work.Cancellation;

/** Looks through trees and says what a change of rights would do; changes nothing. */
public final class TreePlanner {
  private static final int PACE = 2048;

  /** More different changes than anybody has rights for are a mistake, or made to fill memory. */
  private static final int MOST_KINDS = 100_000;

  /** More groups cannot be read: the rest comes together. */
  private static final int MOST_GROUPS = 400;

  private final RemoteFiles files;
  private final Commands commands;

  public TreePlanner(RemoteFiles files, Commands commands) {
    this.files = files;
    this.commands = commands;
  }

  /** What tells groups apart. */
  private record Key(Fate fate, @Nullable RightsDanger danger, @Nullable RightsStep step) {}

  private record Tag(int group, RightsStep step) {}

  /**
   * @param by who is to make the change
   * @param otherFileSystems whether what is mounted below is meant as well
   * @param progress told how many entries were seen, now and then
   * @throws java.util.concurrent.CancellationException when it was stopped
   */
  public TreePlan plan(
      TreeRoots roots,
      RightsWish wanted,
      Asker by,
      boolean otherFileSystems,
      LongConsumer progress,
      Cancellation stop)
      throws IOException {
    Planning planning = new Planning(roots, wanted, by, otherFileSystems, progress);
    boolean byTools = new TreeLook(files, commands, stop).run(roots, otherFileSystems, planning);
    return new TreePlan(
        roots, otherFileSystems, byTools, planning.looked, planning.groups, planning.entries());
  }

  private static final class Planning implements TreeLook.Visitor {
    private final TreeRoots roots;
    private final RightsWish wanted;
    private final Asker by;
    private final boolean otherFileSystems;
    private final LongConsumer progress;
    private final List<PlanGroup> groups = new ArrayList<>();
    private final Map<Key, Integer> byKey = new HashMap<>();
    private final Map<Tag, Integer> tags = new LinkedHashMap<>();
    private final PackedPaths paths = new PackedPaths();
    private long looked;

    Planning(
        TreeRoots roots,
        RightsWish wanted,
        Asker by,
        boolean otherFileSystems,
        LongConsumer progress) {
      this.roots = roots;
      this.wanted = wanted;
      this.by = by;
      this.otherFileSystems = otherFileSystems;
      this.progress = progress;
    }

    @Override
    public void entry(ScannedEntry entry) throws IOException {
      if (++looked % PACE == 0) {
        progress.accept(looked);
      }
      boolean folder = entry.kind() == FileKind.FOLDER;
      if (entry.elsewhere() && !otherFileSystems) {
        other(Fate.OTHER_FILE_SYSTEM, null, entry.path());
      } else if (entry.kind() == FileKind.LINK) {
        other(Fate.LINK, null, entry.path());
      } else if (entry.kind() != FileKind.FILE && !folder) {
        other(Fate.SPECIAL, null, entry.path());
      } else {
        planned(entry, folder);
      }
    }

    private void planned(ScannedEntry entry, boolean folder) throws IOException {
      Rights before = entry.rights();
      String path = roots.wireOf(entry.path());
      TreeRights said = wanted.of(path, folder);
      if (said == null || said.isNothing()) {
        other(Fate.NOT_MEANT, null, entry.path());
        return;
      }
      RightsStep step = new RightsStep(folder, before, said.of(before, folder, by));
      if (step.before().equals(step.after())) {
        other(Fate.SAME, null, entry.path());
      } else if (!TreeRights.mayChange(by, step)) {
        Rights whose = new Rights(before.uid(), before.gid(), new Mode(0));
        other(Fate.NOT_ALLOWED, new RightsStep(false, whose, whose), entry.path());
      } else {
        RightsDanger danger = RightsDanger.of(path, step, by);
        int group = group(new Key(Fate.CHANGED, danger, danger == null ? step.changed() : null));
        groups.get(group).add(entry.path());
        Integer tag = tags.get(new Tag(group, step));
        if (tag == null) {
          tag = tags.size();
          tags.put(new Tag(group, step), tag);
        }
        if (tags.size() > MOST_KINDS) {
          throw new RemoteFailure(
              Reason.TOO_LARGE,
              FileStep.LOOK_THROUGH,
              roots.base(),
              FilePhrase.TOO_MANY_RIGHTS.of(),
              null);
        }
        paths.add(entry.path(), tag, entry.file());
      }
    }

    private void other(Fate fate, @Nullable RightsStep step, String path) {
      groups.get(group(new Key(fate, null, step))).add(path);
    }

    private int group(Key key) {
      Integer known = byKey.get(key);
      if (known == null && byKey.size() >= MOST_GROUPS) {
        Key rest = new Key(key.fate, key.danger, null);
        known = byKey.get(rest);
        return known == null ? add(rest) : known;
      }
      return known == null ? add(key) : known;
    }

    private int add(Key key) {
      groups.add(new PlanGroup(key.fate, key.danger, key.step));
      byKey.put(key, groups.size() - 1);
      return groups.size() - 1;
    }

    @Override
    public void unreadable(String path) {
      other(Fate.UNREADABLE, null, path);
    }

    TreePlan.Entries entries() {
      List<RightsStep> steps = new ArrayList<>();
      List<Integer> inGroup = new ArrayList<>();
      tags.forEach(
          (tag, number) -> {
            steps.add(tag.step);
            inGroup.add(tag.group);
          });
      return new TreePlan.Entries(paths, steps, inGroup);
    }
  }
}
