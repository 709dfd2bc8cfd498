package zander.core.transfer;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.concurrent.CancellationException;
import zander.core.files.FileKind;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteBatch;
import zander.core.files.RemoteBatch.NewFile;
import zander.core.files.RemoteBatch.Renaming;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.files.RemotePath;
import zander.core.journal.Journal;
import zander.core.work.Cancellation;

/**
 * Small files arriving on a server together: each under a temporary name beside its place, all
 * written, looked at, and only then renamed. What is replaced is held and in the journal before.
 */
final class RemoteBatchWriter {
  private final RemoteEndpoint side;
  private final Runnable placed;
  private final Cancellation stop;
  private final List<Arriving> all = new ArrayList<>();

  /** One file between its journal entry and its place. */
  static final class Arriving {
    final SmallFile parcel;
    final RemotePath target;
    RemotePath part;
    String partPath;

    /** Whether a program may still write under its temporary name. */
    boolean isSpoilt;

    RemoteAttributes old;
    RemotePath held;

    /** Whether what is replaced goes to its held place only when this takes its own. */
    boolean moves;

    Journal.Pending pending;

    Arriving(RemoteEndpoint side, SmallFile parcel) throws Endpoint.NameNotPossible {
      this.parcel = parcel;
      this.target = side.at(parcel.item.to());
      name(
          parcel.straight
              ? side.partNames().fixed(target.wireName())
              : side.partNames().of(target.wireName()));
    }

    private void name(String name) {
      part = target.parent().child(name);
      partPath = Endpoint.join(Endpoint.folderOf(parcel.item.to()), name);
    }

    void newName(PartialNames names) {
      name(names.of(target.wireName()));
      isSpoilt = false;
    }

    boolean replaces() {
      return parcel.item.there() != null;
    }

    boolean waits() {
      return parcel.waits();
    }
  }

  RemoteBatchWriter(RemoteEndpoint side, List<SmallFile> load, Runnable placed, Cancellation stop) {
    this.side = side;
    this.placed = placed;
    this.stop = stop;
    for (SmallFile parcel : load) {
      if (parcel.waits()) {
        try {
          all.add(new Arriving(side, parcel));
        } catch (IOException e) {
          parcel.failure = e;
        }
      }
    }
  }

  private List<Arriving> waiting() {
    return all.stream().filter(Arriving::waits).toList();
  }

  void run() throws IOException {
    try {
      ReplacedFiles.hold(side, all);
      stop.throwIfStopped();
      begin();
      write();
      check();
      giveOwners();
      rename();
    } catch (CancellationException e) {
      stopped(e);
      throw e;
    } catch (RemoteFailure e) {
      leave(e);
      throw e;
    }
  }

  private void stopped(CancellationException why) throws IOException {
    waiting().forEach(one -> one.parcel.failure = new IOException("stopped", why));
    try {
      giveUp();
    } catch (RemoteFailure e) {
      leave(e);
    }
  }

  /** On a lost line nothing can be taken away: that is for later. */
  private void leave(RemoteFailure lost) throws IOException {
    if (!side.isLost(lost)) {
      return;
    }
    for (Arriving one : all) {
      if (!one.parcel.arrived) {
        side.leave(one.part);
        if (one.pending != null) {
          one.pending.failed(lost);
        }
      }
    }
  }

  private void begin() throws IOException {
    List<Arriving> told = new ArrayList<>();
    List<zander.core.journal.NewChange> changes = new ArrayList<>();
    for (Arriving one : waiting()) {
      if (one.replaces() || !side.madeFolders().covers(one.parcel.item.to())) {
        told.add(one);
        changes.add(ReplacedFiles.change(side, one));
      }
    }
    List<Journal.Pending> begun = side.journal().begin(changes);
    for (int i = 0; i < told.size(); i++) {
      told.get(i).pending = begun.get(i);
    }
  }

  private void write() throws IOException {
    List<Arriving> waiting = waiting();
    if (!waiting.isEmpty() && waiting.get(0).parcel.straight) {
      side.way().write(waiting);
      giveUp();
      return;
    }
    TarUpload program = side.packedUp();
    boolean packed =
        !waiting.isEmpty() && side.carriers().packsUp(waiting.size(), program.isOpen());
    if (!packed || !program.write(waiting, stop)) {
      if (waiting.stream().anyMatch(one -> one.isSpoilt)) {
        giveNewNames();
      }
      List<Arriving> left = waiting();
      RemoteBatch batch = side.filesForLoad().batch();
      List<NewFile> files = new ArrayList<>();
      for (Arriving one : left) {
        files.add(
            new NewFile(
                one.part, one.parcel.content, one.parcel.item.mode(), one.parcel.timeThere()));
      }
      note(left, batch.put(files, stop));
    }
    giveUp();
  }

  /** What is left of a program may go on for a moment, and must not write into what comes now. */
  private void giveNewNames() throws IOException {
    for (Arriving one : waiting()) {
      if (one.pending != null) {
        one.pending.failed("sent once more in another way");
        one.pending = null;
      }
      one.newName(side.partNames());
    }
    begin();
  }

