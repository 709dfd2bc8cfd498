package zander.core.transfer;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CancellationException;
import zander.core.files.FileKind;
import zander.core.files.RemoteBatch;
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
  private final Retrier steps;
  private final ProgressCounter tally;
  private final RateLimiter gate;
  private final LargeFileTransfer largeFiles;

  /** {@code null} where all goes through this computer. */
  private final DirectRoute direct;

  private final Cancellation stop;

  SmallFileTransfer(
      Source source,
      Target target,
      TransferRules rules,
      Retrier steps,
      ProgressCounter tally,
      RateLimiter gate,
      LargeFileTransfer largeFiles,
      DirectRoute direct,
      Cancellation stop) {
    this.source = source;
    this.target = target;
    this.rules = rules;
    this.steps = steps;
    this.tally = tally;
    this.gate = gate;
    this.largeFiles = largeFiles;
    this.direct = direct;
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
    gate.pass(bytes);
    TransferItem first = items.get(0);
    tally.begin(source.show(first.from()));
    boolean tried = false;
    while (true) {
      int asked = steps.roomAnswers();
      try {
        if (tried) {
          findArrived(load);
        }
        carry(load, once);
      } catch (CancellationException e) {
        load.stream().filter(parcel -> parcel.arrived).forEach(this::tell);
        throw e;
      } catch (IOException e) {
        if (steps.isLost(e)) {
          steps.awaitLine(first.from(), e);
          tried = true;
          continue;
        }
        load.stream().filter(parcel -> !parcel.arrived).forEach(parcel -> parcel.failure = e);
      }
      if (!haveRoom(load, asked)) {
        break;
      }
      tried = true;
    }
    for (SmallFile parcel : load) {
      if (parcel.asLarge && !parcel.arrived) {
        tally.carried(-parcel.told);
        largeFiles.carry(parcel.item);
      } else {
        tell(parcel);
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
    for (SmallFile parcel : load) {
      if (!parcel.arrived && parcel.failure != null && steps.isFull(parcel.failure)) {
        full = parcel;
      }
    }
    if (full == null || !steps.awaitRoom(full.item.from(), full.failure, answersBefore)) {
      return false;
    }
    load.replaceAll(
        parcel -> {
          if (parcel.arrived || parcel.failure == null || !steps.isFull(parcel.failure)) {
            return parcel;
          }
          tally.carried(-parcel.told);
          return new SmallFile(parcel.item);
        });
    return true;
  }

  private void carry(List<SmallFile> load, Runnable placed) throws IOException {
    if (direct == null) {
      carryThrough(load, placed);
      return;
    }
    List<SmallFile> left = carryDirect(load);
    // What turned out to be too large for a load is carried after it.
    List<SmallFile> small = left.stream().filter(parcel -> !parcel.asLarge).toList();
    if (!small.isEmpty()) {
      carryThrough(small, small.size() == left.size() ? placed : () -> {});
    }
  }

  private void carryThrough(List<SmallFile> load, Runnable placed) throws IOException {
    List<SmallFile> unread =
        load.stream().filter(parcel -> parcel.content == null && parcel.failure == null).toList();
    if (!unread.isEmpty()) {
      source.fetch(unread, stop);
    }
    if (rules.check()) {
      for (SmallFile parcel : load) {
        if (parcel.waits() && parcel.digest == null) {
          parcel.digest = Sha256.of(parcel.content);
        }
      }
    }
    stop.throwIfStopped();
    target.deliver(load, placed, stop);
  }

  /** Returns those that do not go direct. */
  private List<SmallFile> carryDirect(List<SmallFile> load) throws IOException {
    List<SmallFile> fit =
        load.stream()
            .filter(parcel -> parcel.content == null && parcel.failure == null && !parcel.arrived)
            .filter(parcel -> direct.takes(parcel.item))
            .toList();
    if (!fit.isEmpty()) {
      for (SmallFile parcel : fit) {
        parcel.direct = true;
        parcel.modified = parcel.item.node().modified();
      }
      if (rules.check()) {
        List<String> digests =
            source.digests(fit.stream().map(parcel -> parcel.item.from()).toList());
        for (int i = 0; i < fit.size(); i++) {
          fit.get(i).digest = digests.get(i);
        }
      }
      target.deliver(fit, () -> {}, stop);
    }
    List<SmallFile> left = new ArrayList<>();
    for (SmallFile parcel : load) {
      if (parcel.failure instanceof DirectRoute.NotDirect) {
        parcel.failure = null;
        parcel.direct = false;
        parcel.digest = null;
      }
      if (!parcel.arrived && parcel.failure == null) {
        parcel.asLarge = parcel.item.node().size() > RemoteBatch.LARGEST;
        left.add(parcel);
      }
    }
    return left;
  }

  /**
   * After a broken line: what was put in its place just before, so that only the answer was lost.
   */
  private void findArrived(List<SmallFile> load) throws IOException {
    List<SmallFile> open = load.stream().filter(SmallFile::waits).toList();
    List<TreeEntry> there = target.lookAll(open.stream().map(parcel -> parcel.item.to()).toList());
    for (int i = 0; i < open.size(); i++) {
      SmallFile parcel = open.get(i);
      TreeEntry is = there.get(i);
      parcel.arrived =
          is != null
              && is.kind() == FileKind.FILE
              && is.size() == parcel.size()
              && parcel.timeThere() >= 0
              && is.modified() == parcel.timeThere();
    }
  }

  private void tell(SmallFile parcel) {
    TransferItem item = parcel.item;
    if (!parcel.arrived) {
      IOException why =
          parcel.failure == null ? new IOException("it did not arrive") : parcel.failure;
      steps.failed(item.from(), why);
      tally.carried(-parcel.told);
      tally.skip(item.node().size());
      return;
    }
    tally.carried(parcel.size() - parcel.told);
    tally.correct(item.node().size(), parcel.size());
    tally.fileDone();
    if (parcel.lost != null) {
      steps.problem(item.to(), parcel.lost, true);
    }
  }

  void link(TransferItem item) {
    tally.begin(source.show(item.from()));
    boolean[] tried = {false};
    Boolean done =
        steps.attempt(
            item.from(),
            () -> {
              TreeEntry there = tried[0] ? target.look(item.to()) : null;
              boolean made =
                  there != null
                      && there.kind() == FileKind.LINK
                      && there.target().equals(item.node().target());
              tried[0] = true;
              if (!made) {
                target.makeLink(item);
              }
              return true;
            });
    if (done == null) {
      tally.skip(0);
    } else {
      tally.fileDone();
    }
  }
}
