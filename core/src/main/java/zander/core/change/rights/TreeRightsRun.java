package zander.core.change.rights;

import java.io.IOException;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import zander.core.change.place.EnteredFolder;
import zander.core.change.rights.TreeOutcome.Left;
import zander.core.change.rights.TreeOutcome.Why;
import zander.core.change.rights.TreeRightsTask.Progress;
import zander.core.change.rights.TreeRightsTask.Standing;
import zander.core.connect.command.Commands;
import zander.core.files.FileKind;
import zander.core.files.PathTrust;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteBatch.Look;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
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
  private static final int ROOT = 0;
  private static final int MOST_TOLD = 1000;

  /** So many of those that were left are tried once more alone, to hear why. */
  private static final int MOST_TRIED = 200;

  private static final int PACE = 256;

  /** How an entry stands, in the table. */
  private static final int UNSEEN = 0;

  private static final int READY = 1;
  private static final int ALREADY = 2;
  private static final int CHANGED = 3;
  private static final int OTHER_THING = 4;
  private static final int IN_OPEN_FOLDER = 5;

  /** A folder that a run the other way opened and did not come back to. */
  private static final int LEFT_OPENED = 6;

  private static final int SET = 7;
  private static final int NOT_SET = 8;

  private final RemoteFiles files;
  private final Commands commands;
  private final TreeSteps steps;
  private final List<RightsStep> openings;
  private final PathTable table;
  private final Set<String> openFolders = new HashSet<>();
  private boolean byTools;
  private boolean opened;

  TreeRightsRun(RemoteFiles files, Commands commands, TreeSteps steps) throws IOException {
    this.files = files;
    this.commands = commands;
    this.steps = steps;
    this.openings = steps.steps().stream().map(RightsStep::opening).toList();
    this.table = new PathTable(steps.size());
    steps.paths().forEach(table::put);
  }

  private RightsStep step(int tag) {
    return steps.steps().get(tag);
  }

  TreeOutcome run(long entry, Progress progress, Cancellation stop) throws IOException {
    boolean baseOpen = files.uid() == ROOT && files.othersMayTurn(steps.roots().base().child("x"));
    if (baseOpen) {
      openFolders.add("");
    }
    opened = openings.stream().anyMatch(step -> step != null) && files.uid() != ROOT;
    if (opened) {
      open();
    }
    // What was opened is closed again, so from there on it goes to its end.
    byTools = look(opened ? new Cancellation() : stop, true);
    boolean stopped = !set(progress, stop);
    look(new Cancellation(), false);
    return outcome(entry, stopped);
  }

  private void open() throws IOException {
    try (RightsSetter setter = new ServiceSetter(files, steps.roots())) {
      String[] above = {null};
      steps
          .paths()
          .forEach(
              (path, tag, file) -> {
                if (openings.get(tag) != null) {
                  // One that lies in another has to wait until that one is open.
                  if (above[0] != null && path.startsWith(above[0])) {
                    setter.flush();
                  }
                  setter.set(path, openings.get(tag));
                  above[0] = path.isEmpty() ? "" : path + "/";
                }
              });
      setter.flush();
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
                  learnFolder(entry);
                }
                int at = table.find(entry.path());
                if (at >= 0) {
                  table.setState(at, before ? stateBefore(entry, at) : stateAfter(entry, at));
                }
              }

              @Override
              public void unreadable(String path) {
                // What is in it is not seen, and is told as not in reach.
              }
            });
  }

  private void learnFolder(ScannedEntry entry) {
    if (files.uid() == ROOT && entry.kind() == FileKind.FOLDER) {
      Rights is = entry.rights();
      RemoteAttributes folder =
          new RemoteAttributes(FileKind.FOLDER, 0, is.uid(), is.gid(), is.mode(), 0, 0);
      if (isOpen(entry) || PathTrust.mayTurn(folder, -1, ROOT)) {
        openFolders.add(entry.path());
      }
    }
  }

  private boolean isOpen(ScannedEntry entry) {
    return entry.folder() == null ? openFolders.contains("") : openFolders.contains(entry.folder());
  }

  private int stateBefore(ScannedEntry entry, int at) {
    RightsStep step = step(table.tag(at));
    boolean sameKind = entry.kind() == (step.folder() ? FileKind.FOLDER : FileKind.FILE);
    if (!sameKind) {
      return OTHER_THING;
    }
    if (entry.rights().equals(step.after())) {
      RightsStep first = openings.get(table.tag(at));
      boolean byOpening = opened && first != null && first.after().equals(step.after());
      return byOpening ? READY : ALREADY;
    }
    boolean sameFile = entry.file() == 0 || table.file(at) == 0 || entry.file() == table.file(at);
    if (!sameFile) {
      return OTHER_THING;
    }
    RightsStep opening = openings.get(table.tag(at));
    boolean isOpened = opening != null && entry.rights().equals(opening.after());
    if (!isOpened && !entry.rights().equals(step.before())) {
      RightsStep back = step.reversed().opening();
      return back != null && entry.rights().equals(back.after()) ? LEFT_OPENED : CHANGED;
    }
    return isOpen(entry) ? IN_OPEN_FOLDER : READY;
  }

  private int stateAfter(ScannedEntry entry, int at) {
    int was = table.state(at);
    if (was != READY && was != IN_OPEN_FOLDER && was != LEFT_OPENED) {
      return was;
    }
    return entry.rights().equals(step(table.tag(at)).after()) ? SET : NOT_SET;
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
    } catch (RemoteFailure e) {
      if (e.reason() == Reason.LINE_LOST) {
        throw e;
      }
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
    private RightsStep lastClosing;

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
      int state = table.state(table.find(path));
      RightsStep step = step(tag);
      RightsStep opening = files.uid() == ROOT ? null : openings.get(tag);
      if (state == LEFT_OPENED && !stopped) {
        Rights opened = step.reversed().opening().after();
        byService.set(path, new RightsStep(true, opened, step.after()));
      } else if (state == READY || state == IN_OPEN_FOLDER) {
        Rights now = opening == null ? step.before() : opening.after();
        Rights then = stopped ? step.before() : step.after();
        if (!now.equals(then)) {
          RightsStep next = new RightsStep(folders, now, then);
          if (closes(next) && !next.equals(lastClosing)) {
            byShell.inOrder();
            lastClosing = next;
          }
          (state == READY ? byShell : byService).set(path, next);
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
    long[] count = new long[NOT_SET + 1];
    List<Left> left = new ArrayList<>();
    Tried tried = new Tried();
    Tried unseen = new Tried();
    steps
        .paths()
        .forEach(
            (path, tag, file) -> {
              int state = table.state(table.find(path));
              count[state]++;
              boolean wasSet = state == READY || state == IN_OPEN_FOLDER || state == LEFT_OPENED;
              if (wasSet && unseen.paths.size() < MOST_TOLD) {
                unseen.add(path, tag);
              } else if (state == NOT_SET && !stopped && tried.paths.size() < MOST_TRIED) {
                tried.add(path, tag);
              } else if (state != SET && state != ALREADY && left.size() < MOST_TOLD) {
                left.add(new Left(steps.roots().at(path), why(state, stopped), null));
              }
            });
    long late = unseen.look(left) + tried.again(left);
    long set = count[SET] + late;
    return new TreeOutcome(
        steps.size(),
        set,
        count[ALREADY],
        steps.size() - set - count[ALREADY],
        List.copyOf(left),
        stopped,
        entry);
  }

  private static Why why(int state, boolean stopped) {
    return switch (state) {
      case CHANGED -> Why.CHANGED_SINCE;
      case OTHER_THING -> Why.OTHER_THING;
      case UNSEEN, READY, IN_OPEN_FOLDER, LEFT_OPENED -> Why.GONE;
      default -> stopped ? Why.NOT_COME_TO : Why.REFUSED;
    };
  }

  /** Those that are not as wanted, tried alone, so that the server says why. */
  private final class Tried {
    private final List<RemotePath> paths = new ArrayList<>();
    private final List<RightsStep> wanted = new ArrayList<>();

    void add(String path, int tag) {
      paths.add(steps.roots().at(path));
      wanted.add(step(tag));
    }

    /** Those that listings do not show any more are looked at by name: how many are as wanted. */
    long look(List<Left> left) throws IOException {
      if (paths.isEmpty()) {
        return 0;
      }
      List<Look> found = files.batch().lookAtThemselves(paths);
      long set = 0;
      for (int i = 0; i < paths.size(); i++) {
        RemoteAttributes is = found.get(i).attributes();
        if (is == null) {
          boolean gone = found.get(i).failure().reason() == Reason.NO_SUCH_FILE;
          left.add(new Left(paths.get(i), gone ? Why.GONE : Why.OUT_OF_REACH, null));
        } else if (isAfter(is, i)) {
          set++;
        } else {
          left.add(new Left(paths.get(i), Why.REFUSED, notKept(i)));
        }
      }
      return set;
    }

    private boolean isAfter(RemoteAttributes is, int at) {
      return new Rights(is.uid(), is.gid(), is.mode()).equals(wanted.get(at).after());
    }

    /** How many could be set after all. */
    long again(List<Left> left) throws IOException {
      if (paths.isEmpty()) {
        return 0;
      }
      List<RemoteFailure> why = ServiceSetter.setAll(files, paths, wanted);
      List<RemoteAttributes> now = files.lookAll(paths);
      long set = 0;
      for (int i = 0; i < paths.size(); i++) {
        RemoteAttributes is = now.get(i);
        if (is != null && isAfter(is, i)) {
          set++;
        } else {
          RemoteFailure failure = why.get(i);
          boolean since = failure != null && failure.reason() == Reason.ALREADY_EXISTS;
          left.add(
              new Left(
                  paths.get(i),
                  since ? Why.CHANGED_SINCE : Why.REFUSED,
                  since ? null : failure == null ? notKept(i) : failure));
        }
      }
      return set;
    }

    private RemoteFailure notKept(int at) {
      return new RemoteFailure(
          Reason.NOT_SUPPORTED,
          "set rights",
          paths.get(at),
          "the file system there does not keep them",
          null);
    }
  }

  Standing look(Cancellation stop) throws IOException {
    look(stop, true);
    long[] count = new long[NOT_SET + 1];
    steps.paths().forEach((path, tag, file) -> count[table.state(table.find(path))]++);
    long before = count[READY] + count[IN_OPEN_FOLDER];
    // What is out of reach only until it is opened again is as it was left, as far as is known.
    boolean opens = steps.steps().stream().anyMatch(step -> step.reversed().opening() != null);
    long after = count[ALREADY] + (opens ? count[UNSEEN] : 0);
    return new Standing(before, after, steps.size() - before - after);
  }
}
