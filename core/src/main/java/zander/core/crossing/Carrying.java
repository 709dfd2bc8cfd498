package zander.core.crossing;

import java.io.IOException;
import java.io.InputStream;
import java.security.MessageDigest;
import java.util.ArrayList;
import java.util.List;
import zander.core.files.FileKind;
import zander.core.files.RemoteBatch;

/** Carries what was decided to cross: loads of small files, large files, links. */
final class Carrying {
  /** As much as one request carries, so that none is cut in two. */
  private static final int BUFFER = 255 * 1024;

  /** A file that goes on growing while it is read must not fill the other side. */
  private static final long MOST_GROWTH = 256L << 20;

  private final Side source;
  private final Side target;
  private final Rules rules;
  private final Steps steps;
  private final Tally tally;
  private final Gate gate;
  private final Trace trace;

  /** {@code null} where all goes through this computer. */
  private final Straight straight;

  Carrying(
      Side source,
      Side target,
      Rules rules,
      Steps steps,
      Tally tally,
      Gate gate,
      Trace trace,
      Straight straight) {
    this.source = source;
    this.target = target;
    this.rules = rules;
    this.steps = steps;
    this.tally = tally;
    this.gate = gate;
    this.trace = trace;
    this.straight = straight;
  }

  /**
   * Carries a load to its end, whatever becomes of each of its files.
   *
   * @param placed run once when all are in their places, or as good as
   * @param placedLate run when that was too early, because the line broke and came back
   */
  void load(List<Item> items, Runnable placed, Runnable placedLate) {
    boolean[] told = {false};
    Runnable once =
        () -> {
          if (!told[0]) {
            told[0] = true;
            placed.run();
          }
        };
    List<Parcel> load = new ArrayList<>();
    long bytes = 0;
    for (Item item : items) {
      load.add(new Parcel(item));
      bytes += item.node().size();
    }
    gate.pass(bytes);
    Item first = items.get(0);
    tally.begin(source.show(first.from()));
    boolean tried = false;
    while (true) {
      try {
        if (tried) {
          findArrived(load);
        }
        carry(load, once);
        break;
      } catch (IOException e) {
        if (!steps.isLost(e)) {
          load.stream().filter(parcel -> !parcel.arrived).forEach(parcel -> parcel.failure = e);
          break;
        }
        steps.awaitLine(first.from(), e);
        tried = true;
      }
    }
    for (Parcel parcel : load) {
      if (parcel.asLarge && !parcel.arrived) {
        tally.carried(-parcel.told);
        large(parcel.item);
      } else {
        tell(parcel);
      }
    }
    if (tried && told[0]) {
      placedLate.run();
    }
    once.run();
  }

  private void carry(List<Parcel> load, Runnable placed) throws IOException {
    if (straight == null) {
      carryThrough(load, placed);
      return;
    }
    List<Parcel> left = carryStraight(load);
    // What turned out to be too large for a load is carried after it.
    List<Parcel> small = left.stream().filter(parcel -> !parcel.asLarge).toList();
    if (!small.isEmpty()) {
      carryThrough(small, small.size() == left.size() ? placed : () -> {});
    }
  }

  private void carryThrough(List<Parcel> load, Runnable placed) throws IOException {
    List<Parcel> unread =
        load.stream().filter(parcel -> parcel.content == null && parcel.failure == null).toList();
    if (!unread.isEmpty()) {
      source.fetch(unread);
    }
    if (rules.check()) {
      for (Parcel parcel : load) {
        if (parcel.waits() && parcel.digest == null) {
          parcel.digest = Digests.of(parcel.content);
        }
      }
    }
    target.deliver(load, placed);
  }

