package zander.core.transfer;

import static java.util.Objects.requireNonNull;

import java.io.IOException;
import java.time.Duration;
import java.util.List;
import java.util.concurrent.CancellationException;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import org.jspecify.annotations.Nullable;
import zander.core.files.FileKind;
import zander.core.files.RemoteBatch;
import zander.core.phrase.Phrase;
import zander.core.phrase.TransferPhrase;
import zander.core.transfer.BatchAssembler.Work;
import zander.core.transfer.endpoint.DirectRoute;
import zander.core.transfer.endpoint.Endpoint;
import zander.core.transfer.endpoint.Source;
import zander.core.transfer.endpoint.Target;
import zander.core.transfer.endpoint.TransferItem;
import zander.core.transfer.progress.Progress;
import zander.core.transfer.progress.Progress.Phase;
import zander.core.transfer.progress.ProgressCounter;
import zander.core.transfer.progress.RateLimiter;
import zander.core.transfer.resume.ResumeLog;
import zander.core.transfer.rules.ConflictPrompt;
import zander.core.transfer.rules.ConflictRule;
import zander.core.transfer.rules.Decision;
import zander.core.transfer.rules.DiskFullPrompt;
import zander.core.transfer.rules.KeptModes;
import zander.core.transfer.rules.ReconnectPrompt;
import zander.core.transfer.rules.TransferRules;
import zander.core.work.BlockingCalls;
import zander.core.work.Cancellation;
import zander.core.work.Workers;

/**
 * Carries files and folders from one side to the other with everything in them.
 *
 * <p>Both sides are scanned folder by folder, and what is found is carried while the scan goes on,
 * so that a tree of any size needs little memory. Small files go in loads, large ones by
 * themselves; how, each {@link Endpoint} decides. One file that fails does not stop the rest.
 */
public final class Transfer {
  private static final int CARRIERS = 28;

  /** Large files that are carried at once. */
  private static final int LARGE = 6;

  private static final Duration PATIENCE = Duration.ofSeconds(5);

  /** So many files may be found and not yet carried. */
  private static final int MOST_FOUND = 8192;

  private final Source source;
  private final Target target;
  private final ProgressCounter counter = new ProgressCounter();
  private final RateLimiter limiter;
  private final Retrier retrier;
  private final ConflictResolver conflicts;
  private final TransferContext context;
  private final LargeFileTransfer largeFiles;
  private final SmallFileTransfer smallFileTransfer;
  private final TaskGroup tasks = new TaskGroup();
  private final Semaphore room = new Semaphore(MOST_FOUND);
  private final @Nullable DirectRoute direct;
  private final BatchAssembler batches;
  private final FolderCompletion finish;
  private final PendingFolder top;

  private @Nullable KeptModes keptModes;
  private @Nullable UnderWay under;

  /** What works while it runs. */
  private record UnderWay(Workers carriers, Workers largeCarriers, TreeScan scan) {
    void closeAndAwait() {
      scan.closeAndAwait();
      carriers.closeAndAwait();
      largeCarriers.closeAndAwait();
    }
  }

  public Transfer(
      Source source,
      Target target,
      ConflictRule rule,
      ConflictPrompt prompt,
      Cancellation cancellation) {
    this(source, target, TransferRules.of(rule), prompt, cancellation, ResumeLog.NONE);
  }

