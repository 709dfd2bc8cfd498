package zander.core.transfer.remote;

import static java.util.Objects.requireNonNull;

import java.io.IOException;
import java.util.List;
import org.jspecify.annotations.Nullable;
import zander.core.connect.command.ExecResult;
import zander.core.connect.command.Pipe;
import zander.core.files.FileKind;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteBatch.Setting;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.files.RemoteWriter;
import zander.core.files.ToolErrors;
import zander.core.journal.Journal;
import zander.core.phrase.FilePhrase;
import zander.core.phrase.FileStep;
import zander.core.phrase.JournalPhrase;
import zander.core.phrase.Phrase;
import zander.core.rights.Mode;
import zander.core.transfer.direct.DirectTransfer;
import zander.core.transfer.endpoint.DirectRoute;
import zander.core.transfer.endpoint.Endpoint;
import zander.core.transfer.endpoint.Target;
import zander.core.transfer.endpoint.TransferItem;
import zander.core.transfer.server.RemoteContext;

/**
 * A file of some size that is arriving on a server, by requests over one or several channels or by
 * a stream into a plain program. It is in the journal before its temporary file is made.
 */
final class RemoteFileWriter implements DirectRoute.Arrival {
  private static final Mode CLOSED = new Mode(0600);

  private final RemoteContext context;
  private final RemoteDigests digests;
  private final TransferItem item;
  private final RemotePath target;
  private final String partPath;
  private final RemotePath part;
  private final @Nullable RemoteAttributes old;
  private final ReplacedFiles.Held held;
  private final Journal.Pending pending;

  /** {@code null} where its content passes this computer. */
  private final @Nullable DirectTransfer direct;

  private final @Nullable RemoteWriter writer;
  private final @Nullable Pipe stream;
  private long size;
  private boolean ended;

  /**
   * @param direct writes it from another server, so that nothing is opened for it here; {@code
   *     null} where its content passes this computer
   */
  RemoteFileWriter(
      RemoteContext context,
      RemoteFolders folders,
      RemoteDigests digests,
      TransferItem item,
      Target.@Nullable Part begun,
      @Nullable DirectTransfer direct)
      throws IOException {
    this.context = context;
    this.digests = digests;
    this.item = item;
    this.direct = direct;
    this.target = context.at(item.to());
    this.partPath =
        begun != null
            ? begun.path()
            : Endpoint.join(
                Endpoint.folderOf(item.to()), context.partialNames().of(target.wireName()));
    this.part = context.at(partPath);
    boolean replaces = item.there() != null;
    RemoteAttributes there = replaces ? context.files().batch().look(List.of(target)).get(0) : null;
    this.old = there;
    this.held = ReplacedFiles.hold(context, target, there);
    boolean told = replaces || !folders.covers(item.to());
    this.pending =
        told
            ? context
                .journal()
                .begin(ReplacedFiles.change(context, target, part, replaces, there, held.name()))
            : ReplacedFiles.ENDED;
    this.size = begun == null ? 0 : begun.size();
    try {
      long left = item.node().size() - size;
      this.stream =
          begun == null
                  && direct == null
                  && context.strategy().streamsUp(left)
                  && !context.isByRequestsOnly(part)
              ? ShellFileStreams.write(context, part, item.mode() != null)
              : null;
      this.writer = stream == null && direct == null ? open(begun, left) : null;
    } catch (IOException e) {
      pending.failed(e);
      throw e;
    }
  }

  private RemoteWriter open(Target.@Nullable Part begun, long left) throws IOException {
    RemoteFiles files = context.files();
    List<RemoteFiles> lanes = context.channels().lanes(context.strategy().lanesUp(left));
    return begun == null
        ? files.create(part, item.mode() == null ? null : CLOSED, lanes)
        : files.continueFrom(part, begun.size(), lanes);
  }

  @Override
  public void write(byte[] bytes, int offset, int length) throws IOException {
    if (stream == null) {
      requireNonNull(writer).write(bytes, offset, length);
    } else {
      try {
        stream.in().write(bytes, offset, length);
      } catch (IOException e) {
        throw streamFailed(e);
      }
    }
    size += length;
  }

