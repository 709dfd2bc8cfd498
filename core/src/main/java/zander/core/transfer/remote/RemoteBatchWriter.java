package zander.core.transfer.remote;

import static java.util.Objects.requireNonNull;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.concurrent.CancellationException;
import org.jspecify.annotations.Nullable;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteBatch;
import zander.core.files.RemoteBatch.NewFile;
import zander.core.files.RemoteBatch.Renaming;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.journal.Journal;
import zander.core.phrase.ExplainedException;
import zander.core.phrase.JournalPhrase;
import zander.core.phrase.TransferPhrase;
import zander.core.transfer.direct.DirectTransfer;
import zander.core.transfer.endpoint.Endpoint;
import zander.core.transfer.endpoint.SmallFile;
import zander.core.transfer.endpoint.TransferItem;
import zander.core.transfer.server.ArrivingFile;
import zander.core.transfer.server.RemoteContext;
import zander.core.transfer.tar.TarUpload;
import zander.core.work.Cancellation;

/**
 * Small files arriving on a server together: each under a temporary name beside its place, all
 * written, looked at, and only then renamed. What is replaced is held and in the journal before.
 */
final class RemoteBatchWriter {
  private final RemoteContext context;
  private final RemoteFolders folders;
  private final RemoteDigests digests;
  private final TarUpload tarUpload;

  /** {@code null} where all contents pass this computer. */
  private final @Nullable DirectTransfer direct;

  private Runnable placed = () -> {};
  private Cancellation stop = new Cancellation();
  private final List<ArrivingFile> all = new ArrayList<>();

  RemoteBatchWriter(
      RemoteContext context,
      RemoteFolders folders,
      RemoteDigests digests,
      TarUpload tarUpload,
      @Nullable DirectTransfer direct) {
    this.context = context;
    this.folders = folders;
    this.digests = digests;
    this.tarUpload = tarUpload;
    this.direct = direct;
  }

  /** The methods' parameters are those of {@link Endpoint#deliver}. */
  void write(List<SmallFile> load, Runnable onPlaced, Cancellation cancellation)
      throws IOException {
    this.placed = onPlaced;
    this.stop = cancellation;
    for (SmallFile smallFile : load) {
      if (smallFile.waits()) {
        try {
          all.add(new ArrivingFile(context, smallFile));
        } catch (IOException e) {
          smallFile.failure = e;
        }
      }
    }
    run();
  }

  private List<ArrivingFile> waiting() {
    return all.stream().filter(ArrivingFile::waits).toList();
  }

