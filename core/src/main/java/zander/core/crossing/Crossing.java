package zander.core.crossing;

import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CancellationException;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicLong;
import zander.core.crossing.Deciding.Verdict;
import zander.core.crossing.Loads.Work;
import zander.core.crossing.Progress.Phase;
import zander.core.files.FileKind;
import zander.core.files.RemoteBatch;
import zander.core.work.BlockingCalls;
import zander.core.work.Cancellation;
import zander.core.work.Workers;

/**
 * Carries files and folders from one side to the other with everything in them.
 *
 * <p>Both sides are scanned folder by folder, and what is found is carried while the scan goes on,
 * so that a tree of any size needs little memory. Small files go in loads, large ones by
 * themselves; how, each {@link Side} decides. One file that fails does not stop the rest.
 */
public final class Crossing {
  private static final int SCANNERS = 16;
  private static final int CARRIERS = 28;

  /** Large files that are carried at once. */
  private static final int LARGE = 6;

  private static final Duration PATIENCE = Duration.ofSeconds(5);

  /** So many files may be found and not yet carried. */
  private static final int MOST_FOUND = 8192;

  /** The longest path that systems take (POSIX {@code PATH_MAX} where it is known), in bytes. */
  private static final int LONGEST_PATH = 4096;

  /** A chain of links to folders that is longer leads round. */
  private static final int MOST_FOLLOWED = 8;

  private final Side source;
  private final Side target;
  private final Rules rules;
  private final Tally tally = new Tally();
  private final Gate gate;
  private final Trace trace;
  private final Steps steps;
  private final Deciding deciding;
  private final Carrying carrying;
  private final Outstanding outstanding = new Outstanding();
  private final Semaphore room = new Semaphore(MOST_FOUND);
  private final Straight straight;
  private final Loads loads;
  private final FolderFinish finish;
  private final OpenFolder top;

  /** Folders that are still to be scanned, and the top. */
  private final AtomicLong scans = new AtomicLong(1);

  private Workers scanners;
  private Workers carriers;
  private Workers largeCarriers;
  private Ahead ahead;

  public Crossing(
      Side source, Side target, WhenExists rule, ExistsTalk talk, Cancellation cancellation) {
    this(source, target, Rules.of(rule), talk, cancellation, LostLine.ENDS_IT, Trace.NONE);
  }

  /**
   * @param lostLine what to do when the line to a side breaks
   * @param trace what an earlier try left, and where this one leaves its own
   */
  public Crossing(
      Side source,
      Side target,
      Rules rules,
      ExistsTalk talk,
      Cancellation cancellation,
      LostLine lostLine,
      Trace trace) {
    this.source = source;
    this.target = target;
    this.rules = rules;
    this.trace = trace;
    this.gate = new Gate(cancellation);
    this.steps = new Steps(source, target, cancellation, lostLine, tally);
    this.deciding = new Deciding(target, rules.whenExists(), talk, trace.continues(), tally);
    this.straight = straight(source, target);
    this.carrying = new Carrying(source, target, rules, steps, tally, gate, trace, straight);
    this.loads =
        new Loads(
            straight == null ? Loads.Bounds.HERE : Loads.Bounds.STRAIGHT,
            this::onCarrier,
            this::carryLoad);
    this.finish = new FolderFinish(target, steps, trace);
    this.top = new OpenFolder(finish::add);
    cancellation.onStop(() -> outstanding.end(new CancellationException("stopped")));
    if (straight != null) {
      cancellation.onStop(straight::giveUp);
    }
    if (target instanceof RemoteSide remote) {
      remote.giveTo(rules.owner(), rules.group());
    }
  }

  private Straight straight(Side from, Side to) {
    if (from instanceof RemoteSide source
        && to instanceof RemoteSide goal
        && source.mayGoStraight()) {
      Straight way = new Straight(source, goal, tally::carried);
      goal.comesBy(way);
      return way;
    }
    return null;
  }

  /** Where it stands; may be asked from any thread, does not wait. */
  public Progress progress() {
    String carrier = target.carrier().isEmpty() ? source.carrier() : target.carrier();
    return tally.now(gate.isPaused(), carrier);
  }

  /** Pauses it, and limits its rate. */
  public Gate gate() {
    return gate;
  }

  /**
   * Carries the named entries of the source folder. Waits until all is done, stopped or broken;
   * {@link #progress} tells which, and every file that did not make it.
   *
   * @param names in wire form
   */
  public Progress run(List<String> names) {
    BlockingCalls.check("a crossing");
    scanners = new Workers("crossing-scan", SCANNERS);
    carriers = new Workers("crossing", CARRIERS);
    largeCarriers = new Workers("crossing-large", LARGE);
    ahead = new Ahead(source, target, rules, scanners, this::onCarrier);
    Phase end = Phase.DONE;
    try {
      outstanding.begin();
      scanners.submit(() -> guarded(() -> roots(names)));
      outstanding.await();
      outstanding.throwIfEnded();
      finish.flush();
    } catch (CancellationException e) {
      end = Phase.STOPPED;
    } catch (Steps.Broken e) {
      tally.problem(e.path, e.getMessage(), false, "");
      end = Phase.BROKEN;
    } finally {
      if (end == Phase.STOPPED && !endsSoon()) {
        source.giveUp();
        target.giveUp();
      }
      // Nothing is written after the end has been told.
      scanners.closeAndAwait();
      carriers.closeAndAwait();
      largeCarriers.closeAndAwait();
    }
    if (end != Phase.BROKEN) {
      tidyUp();
    }
    if (straight != null) {
      straight.end();
    }
    source.end();
    target.end();
    tally.phase(end);
    return progress();
  }