  @Override
  public long stream(long from) throws IOException {
    size = requireNonNull(direct).stream(item, part, from);
    return size;
  }

  private IOException streamFailed(@Nullable IOException cause) throws IOException {
    ExecResult result = requireNonNull(stream).finish();
    String said = result.errorText().strip();
    return new RemoteFailure(ToolErrors.reason(said), FileStep.WRITE, part, said, cause);
  }

  @Override
  public Target.Part part() {
    return new Target.Part(partPath, writer == null ? size : writer.taken());
  }

  @Override
  public @Nullable Phrase arrive(long modified, @Nullable String digest) throws IOException {
    RemoteFiles files = context.files();
    if (stream != null) {
      ExecResult result = stream.finish();
      if (result.exit() != 0) {
        throw streamFailed(null);
      }
    } else if (writer != null) {
      writer.close();
    }
    RemoteAttributes now = files.look(part);
    if (now.size() != size) {
      throw new RemoteFailure(
          Reason.FAILED, FileStep.WRITE, part, FilePhrase.ARRIVED_OF.of(now.size(), size), null);
    }
    if (digest != null && !digest.equals(digests.of(part, -1))) {
      throw new Endpoint.NotTheSame();
    }
    Phrase lost = giveOwner(now, modified);
    if (item.mode() != null || modified >= 0) {
      RemoteFailure refused =
          files.batch().set(List.of(new Setting(part, item.mode(), modified))).get(0);
      if (refused != null) {
        throw refused;
      }
    }
    putInPlace(files);
    ended = true;
    pending.done(ReplacedFiles.state(size, item.mode(), modified), List.of());
    return lost != null ? lost : ReplacedFiles.notKept(context, old, held.name());
  }

  private void putInPlace(RemoteFiles files) throws IOException {
    if (item.there() == null) {
      files.rename(part, target);
    } else if (files.renamesOver() && !held.moves()) {
      files.renameOver(part, target);
    } else {
      RemoteFailure failure =
          ReplacedFiles.inSteps(context, part, target, held.moves() ? held.name() : null);
      if (failure != null) {
        throw failure;
      }
    }
  }

  private @Nullable Phrase giveOwner(RemoteAttributes now, long modified) throws IOException {
    RemoteAttributes from = old != null && old.kind() == FileKind.FILE ? old : now;
    int uid = context.ownerUid() >= 0 ? context.ownerUid() : from.uid();
    int gid = context.ownerGid() >= 0 ? context.ownerGid() : from.gid();
    return uid == now.uid() && gid == now.gid()
        ? null
        : OwnerSetter.give(context.files(), part, now, uid, gid, item.mode(), modified);
  }

  @Override
  public void leave() {
    leave(true);
  }

  @Override
  public void leave(boolean lost) {
    ended = true;
    closeQuietly();
    end(lost);
  }

  private void closeQuietly() {
    try {
      if (stream != null) {
        stream.close();
      } else if (writer != null) {
        writer.close();
      }
    } catch (IOException | RuntimeException e) {
      // What made the writing fail is being told; removing is tried all the same.
    }
  }

  @Override
  public void close() {
    if (ended) {
      return;
    }
    ended = true;
    closeQuietly();
    boolean gone = remove(part);
    gone &= held.name() == null || held.moves() || remove(held.name());
    end(!gone || isStranded());
  }

  private boolean isStranded() {
    try {
      return ReplacedFiles.isStranded(context, held);
    } catch (IOException e) {
      return true;
    }
  }

  private void end(boolean lost) {
    try {
      if (lost) {
        pending.lost();
      } else {
        pending.failed(JournalPhrase.NOT_ARRIVED);
      }
    } catch (IOException e) {
      // The journal keeps it as under way, and the next start looks what became of it.
    }
  }

  private boolean remove(RemotePath path) {
    try {
      context.files().batch().removeFiles(List.of(path));
      return true;
    } catch (IOException | RuntimeException e) {
      context.leave(path);
      return false;
    }
  }
}
