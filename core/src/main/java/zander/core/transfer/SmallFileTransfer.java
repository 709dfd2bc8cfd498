package zander.core.transfer;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.concurrent.CancellationException;
import org.jspecify.annotations.Nullable;
import zander.core.files.FileKind;
import zander.core.files.RemoteBatch;
import zander.core.phrase.ExplainedException;
import zander.core.phrase.TransferPhrase;
import zander.core.transfer.endpoint.DirectRoute;
import zander.core.transfer.endpoint.Sha256;
import zander.core.transfer.endpoint.SmallFile;
import zander.core.transfer.endpoint.Source;
import zander.core.transfer.endpoint.Target;
import zander.core.transfer.endpoint.TransferItem;
import zander.core.transfer.endpoint.TreeEntry;
import zander.core.transfer.progress.ProgressCounter;
import zander.core.transfer.progress.RateLimiter;
import zander.core.transfer.rules.TransferRules;
import zander.core.work.Cancellation;

/** Carries what was decided to be transferred: loads of small files, and links. */
final class SmallFileTransfer {
  private final Source source;
  private final Target target;
  private final TransferRules rules;
  private final Retrier retrier;
  private final ProgressCounter counter;
  private final RateLimiter limiter;
  private final LargeFileTransfer largeFiles;

  /** {@code null} where all goes through this computer. */
  private final @Nullable DirectRoute direct;

  private final Cancellation stop;

  SmallFileTransfer(TransferContext context, LargeFileTransfer largeFiles, Cancellation stop) {
    this.source = context.source();
    this.target = context.target();
    this.rules = context.rules();
    this.retrier = context.retrier();
    this.counter = context.counter();
    this.limiter = context.limiter();
    this.direct = context.direct();
    this.largeFiles = largeFiles;
    this.stop = stop;
  }

  /**
   * Carries a load to its end, whatever becomes of each of its files.
   *
   * @throws CancellationException when it was stopped: what did not arrive is not told
   * @param placed run once when all are in their places, or as good as
   * @param placedLate run when that was too early, because the line broke and came back
   */
  void load(List<TransferItem> items, Runnable placed, Runnable placedLate) {
    boolean[] told = {false};
    Runnable once =
        () -> {
          if (!told[0]) {
            told[0] = true;
            placed.run();
          }
        };
    List<SmallFile> load = new ArrayList<>();
    long bytes = 0;
    for (TransferItem item : items) {
      load.add(new SmallFile(item));
      bytes += item.node().size();
    }
    limiter.pass(bytes);
    TransferItem first = items.get(0);
    counter.begin(source.show(first.from()));
    boolean tried = false;
    while (true) {
      int asked = retrier.roomAnswers();
      try {
        if (tried) {
          findArrived(load);
        }
        carry(load, once);
      } catch (CancellationException e) {
        load.stream().filter(smallFile -> smallFile.arrived).forEach(this::tell);
        throw e;
      } catch (IOException e) {
        if (retrier.isLost(e)) {
          retrier.awaitLine(first.from(), e);
          tried = true;
          continue;
        }
        load.stream()
            .filter(smallFile -> !smallFile.arrived)
            .forEach(smallFile -> smallFile.failure = e);
      }
      if (!haveRoom(load, asked)) {
        break;
      }
      tried = true;
    }
    for (SmallFile smallFile : load) {
      if (smallFile.asLarge && !smallFile.arrived) {
        counter.carried(-smallFile.told);
        largeFiles.carry(smallFile.item);
      } else {
        tell(smallFile);
      }
    }
    if (tried && told[0]) {
      placedLate.run();
    }
    once.run();
  }

  /**
   * Where some did not fit: waits for room, and has them carried from the beginning.
   *
   * @return false when nothing is to be tried again
   */
  private boolean haveRoom(List<SmallFile> load, int answersBefore) {
    SmallFile full = null;
    IOException why = null;
    for (SmallFile smallFile : load) {
      if (!smallFile.arrived
          && smallFile.failure != null
          && retrier.isFull(smallFile.failure, answersBefore)) {
        full = smallFile;
        why = smallFile.failure;
      }
    }
    if (full == null || why == null || !retrier.awaitRoom(full.item.from(), why, answersBefore)) {
      return false;
    }
    load.replaceAll(
        smallFile -> {
          if (smallFile.arrived
              || smallFile.failure == null
              || !retrier.isFull(smallFile.failure, answersBefore)) {
            return smallFile;
          }
          counter.carried(-smallFile.told);
          return new SmallFile(smallFile.item);
        });
    return true;
  }