  /**
   * What is under way is let come to its end, but a program that says nothing is not waited for.
   */
  private boolean endsSoon() {
    scanners.close();
    carriers.close();
    return carriers.awaitFor(PATIENCE);
  }

  private void tidyUp() {
    try {
      source.tidyUp();
      target.tidyUp();
    } catch (java.io.IOException e) {
      // The line went at the very end: what is left carries the crossing's mark and is found later.
    }
  }

  private boolean guarded(Runnable work) {
    try {
      outstanding.throwIfEnded();
      work.run();
    } catch (RuntimeException | Error e) {
      outstanding.end(e instanceof RuntimeException known ? known : new IllegalStateException(e));
    } finally {
      outstanding.done();
    }
    return true;
  }

  private void onCarrier(Runnable work) {
    on(carriers, work);
  }

  private void on(Workers workers, Runnable work) {
    outstanding.begin();
    workers.submit(() -> guarded(work));
  }

  private void roots(List<String> names) {
    ahead.list(names);
    List<Node> nodes = steps.attempt("", () -> source.lookAll(names));
    List<Node> found = new ArrayList<>();
    for (int i = 0; nodes != null && i < names.size(); i++) {
      if (nodes.get(i) == null) {
        steps.problem(names.get(i), "it is not there any more", false);
      } else {
        found.add(nodes.get(i));
      }
    }
    if (straight == null) {
      found.stream().filter(Pairs::isFolder).findFirst().ifPresent(ahead::expect);
    }
    contents(top, found);
    scanned();
  }

  private void scanned() {
    if (scans.decrementAndGet() == 0) {
      loads.flush();
      tally.allCounted();
    }
  }

  /** What was decided after the last folder was scanned must not wait for more. */
  private void flushIfLate() {
    if (scans.get() == 0) {
      loads.flush();
    }
  }

  private void scan(OpenFolder folder) {
    tally.begin(source.show(folder.from));
    List<Node> children = steps.attempt(folder.from, () -> ahead.children(folder.from));
    contents(folder, children == null ? List.of() : children);
    scanned();
  }

  private void contents(OpenFolder folder, List<Node> children) {
    Pairs pairs =
        children.isEmpty()
            ? null
            : steps.attempt(
                folder.from,
                () -> Pairs.of(children, target, folder.existed ? folder.to : null, false));
    if (pairs != null) {
      List<Item> toMake = new ArrayList<>();
      List<Item> links = new ArrayList<>();
      for (Pairs.Pair pair : pairs.both()) {
        outstanding.throwIfEnded();
        found(folder, pair, toMake, links);
      }
      makeFolders(folder, toMake, links);
    }
    folder.leave();
  }

  /**
   * @param toMake gets what is a folder and not there yet
   * @param links gets those of them that are followed links
   */
  private void found(OpenFolder folder, Pairs.Pair pair, List<Item> toMake, List<Item> links) {
    Node node = pair.node();
    String from = Side.join(folder.from, node.name());
    String to = Side.join(folder.to, node.name());
    if (from.length() > LONGEST_PATH) {
      steps.problem(from.substring(0, 200), "the path is longer than any system takes", false);
      return;
    }
    boolean link = node.kind() == FileKind.LINK;
    if (rules.leaveOut().by(from, node.kind() == FileKind.FOLDER) != null
        || (link && rules.links() == Rules.Links.LEFT_OUT)) {
      tally.leftOut();
      return;
    }
    if (link && rules.links() == Rules.Links.FOLLOWED) {
      Node behind = steps.attempt(from, () -> source.lookThrough(from));
      if (behind == null || (Pairs.isFolder(behind) && folder.followed >= MOST_FOLLOWED)) {
        steps.problem(
            from, behind == null ? "it is a link that leads nowhere" : "it leads round", false);
        return;
      }
      node = behind;
    }
    boolean isFolder = Pairs.isFolder(node);
    Item item =
        new Item(
            from,
            to,
            node,
            pair.there(),
            node != pair.node(),
            rules.modeFor(node, isFolder),
            rules.timeFor(node));
    if (isFolder && Pairs.isFolder(pair.there())) {
      boolean madeBefore = trace.foldersBefore().contains(to);
      submitScan(folder.child(item, true, madeBefore, link));
    } else if (isFolder && pair.there() == null) {
      toMake.add(item);
      if (link) {
        links.add(item);
      }
    } else {
      file(folder, item);
    }
  }

