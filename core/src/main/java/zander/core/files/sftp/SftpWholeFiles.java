package zander.core.files.sftp;

import static java.util.Objects.requireNonNull;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import zander.core.files.FileKind;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.files.RemoteFiles.CreatedFile;
import zander.core.files.RemoteFiles.WholeFile;
import zander.core.files.RemotePath;
import zander.core.files.sftp.wire.Answers;
import zander.core.files.sftp.wire.OpenHandle;
import zander.core.files.sftp.wire.RequestBody;
import zander.core.files.sftp.wire.SftpWire;
import zander.core.phrase.FilePhrase;
import zander.core.phrase.FileStep;
import zander.core.rights.Mode;

/**
 * The steps of reading and replacing a whole file, in as few round trips as they can be: what does
 * not depend on each other is asked together. The server answers in the order it was asked.
 */
final class SftpWholeFiles {
  /** Up to here all of a file is asked for at once. */
  private static final int AT_ONCE = 1 << 20;

  private static final int CHUNK = SftpOpening.PLAIN_CHUNK;

  private final SftpFiles files;
  private final SftpWire wire;
  private final SftpOpening opening;
  private final SftpExtensions extensions;
  private final FailureCause cause;

  SftpWholeFiles(
      SftpFiles files,
      SftpWire wire,
      SftpOpening opening,
      SftpExtensions extensions,
      FailureCause cause) {
    this.files = files;
    this.wire = wire;
    this.opening = opening;
    this.extensions = extensions;
    this.cause = cause;
  }

  WholeFile read(RemotePath path, long limit) throws IOException {
    if (files.othersMayTurn(path)) {
      return readSlowly(path, files.realPath(path), limit);
    }
    SftpWire.Sent asked = wire.send(SftpWire.REALPATH, SftpWire.body(path), FileStep.RESOLVE, path);
    SftpWire.Sent look = wire.send(SftpWire.STAT, SftpWire.body(path), FileStep.LOOK_AT, path);
    String wireName = Answers.take(asked, wire::expectName, refused -> null);
    RemoteAttributes before = wire.expectAttributes(look);
    RemotePath real = wireName == null ? files.realPath(path) : SftpWire.pathOf(wireName, path);
    check(path, before, limit);
    if (before.size() > AT_ONCE || files.othersMayTurn(real)) {
      return readSlowly(path, real, limit);
    }
    WholeFile read = readAtOnce(real, before);
    return read == null ? readSlowly(path, real, limit) : read;
  }

  private static void check(RemotePath path, RemoteAttributes is, long limit) throws RemoteFailure {
    if (is.kind() != FileKind.FILE) {
      throw new RemoteFailure(
          Reason.NOT_SUPPORTED, FileStep.OPEN, path, FilePhrase.NOT_A_FILE.of(), null);
    }
    if (is.size() > limit) {
      throw new RemoteFailure(
          Reason.TOO_LARGE, FileStep.OPEN, path, FilePhrase.MORE_THAN_BYTES.of(limit), null);
    }
  }

  private WholeFile readSlowly(RemotePath path, RemotePath real, long limit) throws IOException {
    RemoteAttributes before = files.lookThrough(real);
    check(path, before, limit);
    byte[] content = opening.readAll(real, limit);
    return new WholeFile(real, before, files.lookThrough(real), content);
  }

  /** Null when it is not of the length that was seen, or the server answers with less. */
  private @Nullable WholeFile readAtOnce(RemotePath real, RemoteAttributes before)
      throws RemoteFailure {
    OpenHandle handle = OpenHandle.open(wire, real, SftpWire.OPEN_READ);
    List<SftpWire.Sent> parts = new ArrayList<>();
    SftpWire.Sent[] last = new SftpWire.Sent[2];
    wire.together(
        FileStep.READ,
        () -> {
          // One more than there is: a file that grew shows.
          for (long at = 0; at <= before.size(); at += CHUNK) {
            RequestBody body = handle.body();
            body.putLong(at);
            body.putInt(CHUNK);
            parts.add(wire.send(SftpWire.READ, body, FileStep.READ, real));
          }
          last[0] = wire.send(SftpWire.FSTAT, handle.body(), FileStep.LOOK_AT, real);
          last[1] = wire.send(SftpWire.CLOSE, handle.body(), FileStep.CLOSE, real);
        });
    ByteArrayOutputStream content = new ByteArrayOutputStream();
    RemoteFailure failure = null;
    for (SftpWire.Sent part : parts) {
      // Every answer is taken, whatever came before: nobody else would.
      try {
        SftpWire.Data data = wire.expectData(part);
        if (data != null) {
          content.write(data.bytes(), data.offset(), data.length());
          wire.recycle(data);
        }
      } catch (RemoteFailure e) {
        if (e.reason() == Reason.LINE_LOST) {
          throw e;
        }
        failure = failure == null ? e : failure;
      }
    }
    RemoteAttributes after = Answers.take(last[0], wire::expectAttributes, refused -> null);
    wire.forget(last[1]);
    if (failure != null) {
      throw failure;
    }
    return after != null && content.size() == before.size() && after.size() == before.size()
        ? new WholeFile(real, before, after, content.toByteArray())
        : null;
  }

  CreatedFile create(RemotePath file, Mode mode) throws IOException {
    RemotePath parent = file.parent();
    // The folder first: what is made in it changes its time.
    SftpWire.Sent around =
        wire.send(SftpWire.LSTAT, SftpWire.body(parent), FileStep.LOOK_AT, parent);
    SftpWire.Sent made = opening.sendCreate(file, mode);
    SftpWire.Sent look = wire.send(SftpWire.LSTAT, SftpWire.body(file), FileStep.LOOK_AT, file);
    byte[] handle = null;
    RemoteFailure failure = null;
    try {
      handle = wire.expectHandle(made);
    } catch (RemoteFailure e) {
      failure = e;
    }
    RemoteAttributes is = Answers.take(look, wire::expectAttributes, refused -> null);
    RemoteAttributes folder = Answers.take(around, wire::expectAttributes, refused -> null);
    if (handle == null || failure != null) {
      throw requireNonNull(failure).reason() == Reason.FAILED && is != null
          ? new RemoteFailure(
              Reason.ALREADY_EXISTS, FileStep.CREATE, file, FilePhrase.EXISTS.of(), failure)
          : cause.of(failure);
    }
    return new CreatedFile(
        new SftpWriter(cause, file, List.of(new OpenHandle(wire, handle)), 0, true), is, folder);
  }

  @Nullable RemoteAttributes renameOver(RemotePath from, RemotePath to) throws IOException {
    RemotePath parent = to.parent();
    extensions.needsRenameOver(to);
    SftpWire.Sent renamed = extensions.sendRenameOver(from, to);
    SftpWire.Sent look = wire.send(SftpWire.LSTAT, SftpWire.body(parent), FileStep.LOOK_AT, parent);
    RemoteFailure failure = null;
    try {
      wire.expectOk(renamed);
    } catch (RemoteFailure e) {
      failure = e;
    }
    if (failure != null && failure.reason() == Reason.LINE_LOST) {
      throw failure;
    }
    RemoteAttributes folder;
    try {
      folder = wire.expectAttributes(look);
    } catch (RemoteFailure e) {
      // It is renamed; that this is not known besides changes nothing.
      folder = null;
    }
    if (failure != null) {
      throw cause.of(failure);
    }
    wire.handles().guard().moved();
    return folder;
  }
}
