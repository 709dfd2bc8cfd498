package zander.core.crossing;

import java.io.IOException;
import java.io.InputStream;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.List;
import java.util.concurrent.CancellationException;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.Future;
import zander.core.crossing.Progress.Phase;
import zander.core.files.FileKind;
import zander.core.rights.Mode;
import zander.core.work.BlockingCalls;
import zander.core.work.Cancellation;
import zander.core.work.Workers;

/**
 * Carries files and folders from one side to the other with everything in them.
 *
 * <p>The source is counted first. Folders are made as they come; files are carried several at a
 * time, each under a temporary name until it is whole; the modes and times of new folders are set
 * last, because filling a folder changes its time and a closed folder could not be filled. One file
 * that fails does not stop the rest.
 */
public final class Crossing {
  private static final int AT_ONCE = 16;
  private static final int BUFFER = 256 * 1024;

  /** Something below the source: where it is, where it goes, and what it was when counted. */
  private record Item(String from, String to, Node node) {}

  private final Side source;
  private final Side target;
  private final Existing existing;
  private final Cancellation cancellation;
  private final LostLine lostLine;
  private final Tally tally = new Tally();

  /** The folders this crossing made. */
  private final List<Item> folders = new ArrayList<>();

  public Crossing(
      Side source, Side target, WhenExists rule, ExistsTalk talk, Cancellation cancellation) {
    this(source, target, rule, talk, cancellation, LostLine.ENDS_IT);
  }

  /**
   * @param lostLine what to do when the line to a side breaks
   */
  public Crossing(
      Side source,
      Side target,
      WhenExists rule,
      ExistsTalk talk,
      Cancellation cancellation,
      LostLine lostLine) {
    this.lostLine = lostLine;
    this.source = source;
    this.target = target;
    this.existing = new Existing(target, rule, talk);
    this.cancellation = cancellation;
  }

  /** Where it stands; may be asked from any thread, does not wait. */
  public Progress progress() {
    return tally.now();
  }

  /**
   * Carries the named entries of the source folder. Waits until all is done, stopped or broken;
   * {@link #progress} tells which, and every file that did not make it.
   *
   * @param names in wire form
   */
  public Progress run(List<String> names) {
    BlockingCalls.check("a crossing");
    try (Workers carriers = new Workers("crossing", AT_ONCE)) {
      List<Item> roots = new ArrayList<>();
      for (String name : names) {
        Node node = attempt(name, () -> source.look(name));
        if (node == null) {
          tally.problem(source.show(name), "it is not there any more", false);
        } else {
          roots.add(new Item(name, name, node));
        }
      }
      List<Item> counted = new ArrayList<>();
      for (Item root : roots) {
        count(root.from(), root.node(), counted);
      }
      tally.phase(Phase.CARRYING);
      carry(counted, carriers);
      finishFolders();
      attempt(
          "",
          () -> {
            source.tidyUp();
            target.tidyUp();
            return true;
          });
      tally.phase(Phase.DONE);
    } catch (CancellationException e) {
      tally.phase(Phase.STOPPED);
    } catch (Broken e) {
      tally.problem(e.path, e.getMessage(), false);
      tally.phase(Phase.BROKEN);
    }
    return tally.now();
  }

  /** The end of a whole crossing. */
  private static final class Broken extends RuntimeException {
    private final String path;

    Broken(String path, String why) {
      super(why);
      this.path = path;
    }
  }

  private interface Step<T> {
    T run() throws IOException;
  }

  /** Runs a step for one path: a failure is noted and gives {@code null}; a lost line ends all. */
  private <T> T attempt(String path, Step<T> step) {
    while (true) {
      cancellation.throwIfStopped();
      try {
        return step.run();
      } catch (IOException e) {
        String why = e instanceof Side.NameNotPossible ? e.getMessage() : sideOf(e).why(e);
        if (!source.isLost(e) && !target.isLost(e)) {
          tally.problem(source.show(path), why, false);
          return null;
        }
        awaitLine(path, why);
      }
    }
  }

  /** Returns when the line is back and the step can be done again; ends the crossing otherwise. */
  private void awaitLine(String path, String why) {
    tally.away(true);
    try {
      if (!lostLine.awaitNext()) {
        cancellation.throwIfStopped();
        throw new Broken(source.show(path), why);
      }
    } finally {
      tally.away(false);
    }
  }

  private Side sideOf(IOException e) {
    boolean remote = e instanceof zander.core.files.RemoteFailure;
    return remote == (source instanceof RemoteSide) ? source : target;
  }

  private void count(String path, Node node, List<Item> into) {
    cancellation.throwIfStopped();
    into.add(new Item(path, path, node));
    if (node.kind() != FileKind.FOLDER) {
      tally.counted(node.size());
      return;
    }
    tally.begin(source.show(path));
    List<Node> children = attempt(path, () -> source.list(path));
    if (children != null) {
      List<Node> inOrder = new ArrayList<>(children);
      inOrder.sort(Comparator.comparing(Node::name));
      for (Node child : inOrder) {
        count(Side.join(path, child.name()), child, into);
      }
    }
  }