  private void carry(List<SmallFile> load, Runnable placed) throws IOException {
    if (direct == null) {
      carryThrough(load, placed);
      return;
    }
    List<SmallFile> left = carryDirect(direct, load);
    // What turned out to be too large for a load is carried after it.
    List<SmallFile> small = left.stream().filter(smallFile -> !smallFile.asLarge).toList();
    if (!small.isEmpty()) {
      carryThrough(small, small.size() == left.size() ? placed : () -> {});
    }
  }

  private void carryThrough(List<SmallFile> load, Runnable placed) throws IOException {
    List<SmallFile> unread =
        load.stream()
            .filter(smallFile -> smallFile.content == null && smallFile.failure == null)
            .toList();
    if (!unread.isEmpty()) {
      source.fetch(unread, stop);
    }
    if (rules.check()) {
      for (SmallFile smallFile : load) {
        if (smallFile.waits() && smallFile.digest == null) {
          smallFile.digest = Sha256.of(smallFile.bytes());
        }
      }
    }
    stop.throwIfStopped();
    target.deliver(load, placed, stop);
  }

  /** Returns those that do not go direct. */
  private List<SmallFile> carryDirect(DirectRoute route, List<SmallFile> load) throws IOException {
    List<SmallFile> fit =
        load.stream()
            .filter(
                smallFile ->
                    smallFile.content == null && smallFile.failure == null && !smallFile.arrived)
            .filter(smallFile -> route.takes(smallFile.item))
            .toList();
    if (!fit.isEmpty()) {
      for (SmallFile smallFile : fit) {
        smallFile.direct = true;
        smallFile.modified = smallFile.item.node().modified();
      }
      if (rules.check()) {
        List<String> digests =
            source.digests(fit.stream().map(smallFile -> smallFile.item.from()).toList());
        for (int i = 0; i < fit.size(); i++) {
          fit.get(i).digest = digests.get(i);
        }
      }
      target.deliver(fit, () -> {}, stop);
    }
    List<SmallFile> left = new ArrayList<>();
    for (SmallFile smallFile : load) {
      if (smallFile.failure instanceof DirectRoute.NotDirect) {
        smallFile.failure = null;
        smallFile.direct = false;
        smallFile.digest = null;
      }
      if (!smallFile.arrived && smallFile.failure == null) {
        smallFile.asLarge = smallFile.item.node().size() > RemoteBatch.LARGEST;
        left.add(smallFile);
      }
    }
    return left;
  }

  /**
   * After a broken line: what was put in its place just before, so that only the answer was lost.
   */
  private void findArrived(List<SmallFile> load) throws IOException {
    List<SmallFile> open = load.stream().filter(SmallFile::waits).toList();
    List<TreeEntry> there =
        target.lookAll(open.stream().map(smallFile -> smallFile.item.to()).toList());
    for (int i = 0; i < open.size(); i++) {
      SmallFile smallFile = open.get(i);
      TreeEntry is = there.get(i);
      smallFile.arrived =
          is != null
              && is.kind() == FileKind.FILE
              && is.size() == smallFile.size()
              && smallFile.timeThere() >= 0
              && is.modified() == smallFile.timeThere();
    }
  }

  private void tell(SmallFile smallFile) {
    TransferItem item = smallFile.item;
    if (!smallFile.arrived) {
      IOException why =
          smallFile.failure == null
              ? new ExplainedException(TransferPhrase.NOT_ARRIVED.of())
              : smallFile.failure;
      retrier.failed(item.from(), why);
      counter.carried(-smallFile.told);
      counter.skip(item.node().size());
      return;
    }
    counter.carried(smallFile.size() - smallFile.told);
    counter.correct(item.node().size(), smallFile.size());
    counter.fileDone();
    if (smallFile.lost != null) {
      retrier.problem(item.to(), smallFile.lost, true);
    }
  }

  void link(TransferItem item) {
    counter.begin(source.show(item.from()));
    boolean[] tried = {false};
    Boolean done =
        retrier.attempt(
            item.from(),
            () -> {
              TreeEntry there = tried[0] ? target.look(item.to()) : null;
              boolean made =
                  there != null
                      && there.kind() == FileKind.LINK
                      && Objects.equals(there.target(), item.node().target());
              tried[0] = true;
              if (!made) {
                target.makeLink(item);
              }
              return true;
            });
    if (done == null) {
      counter.skip(0);
    } else {
      counter.fileDone();
    }
  }
}