  private void run() throws IOException {
    try {
      ReplacedFiles.hold(context, all);
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
    waiting()
        .forEach(
            one ->
                one.smallFile.failure = new ExplainedException(TransferPhrase.STOPPED.of(), why));
    try {
      giveUp();
    } catch (RemoteFailure e) {
      leave(e);
    }
  }

  /** On a lost line nothing can be taken away: that is for later. */
  private void leave(RemoteFailure lost) throws IOException {
    if (!RemoteContext.isLost(lost)) {
      return;
    }
    for (ArrivingFile one : all) {
      if (!one.smallFile.arrived) {
        context.leave(one.part);
        if (one.pending != null) {
          one.pending.failed(lost);
        }
      }
    }
  }

  private void begin() throws IOException {
    List<ArrivingFile> told = new ArrayList<>();
    List<zander.core.journal.NewChange> changes = new ArrayList<>();
    for (ArrivingFile one : waiting()) {
      if (one.replaces() || !folders.covers(one.smallFile.item.to())) {
        told.add(one);
        changes.add(ReplacedFiles.change(context, one));
      }
    }
    List<Journal.Pending> begun = context.journal().begin(changes);
    for (int i = 0; i < told.size(); i++) {
      told.get(i).pending = begun.get(i);
    }
  }

  private void write() throws IOException {
    List<ArrivingFile> waiting = waiting();
    if (!waiting.isEmpty() && waiting.get(0).smallFile.direct) {
      requireNonNull(direct, "only a direct way has such files").write(waiting);
      giveUp();
      return;
    }
    TarUpload program = tarUpload;
    boolean packed =
        !waiting.isEmpty()
            && context.strategy().packsUp(waiting.size(), program.isOpen())
            && !isAnyByRequestsOnly(waiting);
    if (!packed || !program.write(waiting, stop)) {
      if (waiting.stream().anyMatch(one -> one.isSpoilt)) {
        giveNewNames();
      }
      List<ArrivingFile> left = waiting();
      RemoteBatch batch = context.filesForBatch().batch();
      List<NewFile> files = new ArrayList<>();
      for (ArrivingFile one : left) {
        files.add(
            new NewFile(
                one.part,
                one.smallFile.bytes(),
                one.smallFile.item.mode(),
                one.smallFile.timeThere()));
      }
      note(left, batch.put(files, stop));
    }
    giveUp();
  }

  private boolean isAnyByRequestsOnly(List<ArrivingFile> files) throws IOException {
    for (ArrivingFile one : files) {
      if (context.isByRequestsOnly(one.part)) {
        return true;
      }
    }
    return false;
  }

  /** What is left of a program may go on for a moment, and must not write into what comes now. */
  private void giveNewNames() throws IOException {
    for (ArrivingFile one : waiting()) {
      if (one.pending != null) {
        one.pending.failed(JournalPhrase.SENT_ANOTHER_WAY);
        one.pending = null;
      }
      one.newName(context.partialNames());
    }
    begin();
  }

  /** Compares what arrived with what was sent, where that is asked for. */
  private void check() throws IOException {
    List<ArrivingFile> asked =
        waiting().stream().filter(one -> one.smallFile.digest != null).toList();
    List<String> sums = digests.of(asked.stream().map(one -> one.part).toList());
    for (int i = 0; i < asked.size(); i++) {
      if (!requireNonNull(asked.get(i).smallFile.digest).equals(sums.get(i))) {
        asked.get(i).smallFile.failure = new Endpoint.NotTheSame();
      }
    }
    giveUp();
  }

  private static void note(List<ArrivingFile> tried, List<RemoteFailure> failures) {
    for (int i = 0; i < tried.size(); i++) {
      if (failures.get(i) != null) {
        tried.get(i).smallFile.failure = failures.get(i);
      }
    }
  }

  /** What failed since the entries were begun: its temporary file goes, and its entry ends. */
  private void giveUp() throws IOException {
    List<ArrivingFile> failed =
        all.stream()
            .filter(one -> one.smallFile.failure != null && one.pending != ReplacedFiles.ENDED)
            .toList();
    if (failed.isEmpty()) {
      return;
    }
    context.files().batch().removeFiles(failed.stream().map(one -> one.part).toList());
    context
        .files()
        .batch()
        .removeFiles(
            failed.stream()
                .filter(one -> !one.moves)
                .map(one -> one.held)
                .filter(Objects::nonNull)
                .toList());
    for (ArrivingFile one : failed) {
      if (one.pending != null
          && ReplacedFiles.isStranded(context, new ReplacedFiles.Held(one.held, one.moves))) {
        one.pending.lost();
      } else if (one.pending != null) {
        one.pending.failed(JournalPhrase.NOT_ARRIVED);
      }
      one.pending = ReplacedFiles.ENDED;
    }
  }

  /** The rule's owner, or that of the file it replaces, where this account may give it. */
  private void giveOwners() throws IOException {
    int ruledUid = context.ownerUid();
    int ruledGid = context.ownerGid();
    List<ArrivingFile> waiting = waiting();
    boolean ruled = ruledUid >= 0 || ruledGid >= 0;
    if (!ruled && waiting.stream().noneMatch(ArrivingFile::replaces)) {
      return;
    }
    List<ArrivingFile> asked =
        ruled ? waiting : waiting.stream().filter(ArrivingFile::replaces).toList();
    List<RemoteAttributes> now =
        context.files().batch().look(asked.stream().map(one -> one.part).toList());
    for (int i = 0; i < asked.size(); i++) {
      ArrivingFile one = asked.get(i);
      RemoteAttributes is = now.get(i);
      RemoteAttributes old = ReplacedFiles.isFile(one.old) ? one.old : null;
      if (is == null || (!ruled && old == null)) {
        continue;
      }
      RemoteAttributes from = old == null ? is : old;
      int uid = ruledUid >= 0 ? ruledUid : from.uid();
      int gid = ruledGid >= 0 ? ruledGid : from.gid();
      if (uid != is.uid() || gid != is.gid()) {
        one.smallFile.lost =
            OwnerSetter.give(
                context.files(),
                one.part,
                is,
                uid,
                gid,
                one.smallFile.item.mode(),
                one.smallFile.timeThere());
      }
    }
  }

  private void rename() throws IOException {
    List<ArrivingFile> waiting = waiting();
    boolean over = context.files().renamesOver();
    List<ArrivingFile> together =
        waiting.stream().filter(one -> !one.replaces() || (over && !one.moves)).toList();
    List<RemoteFailure> failures =
        context
            .files()
            .batch()
            .rename(
                together.stream()
                    .map(one -> new Renaming(one.part, one.target, one.replaces()))
                    .toList(),
                together.size() == waiting.size() ? placed : () -> {});
    for (int i = 0; i < together.size(); i++) {
      ArrivingFile one = together.get(i);
      RemoteFailure failure = failures.get(i);
      if (failure != null && !one.replaces() && failure.reason() == Reason.FAILED) {
        failure = ReplacedFiles.takenOrFailed(context, one.target, failure);
      }
      arrived(one, failure);
    }
    for (ArrivingFile one : waiting) {
      if (one.replaces() && (!over || one.moves)) {
        arrived(
            one, ReplacedFiles.inSteps(context, one.part, one.target, one.moves ? one.held : null));
      }
    }
    giveUp();
  }

  private void arrived(ArrivingFile one, @Nullable RemoteFailure failure) throws IOException {
    if (failure != null) {
      one.smallFile.failure = failure;
      return;
    }
    one.smallFile.arrived = true;
    if (one.smallFile.lost == null) {
      one.smallFile.lost = ReplacedFiles.notKept(context, one.old, one.held);
    }
    if (one.pending != null) {
      TransferItem item = one.smallFile.item;
      one.pending.done(
          ReplacedFiles.state(one.smallFile.size(), item.mode(), one.smallFile.timeThere()),
          List.of());
    }
  }
}
