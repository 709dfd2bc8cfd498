package zander.core.change.save;

import java.io.IOException;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import zander.core.change.save.AtomicSave.Allow;
import zander.core.change.save.SaveFailure.Step;
import zander.core.connect.command.Commands;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.files.RemoteWriter;
import zander.core.phrase.FilePhrase;
import zander.core.phrase.FileStep;

/**
 * A new file that is to take the place of the old one, and to be all that it is.
 *
 * @param step told what is being done
 */
record ReplacementFile(
    RemoteFiles files,
    Commands commands,
    SaveRun.Wanted wanted,
    FileMetadata metadata,
    StagedContent staged,
    Consumer<Step> step) {

  /**
   * A new file that is all that the old one is.
   *
   * @param target what is in its place, looked at last; {@code null} where it was not
   */
  record Made(RemoteAttributes file, @Nullable RemoteAttributes target) {}

  /** Null when a new file cannot be what the old one is. */
  @Nullable Made make(RemoteAttributes old, Consumer<@Nullable RemoteAttributes> folder)
      throws IOException {
    step.accept(Step.CREATE);
    RemoteFiles.CreatedFile fresh = staged.create();
    folder.accept(fresh.folder());
    try (RemoteWriter writer = fresh.writer()) {
      step.accept(Step.WRITE);
      writer.write(wanted.content(), 0, wanted.content().length);
      Made made = isOwnedAsOld(fresh, old) ? complete(writer, old) : null;
      if (made == null) {
        made = giveRights(writer, old);
      }
      if (made != null && metadata.extended() && !wanted.may(Allow.METADATA_CHANGE)) {
        return keepExtended() ? new Made(files.look(staged.path()), null) : null;
      }
      return made;
    }
  }

  /** By what is at its name, which is asked again by its handle. */
  private static boolean isOwnedAsOld(RemoteFiles.CreatedFile fresh, RemoteAttributes old) {
    return fresh.seen() != null
        && fresh.seen().uid() == old.uid()
        && fresh.seen().gid() == old.gid();
  }

  /** All in one round trip; null when its owner turns out to be another. */
  private @Nullable Made complete(RemoteWriter writer, RemoteAttributes old) throws IOException {
    RemotePath look = files.othersMayTurn(target()) ? null : target();
    RemoteWriter.Completed done = writer.complete(old.mode(), look);
    if (done.file().uid() != old.uid() || done.file().gid() != old.gid()) {
      return null;
    }
    return new Made(checkWritten(done.file(), old, true), done.other());
  }

  /** Null when it cannot be given its owner. */
  private @Nullable Made giveRights(RemoteWriter writer, RemoteAttributes old) throws IOException {
    // All that was sent is answered before the look is: a full disk is told here.
    RemoteAttributes fresh = writer.look();
    step.accept(Step.RIGHTS);
    boolean owned = StagedContent.giveRights(writer, old, fresh, wanted.may(Allow.OWNER_CHANGE));
    step.accept(Step.SYNC);
    writer.finish();
    if (!owned && !wanted.may(Allow.OWNER_CHANGE)) {
      return null;
    }
    return new Made(checkWritten(writer.look(), old, owned), null);
  }

  private boolean keepExtended() throws IOException {
    return !files.othersMayTurn(target())
        && ExtendedAttributes.copy(commands, target(), staged.path());
  }

  private RemoteAttributes checkWritten(
      RemoteAttributes written, RemoteAttributes old, boolean owned) throws RemoteFailure {
    if (written.size() != wanted.content().length) {
      throw new RemoteFailure(
          Reason.BAD_ANSWER,
          FileStep.WRITE,
          staged.path(),
          FilePhrase.BYTES_ARRIVED.of(written.size()),
          null);
    }
    if (owned && !written.mode().equals(old.mode())) {
      throw new RemoteFailure(
          Reason.PERMISSION_DENIED,
          FileStep.SET_MODE,
          staged.path(),
          FilePhrase.MODE_IS.of(written.mode()),
          null);
    }
    return written;
  }

  private RemotePath target() {
    return wanted.before().real();
  }
}