  private void submitScan(OpenFolder folder) {
    scans.incrementAndGet();
    outstanding.begin();
    scanners.submit(() -> guarded(() -> scan(folder)));
  }

  private void makeFolders(OpenFolder folder, List<Item> toMake, List<Item> links) {
    if (toMake.isEmpty()) {
      return;
    }
    if (scans.get() <= 1) {
      ahead.list(toMake.stream().map(Item::from).toList());
    }
    boolean[] tried = {false};
    List<Boolean> made =
        steps.attempt(
            folder.from,
            () -> {
              List<Boolean> done = new ArrayList<>();
              List<Node> there =
                  tried[0] ? target.lookAll(toMake.stream().map(Item::to).toList()) : null;
              List<Item> left = new ArrayList<>();
              for (int i = 0; i < toMake.size(); i++) {
                // Made just before the line broke; only the answer was lost.
                if (there == null || !Pairs.isFolder(there.get(i))) {
                  left.add(toMake.get(i));
                }
              }
              tried[0] = true;
              List<java.io.IOException> failures = target.makeFolders(left);
              for (Item item : toMake) {
                int at = left.indexOf(item);
                java.io.IOException failure = at < 0 ? null : failures.get(at);
                if (failure != null) {
                  steps.failed(item.from(), failure);
                }
                done.add(failure == null);
              }
              return done;
            });
    for (int i = 0; made != null && i < toMake.size(); i++) {
      Item item = toMake.get(i);
      if (made.get(i)) {
        trace.folderMade(item.to());
        submitScan(folder.child(item, false, true, links.contains(item)));
      }
    }
  }

  /** A file, a link, or a folder where something else is: decided, and carried or not. */
  private void file(OpenFolder folder, Item item) {
    if (item.node().kind() != FileKind.FOLDER) {
      tally.counted(item.node().size());
    }
    if (item.node().kind() == FileKind.OTHER) {
      steps.problem(item.from(), "not a file, folder or link: left out", false);
      tally.skip(0);
      return;
    }
    takeRoom();
    folder.expect();
    settle(folder, item, deciding.on(item));
  }

  /** Waits while too much is found and not yet carried. */
  private void takeRoom() {
    try {
      while (!room.tryAcquire()) {
        loads.flush();
        outstanding.throwIfEnded();
        if (room.tryAcquire(200, TimeUnit.MILLISECONDS)) {
          return;
        }
      }
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new CancellationException("interrupted");
    }
  }

  private void over(OpenFolder folder) {
    room.release();
    folder.leave();
  }

  private void settle(OpenFolder folder, Item item, Verdict verdict) {
    switch (verdict) {
      case GO -> go(folder, item);
      case SKIP -> {
        tally.skip(item.node().size());
        over(folder);
      }
      case IS_SAME -> {
        tally.same(item.node().size());
        over(folder);
      }
      case COMPARE ->
          onCarrier(
              () -> {
                settle(folder, item, compared(item));
                flushIfLate();
              });
      case BESIDE -> onCarrier(() -> beside(folder, item));
      case ASK -> {
        outstanding.begin();
        boolean first =
            deciding.putAside(
                item,
                folder,
                (asked, answer) -> {
                  settle(folder, asked, answer);
                  flushIfLate();
                  outstanding.done();
                });
        if (first) {
          onCarrier(deciding::askAll);
        }
      }
    }
  }

  private Verdict compared(Item item) {
    Boolean equal =
        steps.attempt(
            item.from(), () -> source.digest(item.from(), -1).equals(target.digest(item.to(), -1)));
    return equal == null ? Verdict.SKIP : equal ? Verdict.IS_SAME : Verdict.GO;
  }

  private void beside(OpenFolder folder, Item item) {
    String place = steps.attempt(item.from(), () -> deciding.freeName(item.to()));
    if (place == null) {
      settle(folder, item, Verdict.SKIP);
    } else if (item.node().kind() == FileKind.FOLDER) {
      makeFolders(folder, List.of(item.to(place)), List.of());
      over(folder);
    } else {
      go(folder, item.to(place));
      flushIfLate();
    }
  }

  private void go(OpenFolder folder, Item item) {
    if (item.node().kind() == FileKind.LINK) {
      onCarrier(
          () -> {
            carrying.link(item);
            over(folder);
          });
    } else if (item.node().size() > (straight == null ? RemoteBatch.LARGEST : Straight.LARGE)) {
      on(
          largeCarriers,
          () -> {
            carrying.large(item);
            over(folder);
          });
    } else {
      loads.add(new Work(item, folder));
    }
  }

  private void carryLoad(List<Work> load) {
    outstanding.throwIfEnded();
    carrying.load(
        load.stream().map(Work::item).toList(),
        () -> {
          load.forEach(work -> over(work.folder()));
          if (top.isFull()) {
            // With the last answers, not after them.
            finish.flush();
          }
        },
        () -> load.stream().map(Work::folder).distinct().forEach(OpenFolder::cameLate));
  }
}