  /**
   * @param resumeLog what an earlier try left, and where this one leaves its own
   */
  public Transfer(
      Source source,
      Target target,
      TransferRules rules,
      ConflictPrompt prompt,
      Cancellation cancellation,
      ResumeLog resumeLog) {
    this.source = source;
    this.target = target;
    this.limiter = new RateLimiter(cancellation);
    this.retrier = new Retrier(source, target, cancellation, counter);
    this.conflicts =
        new ConflictResolver(
            source, target, rules.whenExists(), prompt, resumeLog.continues(), counter);
    DirectRoute route = target.directRouteFrom(source, counter::carried);
    this.direct = route;
    this.context =
        new TransferContext(source, target, rules, retrier, counter, limiter, resumeLog, route);
    this.largeFiles = new LargeFileTransfer(context);
    this.smallFileTransfer = new SmallFileTransfer(context, largeFiles, cancellation);
    this.batches =
        new BatchAssembler(
            route == null ? BatchAssembler.Bounds.HERE : BatchAssembler.Bounds.STRAIGHT,
            this::onCarrier,
            this::carryLoad);
    this.finish = new FolderCompletion(target, retrier, resumeLog);
    this.top = new PendingFolder(finish::add);
    cancellation.onStop(() -> tasks.end(new CancellationException("stopped")));
    if (direct != null) {
      cancellation.onStop(direct::giveUp);
    }
    target.giveTo(rules.owner(), rules.group());
  }

  /** What to do when the side that receives is full; before {@link #run}. */
  public Transfer whenFull(DiskFullPrompt prompt) {
    retrier.whenFull(prompt);
    return this;
  }

  /** What to do when the line to a side breaks; before {@link #run}. It ends there otherwise. */
  public Transfer whenLineBreaks(ReconnectPrompt prompt) {
    retrier.whenLineBreaks(prompt);
    return this;
  }

  /** The modes that the target keeps, for rules that ask for them; before {@link #run}. */
  public Transfer keepModes(@Nullable KeptModes modes) {
    keptModes = modes;
    return this;
  }

  /** Where it stands; may be asked from any thread, does not wait. */
  public Progress progress() {
    Phrase carrier = target.carrier() == null ? source.carrier() : target.carrier();
    return counter.now(limiter.isPaused(), carrier);
  }

  /** Pauses it, and limits its rate. */
  public RateLimiter limiter() {
    return limiter;
  }

  /**
   * Carries the named entries of the source folder. Waits until all is done, stopped or broken;
   * {@link #progress} tells which, and every file that did not make it.
   *
   * @param names in wire form
   */
  public Progress run(List<String> names) {
    BlockingCalls.check("a transfer");
    under =
        new UnderWay(
            new Workers("transfer", CARRIERS),
            new Workers("transfer-large", LARGE),
            new TreeScan(
                context, tasks, top, new Found(), direct == null ? this::onCarrier : null));
    scan().keepModes(keptModes);
    Phase end = Phase.DONE;
    try {
      scan().begin(names);
      tasks.await();
      tasks.throwIfEnded();
      finish.flush();
    } catch (CancellationException e) {
      end = Phase.STOPPED;
    } catch (Retrier.Broken e) {
      counter.problem(new Progress.Problem(e.path, e.why, false, "", false));
      end = Phase.BROKEN;
    } finally {
      if (end == Phase.STOPPED && !endsSoon()) {
        source.giveUp();
        target.giveUp();
      }
      // Nothing is written after the end has been told.
      underWay().closeAndAwait();
    }
    if (end != Phase.BROKEN) {
      tidyUp(end);
    }
    if (direct != null) {
      direct.end();
    }
    source.end();
    target.end();
    counter.phase(end);
    return progress();
  }

  /**
   * What is under way is let come to its end, but a program that says nothing is not waited for.
   */
  private boolean endsSoon() {
    scan().close();
    Workers carriers = underWay().carriers;
    carriers.close();
    return carriers.awaitFor(PATIENCE);
  }

  /** A transfer that was done waits for its line once more; what was stopped does not. */
  private void tidyUp(Phase end) {
    try {
      while (true) {
        try {
          source.tidyUp();
          target.tidyUp();
          return;
        } catch (IOException e) {
          if (end != Phase.DONE || !retrier.isLost(e)) {
            return;
          }
          retrier.awaitLine("", e);
        }
      }
    } catch (Retrier.Broken | CancellationException e) {
      // What is left carries the transfer's mark and is found later.
    }
  }

  private UnderWay underWay() {
    return requireNonNull(under, "it was not begun");
  }

  private TreeScan scan() {
    return underWay().scan;
  }

  private void onCarrier(Runnable work) {
    on(underWay().carriers, work);
  }

