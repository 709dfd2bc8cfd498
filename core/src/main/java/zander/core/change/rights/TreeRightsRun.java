package zander.core.change.rights;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.SortedMap;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import zander.core.change.place.EnteredFolder;
import zander.core.change.rights.TreeOutcome.Left;
import zander.core.change.rights.TreeOutcome.Why;
import zander.core.change.rights.TreeRightsTask.Progress;
import zander.core.change.rights.TreeRightsTask.Standing;
import zander.core.change.rights.look.ScannedEntry;
import zander.core.change.rights.look.TreeLook;
import zander.core.connect.command.Commands;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.files.RemoteFiles;
import zander.core.rights.Rights;
import zander.core.rights.RightsStep;
import zander.core.work.Cancellation;

/**
 * One run over a tree: looks again at all that is meant, sets what is still as it was, reads all
 * back.
 *
 * <p>The order keeps every entry in reach: folders that open for their owner are opened first, from
 * the top; files follow; folders get what they are to have at last, from the bottom. So no folder
 * lets others in before what is in it is as wanted.
 */
final class TreeRightsRun {
  private static final int MOST_TOLD = 1000;

  /** So many of those that were left are tried once more alone, to hear why. */
  private static final int MOST_TRIED = 200;

  private static final int PACE = 256;

  private final RemoteFiles files;
  private final Commands commands;
  private final TreeSteps steps;
  private final List<RightsStep> openings;
  private final EntryStates states;
  private boolean byTools;

  /** Whether something may have been set. */
  private boolean begun;

  TreeRightsRun(RemoteFiles files, Commands commands, TreeSteps steps) throws IOException {
    this.files = files;
    this.commands = commands;
    this.steps = steps;
    this.openings = steps.steps().stream().map(RightsStep::opening).toList();
    this.states = new EntryStates(steps, openings, isRoot());
  }

  boolean hasBegun() {
    return begun;
  }

  private boolean isRoot() {
    return files.uid() == EntryStates.ROOT;
  }

  private RightsStep step(int tag) {
    return steps.steps().get(tag);
  }

  TreeOutcome run(long entry, Progress progress, Cancellation stop) throws IOException {
    boolean baseOpen = isRoot() && files.othersMayTurn(steps.roots().base().child("x"));
    if (baseOpen) {
      states.openBase();
    }
    states.opened = openings.stream().anyMatch(step -> step != null) && !isRoot();
    if (states.opened) {
      begun = true;
      open();
    }
    // What was opened is closed again, so from there on it goes to its end.
    byTools = look(states.opened ? new Cancellation() : stop, true);
    begun = true;
    boolean stopped = !set(progress, stop);
    look(new Cancellation(), false);
    return outcome(entry, stopped);
  }

  /** One that lies in another has to wait until that one is open: level by level. */
  private void open() throws IOException {
    SortedMap<Integer, PackedPaths> levels = new TreeMap<>();
    steps
        .paths()
        .forEach(
            (path, tag, file) -> {
              if (openings.get(tag) != null) {
                int depth =
                    path.isEmpty() ? 0 : 1 + (int) path.chars().filter(c -> c == '/').count();
                levels.computeIfAbsent(depth, one -> new PackedPaths()).add(path, tag, file);
              }
            });
    try (RightsSetter setter = new ServiceSetter(files, steps.roots())) {
      for (PackedPaths level : levels.values()) {
        level.forEach((path, tag, file) -> setter.set(path, openings.get(tag)));
        setter.flush();
      }
    }
  }

  /** Looks how all stand; before anything is set, or after. */
  private boolean look(Cancellation stop, boolean before) throws IOException {
    return new TreeLook(files, commands, stop)
        .run(
            steps.roots(),
            steps.otherFileSystems(),
            new TreeLook.Visitor() {
              @Override
              public void entry(ScannedEntry entry) {
                if (before) {
                  states.before(entry);
                } else {
                  states.after(entry);
                }
              }

              @Override
              public void unreadable(String path) {
                // What is in it is not seen, and is told as not in reach.
              }
            });
  }

  /** False when it was stopped before its end. */
  private boolean set(Progress progress, Cancellation stop) throws IOException {
    try (RightsSetter byService = new ServiceSetter(files, steps.roots());
        RightsSetter byShell = shellOr(byService)) {
      Setting setting = new Setting(byShell, byService, progress, stop);
      steps.paths().forEach((path, tag, file) -> setting.take(path, tag, false));
      setting.flush();
      steps.paths().forEachBackwards((path, tag, file) -> setting.take(path, tag, true));
      setting.flush();
      return !setting.stopped;
    } finally {
      files.batch().rightsChanged();
    }
  }