  /** Items come parents first, so a folder is there, or given up, before what is in it. */
  private void carry(List<Item> counted, Workers carriers) {
    List<Future<?>> underWay = new ArrayList<>();
    String givenUp = null;
    String movedFrom = null;
    String movedTo = null;
    try {
      for (Item item : counted) {
        cancellation.throwIfStopped();
        String to = item.to();
        if (givenUp != null && isBelow(to, givenUp)) {
          leaveOut(item);
          continue;
        }
        if (movedFrom != null && isBelow(to, movedFrom)) {
          to = movedTo + to.substring(movedFrom.length());
        }
        if (item.node().kind() == FileKind.FOLDER) {
          String place = makeFolder(item, to);
          if (place == null) {
            givenUp = item.to();
          } else if (!place.equals(to)) {
            movedFrom = item.to();
            movedTo = place;
          }
        } else {
          Item moved = new Item(item.from(), to, item.node());
          underWay.add(
              carriers.submit(
                  () -> {
                    carryOne(moved);
                    return true;
                  }));
        }
      }
    } finally {
      await(underWay);
    }
  }

  private static boolean isBelow(String path, String folder) {
    return path.startsWith(folder + "/");
  }

  private void leaveOut(Item item) {
    if (item.node().kind() != FileKind.FOLDER) {
      tally.skip(item.node().size());
    }
  }

  private static void await(List<Future<?>> underWay) {
    RuntimeException first = null;
    for (Future<?> one : underWay) {
      try {
        one.get();
      } catch (ExecutionException e) {
        if (first == null && e.getCause() instanceof RuntimeException cause) {
          first = cause;
        }
      } catch (InterruptedException e) {
        Thread.currentThread().interrupt();
        throw new CancellationException("interrupted");
      }
    }
    if (first != null) {
      throw first;
    }
  }

  /** The place where the folder's content goes; {@code null} when it is skipped or failed. */
  private String makeFolder(Item item, String to) {
    boolean[] tried = {false};
    return attempt(
        item.from(),
        () -> {
          Node there = target.look(to);
          String place = to;
          if (tried[0] && there != null && there.kind() == FileKind.FOLDER) {
            // Made just before the line broke; only the answer was lost.
            folders.add(new Item(item.from(), place, item.node()));
            return place;
          }
          if (there != null && there.kind() != FileKind.FOLDER) {
            place = existing.placeFor(to, item.node(), there);
            there = null;
          }
          if (place == null) {
            return null;
          }
          if (there == null) {
            // Open for filling; its real mode is set when everything is in it. A folder that was
            // there keeps its own.
            tried[0] = true;
            target.makeFolder(place, new Mode((item.node().mode().bits() & 0777) | 0700));
            folders.add(new Item(item.from(), place, item.node()));
          }
          return place;
        });
  }

  private void carryOne(Item item) {
    cancellation.throwIfStopped();
    Node node = item.node();
    tally.begin(source.show(item.from()));
    String[] arriving = {null};
    boolean ok =
        Boolean.TRUE.equals(
            attempt(
                item.from(),
                () -> {
                  if (node.kind() == FileKind.OTHER) {
                    tally.problem(
                        source.show(item.from()), "not a file, folder or link: left out", false);
                    return false;
                  }
                  if (arriving[0] != null && isAt(arriving[0], node)) {
                    // Put in its place just before the line broke; only the answer was lost.
                    return true;
                  }
                  Node there = target.look(item.to());
                  String place =
                      there == null ? item.to() : existing.placeFor(item.to(), node, there);
                  if (place == null) {
                    return false;
                  }
                  arriving[0] = place;
                  Node replacing = there != null && place.equals(item.to()) ? there : null;
                  if (node.kind() == FileKind.LINK) {
                    target.makeLink(place, node.target(), replacing != null);
                  } else {
                    carryFile(item, place, replacing);
                  }
                  return true;
                }));
    if (ok) {
      tally.fileDone();
    } else {
      tally.skip(node.size());
    }
  }

  private boolean isAt(String place, Node node) throws IOException {
    Node there = target.look(place);
    return there != null
        && there.kind() == node.kind()
        && there.size() == node.size()
        && (node.kind() == FileKind.LINK
            ? node.target().equals(there.target())
            : there.modified() == node.modified() && there.mode().equals(node.mode()));
  }

  private void carryFile(Item item, String place, Node replacing) throws IOException {
    byte[] buffer = new byte[(int) Math.max(1, Math.min(BUFFER, item.node().size() + 1))];
    long carried = 0;
    try (InputStream in = source.read(item.from());
        Side.Incoming incoming = target.create(place, replacing)) {
      for (int count; (count = in.read(buffer)) >= 0; ) {
        cancellation.throwIfStopped();
        incoming.write(buffer, 0, count);
        tally.carried(count);
        carried += count;
      }
      String lost = incoming.arrive(item.node().mode(), item.node().modified());
      if (lost != null) {
        tally.problem(target.show(place), lost, true);
      }
    } catch (IOException e) {
      tally.carried(-carried);
      throw e;
    }
    tally.correct(item.node().size(), carried);
  }

  /** Deepest first, so that setting one does not touch the time of another already set. */
  private void finishFolders() {
    Collections.reverse(folders);
    for (Item folder : folders) {
      attempt(
          folder.from(),
          () -> {
            target.setFolderRights(folder.to(), folder.node().mode(), folder.node().modified());
            return true;
          });
    }
  }
}