  /** Compares what arrived with what was sent, where that is asked for. */
  private void check() throws IOException {
    List<Arriving> asked = waiting().stream().filter(one -> one.parcel.digest != null).toList();
    List<String> digests = side.digestsOf(asked.stream().map(one -> one.part).toList());
    for (int i = 0; i < asked.size(); i++) {
      if (!asked.get(i).parcel.digest.equals(digests.get(i))) {
        asked.get(i).parcel.failure = new Endpoint.NotTheSame();
      }
    }
    giveUp();
  }

  private static void note(List<Arriving> tried, List<RemoteFailure> failures) {
    for (int i = 0; i < tried.size(); i++) {
      if (failures.get(i) != null) {
        tried.get(i).parcel.failure = failures.get(i);
      }
    }
  }

  /** What failed since the entries were begun: its temporary file goes, and its entry ends. */
  private void giveUp() throws IOException {
    List<Arriving> failed =
        all.stream()
            .filter(one -> one.parcel.failure != null && one.pending != ReplacedFiles.ENDED)
            .toList();
    if (failed.isEmpty()) {
      return;
    }
    side.files().batch().removeFiles(failed.stream().map(one -> one.part).toList());
    side.files()
        .batch()
        .removeFiles(
            failed.stream()
                .filter(one -> !one.moves)
                .map(one -> one.held)
                .filter(Objects::nonNull)
                .toList());
    for (Arriving one : failed) {
      if (one.pending != null
          && ReplacedFiles.isStranded(side, new ReplacedFiles.Held(one.held, one.moves))) {
        one.pending.lost();
      } else if (one.pending != null) {
        one.pending.failed("did not arrive");
      }
      one.pending = ReplacedFiles.ENDED;
    }
  }

  /** The rule's owner, or that of the file it replaces, where this account may give it. */
  private void giveOwners() throws IOException {
    int ruledUid = side.ownerUid();
    int ruledGid = side.ownerGid();
    List<Arriving> waiting = waiting();
    boolean ruled = ruledUid >= 0 || ruledGid >= 0;
    if (!ruled && waiting.stream().noneMatch(Arriving::replaces)) {
      return;
    }
    List<Arriving> asked = ruled ? waiting : waiting.stream().filter(Arriving::replaces).toList();
    List<RemoteAttributes> now =
        side.files().batch().look(asked.stream().map(one -> one.part).toList());
    for (int i = 0; i < asked.size(); i++) {
      Arriving one = asked.get(i);
      RemoteAttributes is = now.get(i);
      boolean fromOld = one.old != null && one.old.kind() == FileKind.FILE;
      if (is == null || (!ruled && !fromOld)) {
        continue;
      }
      int uid = ruledUid >= 0 ? ruledUid : fromOld ? one.old.uid() : is.uid();
      int gid = ruledGid >= 0 ? ruledGid : fromOld ? one.old.gid() : is.gid();
      if (uid != is.uid() || gid != is.gid()) {
        one.parcel.lost =
            OwnerSetter.give(
                side.files(),
                one.part,
                is,
                uid,
                gid,
                one.parcel.item.mode(),
                one.parcel.timeThere());
      }
    }
  }

  private void rename() throws IOException {
    List<Arriving> waiting = waiting();
    boolean over = side.files().renamesOver();
    List<Arriving> together =
        waiting.stream().filter(one -> !one.replaces() || (over && !one.moves)).toList();
    List<RemoteFailure> failures =
        side.files()
            .batch()
            .rename(
                together.stream()
                    .map(one -> new Renaming(one.part, one.target, one.replaces()))
                    .toList(),
                together.size() == waiting.size() ? placed : () -> {});
    for (int i = 0; i < together.size(); i++) {
      Arriving one = together.get(i);
      RemoteFailure failure = failures.get(i);
      if (failure != null && !one.replaces() && failure.reason() == Reason.FAILED) {
        failure = ReplacedFiles.takenOrFailed(side, one.target, failure);
      }
      arrived(one, failure);
    }
    for (Arriving one : waiting) {
      if (one.replaces() && (!over || one.moves)) {
        arrived(
            one, ReplacedFiles.inSteps(side, one.part, one.target, one.moves ? one.held : null));
      }
    }
    giveUp();
  }

  private void arrived(Arriving one, RemoteFailure failure) throws IOException {
    if (failure != null) {
      one.parcel.failure = failure;
      return;
    }
    one.parcel.arrived = true;
    if (one.parcel.lost == null) {
      one.parcel.lost = ReplacedFiles.notKept(side, one.old, one.held);
    }
    if (one.pending != null) {
      TransferItem item = one.parcel.item;
      one.pending.done(
          ReplacedFiles.state(one.parcel.size(), item.mode(), one.parcel.timeThere()), List.of());
    }
  }
}