  private RightsSetter shellOr(RightsSetter service) throws IOException {
    if (!byTools) {
      return service;
    }
    String enter = EnteredFolder.enter(files, steps.roots().base());
    try {
      return new ShellSetter(commands, enter);
    } catch (IOException e) {
      if (e instanceof RemoteFailure lost && lost.reason() == Reason.LINE_LOST) {
        throw e;
      }
      // No room for one more session: it is done without.
      return service;
    }
  }

  /** Hands each to what sets it, until it is stopped. */
  private final class Setting {
    private final RightsSetter byShell;
    private final RightsSetter byService;
    private final Progress progress;
    private final Cancellation stop;
    private boolean stopped;
    private long through;
    private @Nullable RightsStep lastClosing;

    Setting(RightsSetter byShell, RightsSetter byService, Progress progress, Cancellation stop) {
      this.byShell = byShell;
      this.byService = byService;
      this.progress = progress;
      this.stop = stop;
    }

    void take(String path, int tag, boolean folders) throws IOException {
      if (step(tag).folder() != folders) {
        return;
      }
      stopped |= stop.isStopped();
      int state = states.of(path);
      RightsStep step = step(tag);
      RightsStep opening = isRoot() ? null : openings.get(tag);
      if (state == EntryStates.LEFT_OPENED && !stopped) {
        Rights opened = Objects.requireNonNull(step.reversed().opening()).after();
        byService.set(path, new RightsStep(true, opened, step.after()));
      } else if (state == EntryStates.READY || state == EntryStates.IN_OPEN_FOLDER) {
        Rights now = opening == null ? step.before() : opening.after();
        Rights then = stopped ? step.before() : step.after();
        if (!now.equals(then)) {
          RightsStep next = new RightsStep(folders, now, then);
          if (closes(next) && !next.equals(lastClosing)) {
            byShell.inOrder();
            lastClosing = next;
          }
          (state == EntryStates.READY ? byShell : byService).set(path, next);
        }
      }
      if (++through % PACE == 0) {
        progress.at(through, steps.size());
      }
    }

    /** Whether its owner can go into a folder no more: what is in it has to be set before. */
    private static boolean closes(RightsStep next) {
      return next.folder() && next.reversed().opening() != null;
    }

    void flush() throws IOException {
      byShell.flush();
      byService.flush();
    }
  }

  private TreeOutcome outcome(long entry, boolean stopped) throws IOException {
    long[] count = new long[EntryStates.NOT_SET + 1];
    List<Left> left = new ArrayList<>();
    DoubtfulEntries tried = new DoubtfulEntries(files);
    DoubtfulEntries unseen = new DoubtfulEntries(files);
    steps
        .paths()
        .forEach(
            (path, tag, file) -> {
              int state = states.of(path);
              count[state]++;
              boolean wasSet =
                  state == EntryStates.READY
                      || state == EntryStates.IN_OPEN_FOLDER
                      || state == EntryStates.LEFT_OPENED;
              if (wasSet && unseen.size() < MOST_TOLD) {
                unseen.add(steps.roots().at(path), step(tag));
              } else if (state == EntryStates.NOT_SET && !stopped && tried.size() < MOST_TRIED) {
                tried.add(steps.roots().at(path), step(tag));
              } else if (state != EntryStates.SET
                  && state != EntryStates.ALREADY
                  && left.size() < MOST_TOLD) {
                left.add(new Left(steps.roots().at(path), why(state, stopped), null));
              }
            });
    long late = unseen.look(left) + tried.again(left);
    long set = count[EntryStates.SET] + late;
    return new TreeOutcome(
        steps.size(),
        set,
        count[EntryStates.ALREADY],
        steps.size() - set - count[EntryStates.ALREADY],
        List.copyOf(left),
        stopped,
        entry);
  }

  private static Why why(int state, boolean stopped) {
    return switch (state) {
      case EntryStates.CHANGED -> Why.CHANGED_SINCE;
      case EntryStates.OTHER_THING -> Why.OTHER_THING;
      case EntryStates.UNSEEN,
          EntryStates.READY,
          EntryStates.IN_OPEN_FOLDER,
          EntryStates.LEFT_OPENED ->
          Why.GONE;
      default -> stopped ? Why.NOT_COME_TO : Why.REFUSED;
    };
  }

  /** Looks how all stand; changes nothing. */
  Standing standing() throws IOException {
    look(new Cancellation(), true);
    long[] count = new long[EntryStates.NOT_SET + 1];
    steps.paths().forEach((path, tag, file) -> count[states.of(path)]++);
    long before = count[EntryStates.READY] + count[EntryStates.IN_OPEN_FOLDER];
    // What is out of reach only until it is opened again is as it was left, as far as is known.
    boolean opens = steps.steps().stream().anyMatch(step -> step.reversed().opening() != null);
    long after = count[EntryStates.ALREADY] + (opens ? count[EntryStates.UNSEEN] : 0);
    return new Standing(before, after, steps.size() - before - after);
  }
}
