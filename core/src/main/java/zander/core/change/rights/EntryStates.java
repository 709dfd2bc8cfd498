package zander.core.change.rights;

import java.io.IOException;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import zander.core.change.rights.look.ScannedEntry;
import zander.core.files.FileKind;
import zander.core.files.PathTrust;
import zander.core.files.RemoteAttributes;
import zander.core.rights.Rights;
import zander.core.rights.RightsStep;

/** How the entries of a change stand, by what was found of them. Used by one thread. */
final class EntryStates {
  static final int ROOT = 0;

  /** How an entry stands, in the table. */
  static final int UNSEEN = 0;

  static final int READY = 1;
  static final int ALREADY = 2;
  static final int CHANGED = 3;
  static final int OTHER_THING = 4;
  static final int IN_OPEN_FOLDER = 5;

  /** A folder that a run the other way opened and did not come back to. */
  static final int LEFT_OPENED = 6;

  static final int SET = 7;
  static final int NOT_SET = 8;

  private final List<RightsStep> steps;
  private final List<RightsStep> openings;
  private final PathTable table;
  private final boolean asRoot;
  private final Set<String> openFolders = new HashSet<>();

  /** Whether folders were opened first, so that what is as wanted may be so by that. */
  boolean opened;

  EntryStates(TreeSteps all, List<RightsStep> openings, boolean asRoot) throws IOException {
    this.steps = all.steps();
    this.openings = openings;
    this.asRoot = asRoot;
    this.table = new PathTable(all.size());
    all.paths().forEach(table::put);
  }

  /** Others can turn what is in the base. */
  void openBase() {
    openFolders.add("");
  }

  int of(String path) {
    return table.state(table.find(path));
  }

  /** What was found before anything is set. */
  void before(ScannedEntry entry) {
    learnFolder(entry);
    int at = table.find(entry.path());
    if (at >= 0) {
      table.setState(at, stateBefore(entry, at));
    }
  }

  /** What was found after it. */
  void after(ScannedEntry entry) {
    int at = table.find(entry.path());
    if (at >= 0) {
      table.setState(at, stateAfter(entry, at));
    }
  }

  private RightsStep step(int tag) {
    return steps.get(tag);
  }

  private void learnFolder(ScannedEntry entry) {
    if (asRoot && entry.kind() == FileKind.FOLDER) {
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
}