  private void on(Workers workers, Runnable work) {
    tasks.run(workers, work);
  }

  /** What was decided after the last folder was scanned must not wait for more. */
  private void flushIfLate() {
    if (scan().isOver()) {
      batches.flush();
    }
  }

  private final class Found implements TreeScan.Found {
    @Override
    public void file(PendingFolder folder, TransferItem item) {
      Transfer.this.file(folder, item);
    }

    @Override
    public void allFound() {
      batches.flush();
    }
  }

  /** A file, a link, or a folder where something else is: decided, and carried or not. */
  private void file(PendingFolder folder, TransferItem item) {
    if (item.node().kind() != FileKind.FOLDER) {
      counter.counted(item.node().size());
    }
    if (item.node().kind() == FileKind.OTHER) {
      retrier.problem(item.from(), TransferPhrase.NOT_TRANSFERABLE.of(), false);
      counter.skip(0);
      return;
    }
    takeRoom();
    folder.expect();
    settle(folder, item, conflicts.on(item));
  }

  /** Waits while too much is found and not yet carried. */
  private void takeRoom() {
    try {
      while (!room.tryAcquire()) {
        batches.flush();
        tasks.throwIfEnded();
        if (room.tryAcquire(200, TimeUnit.MILLISECONDS)) {
          return;
        }
      }
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new CancellationException("interrupted");
    }
  }

  private void over(PendingFolder folder) {
    room.release();
    folder.leave();
  }

  private void settle(PendingFolder folder, TransferItem item, Decision verdict) {
    switch (verdict) {
      case TRANSFER -> go(folder, item);
      case SKIP -> {
        counter.skip(item.node().size());
        over(folder);
      }
      case UNCHANGED -> {
        counter.same(item.node().size());
        over(folder);
      }
      case COMPARE ->
          onCarrier(
              () -> {
                settle(folder, item, compared(item));
                flushIfLate();
              });
      case KEEP_BOTH -> onCarrier(() -> beside(folder, item));
      case ASK -> {
        tasks.begin();
        boolean first =
            conflicts.putAside(
                item,
                folder,
                (asked, answer) -> {
                  settle(folder, asked, answer);
                  flushIfLate();
                  tasks.done();
                });
        if (first) {
          onCarrier(conflicts::askAll);
        }
      }
    }
  }

  private Decision compared(TransferItem item) {
    Boolean equal =
        retrier.attempt(
            item.from(), () -> source.digest(item.from(), -1).equals(target.digest(item.to(), -1)));
    return equal == null ? Decision.SKIP : equal ? Decision.UNCHANGED : Decision.TRANSFER;
  }

  private void beside(PendingFolder folder, TransferItem item) {
    String place = retrier.attempt(item.from(), () -> conflicts.freeName(item));
    if (place == null) {
      settle(folder, item, Decision.SKIP);
    } else if (item.node().kind() == FileKind.FOLDER) {
      scan().makeFolders(folder, List.of(item.to(place)), List.of());
      over(folder);
    } else {
      go(folder, item.to(place));
      flushIfLate();
    }
  }

  private void go(PendingFolder folder, TransferItem item) {
    if (item.node().kind() == FileKind.LINK) {
      onCarrier(
          () -> {
            smallFileTransfer.link(item);
            over(folder);
          });
    } else if (item.node().size()
        > (direct == null ? RemoteBatch.LARGEST : DirectRoute.LARGEST_IN_BATCH)) {
      on(
          underWay().largeCarriers,
          () -> {
            largeFiles.carry(item);
            over(folder);
          });
    } else {
      batches.add(new Work(item, folder));
    }
  }

  private void carryLoad(List<Work> load) {
    tasks.throwIfEnded();
    smallFileTransfer.load(
        load.stream().map(Work::item).toList(),
        () -> {
          load.forEach(work -> over(work.folder()));
          if (top.isFull()) {
            // With the last answers, not after them.
            finish.flush();
          }
        },
        () -> load.stream().map(Work::folder).distinct().forEach(PendingFolder::cameLate));
  }
}