  /** Returns those that do not go straight. */
  private List<Parcel> carryStraight(List<Parcel> load) throws IOException {
    List<Parcel> fit =
        load.stream()
            .filter(parcel -> parcel.content == null && parcel.failure == null && !parcel.arrived)
            .filter(parcel -> straight.takes(parcel.item))
            .toList();
    if (!fit.isEmpty()) {
      for (Parcel parcel : fit) {
        parcel.straight = true;
        parcel.modified = parcel.item.node().modified();
      }
      if (rules.check()) {
        List<String> digests =
            source.digests(fit.stream().map(parcel -> parcel.item.from()).toList());
        for (int i = 0; i < fit.size(); i++) {
          fit.get(i).digest = digests.get(i);
        }
      }
      target.deliver(fit, () -> {});
    }
    List<Parcel> left = new ArrayList<>();
    for (Parcel parcel : load) {
      if (parcel.failure instanceof Straight.NotThisWay) {
        parcel.failure = null;
        parcel.straight = false;
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
  private void findArrived(List<Parcel> load) throws IOException {
    List<Parcel> open = load.stream().filter(Parcel::waits).toList();
    List<Node> there = target.lookAll(open.stream().map(parcel -> parcel.item.to()).toList());
    for (int i = 0; i < open.size(); i++) {
      Parcel parcel = open.get(i);
      Node is = there.get(i);
      parcel.arrived =
          is != null
              && is.kind() == FileKind.FILE
              && is.size() == parcel.size()
              && parcel.timeThere() >= 0
              && is.modified() == parcel.timeThere();
    }
  }

  private void tell(Parcel parcel) {
    Item item = parcel.item;
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

  void link(Item item) {
    tally.begin(source.show(item.from()));
    boolean[] tried = {false};
    Boolean done =
        steps.attempt(
            item.from(),
            () -> {
              Node there = tried[0] ? target.look(item.to()) : null;
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

  /** Carries one large file, going on from where it was when the line broke. */
  void large(Item item) {
    tally.begin(source.show(item.from()));
    Side.Part part = proved(item, before(item));
    while (true) {
      Side.Part[] left = {null};
      try {
        String lost = file(item, part, left);
        trace.partEnded(item.to());
        tally.fileDone();
        if (lost != null) {
          steps.problem(item.to(), lost, true);
        }
        return;
      } catch (IOException e) {
        if (!steps.isLost(e)) {
          trace.partEnded(item.to());
          steps.failed(item.from(), e);
          tally.skip(item.node().size());
          return;
        }
        steps.awaitLine(item.from(), e);
        Boolean there = steps.attempt(item.from(), () -> isAt(item));
        if (there != null && there) {
          trace.partEnded(item.to());
          tally.carried(item.node().size());
          tally.fileDone();
          return;
        }
        part = proved(item, left[0]);
      }
    }
  }

  private boolean isAt(Item item) throws IOException {
    Node there = target.look(item.to());
    return there != null
        && there.kind() == FileKind.FILE
        && there.size() == item.node().size()
        && item.modified() >= 0
        && there.modified() == item.modified();
  }

  private Side.Part before(Item item) {
    Trace.Begun begun = trace.partsBefore().get(item.to());
    boolean sameFile =
        begun != null
            && begun.size() == item.node().size()
            && begun.modified() == item.node().modified();
    return sameFile ? new Side.Part(begun.part(), Long.MAX_VALUE) : null;
  }

  /**
   * What of an earlier try can be gone on with: as much as is there, if its checksum shows that it
   * is the beginning of the same file. Anything else is taken away.
   */
  private Side.Part proved(Item item, Side.Part left) {
    if (left == null) {
      return null;
    }
    return steps.attempt(
        item.from(),
        () -> {
          Side.Part there = target.part(left.path());
          if (there == null) {
            return null;
          }
          long size = Math.min(left.size(), there.size());
          Node now = source.look(item.from());
          boolean same =
              size > 0
                  && size <= item.node().size()
                  && now != null
                  && now.size() == item.node().size()
                  && now.modified() == item.node().modified()
                  && source.digest(item.from(), size).equals(target.digest(left.path(), size));
          if (same) {
            return new Side.Part(left.path(), size);
          }
          target.remove(left.path());
          return null;
        });
  }

  /**
   * @param left gets what is left on the other side when the line breaks
   */
  private String file(Item item, Side.Part part, Side.Part[] left) throws IOException {
    if (straight != null && straight.takes(item)) {
      try {
        return fileStraight(item, part, left);
      } catch (Straight.NotThisWay e) {
        part = proved(item, left[0]);
        left[0] = null;
      }
    }
    long from = part == null ? 0 : part.size();
    MessageDigest digest = rules.check() && from == 0 ? Digests.begin() : null;
    byte[] buffer = new byte[BUFFER];
    long at = from;
    tally.carried(from);
    try (InputStream in = source.read(item, from);
        Side.Incoming incoming = target.create(item, part)) {
      trace.partBegun(
          item.to(),
          new Trace.Begun(incoming.part().path(), item.node().size(), item.node().modified()));
      try {
        for (int count; (count = in.read(buffer)) >= 0; ) {
          gate.pass(count);
          incoming.write(buffer, 0, count);
          tally.carried(count);
          at += count;
          if (digest != null) {
            digest.update(buffer, 0, count);
          }
          if (at - item.node().size() > MOST_GROWTH) {
            throw new IOException("it goes on growing while it is read");
          }
        }
        String lost = incoming.arrive(timeOf(item, at), expected(item, digest));
        tally.correct(item.node().size(), at);
        return lost == null && at != item.node().size() ? "it changed while it crossed" : lost;
      } catch (IOException e) {
        if (steps.isLost(e)) {
          incoming.leave();
          left[0] = incoming.part();
        }
        throw e;
      }
    } catch (IOException | RuntimeException e) {
      tally.carried(-at);
      throw e;
    }
  }

  /** What broke off is left, to be gone on with. */
  private String fileStraight(Item item, Side.Part part, Side.Part[] left) throws IOException {
    long from = part == null ? 0 : part.size();
    long carried = from;
    tally.carried(from);
    try (RemoteArrival incoming = new RemoteArrival((RemoteSide) target, item, part, true)) {
      trace.partBegun(
          item.to(),
          new Trace.Begun(incoming.part().path(), item.node().size(), item.node().modified()));
      try {
        long size = straight.stream(item, incoming.partAt(), from);
        carried = size;
        incoming.came(size);
        String lost = incoming.arrive(timeOf(item, size), expected(item, null));
        tally.correct(item.node().size(), size);
        return lost == null && size != item.node().size() ? "it changed while it crossed" : lost;
      } catch (IOException e) {
        steps.throwIfStopped();
        boolean lost = steps.isLost(e);
        if (lost || e instanceof Straight.NotThisWay) {
          incoming.leave(lost);
          left[0] = new Side.Part(incoming.part().path(), Long.MAX_VALUE);
        }
        throw e;
      }
    } catch (IOException | RuntimeException e) {
      tally.carried(-carried);
      throw e;
    }
  }

  private String expected(Item item, MessageDigest digest) throws IOException {
    if (!rules.check()) {
      return null;
    }
    return digest == null ? source.digest(item.from(), -1) : Digests.end(digest.digest());
  }

  /** A file that changed while it crossed has a time of its own by now. */
  private long timeOf(Item item, long carried) throws IOException {
    if (item.modified() < 0 || carried == item.node().size()) {
      return item.modified();
    }
    Node now = source.look(item.from());
    return now == null ? item.modified() : now.modified();
  }
}
