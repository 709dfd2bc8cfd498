package zander.core.files.sftp;

import static java.util.Objects.requireNonNull;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Semaphore;
import org.jspecify.annotations.Nullable;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteBatch;
import zander.core.files.RemoteBatch.Got;
import zander.core.files.RemoteBatch.NewFile;
import zander.core.files.RemoteBatch.Wanted;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.files.RemotePath;
import zander.core.files.sftp.wire.Answers;
import zander.core.files.sftp.wire.FolderHandles;
import zander.core.files.sftp.wire.RequestBody;
import zander.core.files.sftp.wire.SftpWire;
import zander.core.files.sftp.wire.WireAttributes;
import zander.core.phrase.FilePhrase;
import zander.core.phrase.FileStep;
import zander.core.rights.Mode;
import zander.core.work.Cancellation;

/**
 * Small files written and read many at a time: all are opened at once, then all are written or read
 * and closed at once. Two round trips for a hundred files, where one at a time takes four for each.
 */
final class SftpSmallFiles {
  private static final int FILES_AT_ONCE = 128;
  private static final long BYTES_AT_ONCE = 2L << 20;

  /** Every server takes parts of this size (draft-ietf-secsh-filexfer-02, section 3). */
  private static final int CHUNK = 32 * 1024;

  private static final Mode CLOSED = new Mode(0600);

  /** Of all threads together, so that a server's usual limit of a thousand handles is not met. */
  private static final int BATCHES_AT_ONCE = 5;

  private final Semaphore room;
  private final int filesAtOnce;
  private final SftpOpening opening;
  private final SftpWire wire;
  private final FailureCause cause;

  SftpSmallFiles(SftpOpening opening, SftpWire wire, FailureCause cause) {
    this.opening = opening;
    this.wire = wire;
    this.cause = cause;
    this.filesAtOnce = wire.isByScripts() ? 2 : FILES_AT_ONCE;
    this.room = new Semaphore(wire.isByScripts() ? 1 : BATCHES_AT_ONCE);
  }

  /** A file between being opened and being closed. */
  private static final class Opened<T> {
    final T about;
    final RemotePath path;
    final SftpWire.Sent opening;
    byte @Nullable [] handle;
    @Nullable RemoteFailure failure;
    final List<SftpWire.Sent> parts = new ArrayList<>();
    SftpWire.@Nullable Sent attributes;

    /** What is at its path; {@code null} where nobody else can turn that. */
    SftpWire.@Nullable Sent there;

    SftpWire.@Nullable Sent closing;

    Opened(T about, RemotePath path, SftpWire.Sent opening) {
      this.about = about;
      this.path = path;
      this.opening = opening;
    }

    RequestBody body() {
      RequestBody body = SftpWire.body();
      body.putBytes(handle);
      return body;
    }

    void refused(RemoteFailure why) {
      if (failure == null) {
        failure = why;
      }
    }
  }

  List<RemoteFailure> put(List<NewFile> all, Cancellation stop) throws IOException {
    List<RemoteFailure> failures = new ArrayList<>(all.size());
    for (int from = 0; from < all.size(); ) {
      int to = from;
      for (long bytes = 0;
          to < all.size() && to - from < filesAtOnce && bytes < BYTES_AT_ONCE;
          to++) {
        bytes += all.get(to).content().length;
      }
      List<NewFile> some = all.subList(from, to);
      withRoom(stop, () -> putSome(some, failures));
      from = to;
    }
    return failures;
  }

  private interface Step {
    void run() throws IOException;
  }

  /** Waits while as many files are open as a server lets one keep open. */
  private void withRoom(Cancellation stop, Step step) throws IOException {
    room.acquireUninterruptibly();
    try {
      stop.throwIfStopped();
      step.run();
    } finally {
      room.release();
    }
  }

  private void putSome(List<NewFile> some, List<RemoteFailure> failures) throws IOException {
    List<Opened<NewFile>> opened = new ArrayList<>();
    wire.together(FileStep.CREATE, () -> create(some, opened));
    awaitHandles(opened);
    wire.together(
        FileStep.WRITE,
        () -> {
          for (Opened<NewFile> one : opened) {
            if (one.handle != null) {
              write(one);
            }
          }
        });
    List<RemoteFailure> went = new ArrayList<>();
    for (Opened<NewFile> one : opened) {
      awaitWritten(one);
      went.add(one.failure);
    }
    failures.addAll(cause.of(went));
  }

  private void create(List<NewFile> some, List<Opened<NewFile>> opened) throws RemoteFailure {
    for (NewFile file : some) {
      RequestBody body = SftpWire.body(file.path());
      body.putInt(SftpWire.OPEN_WRITE | SftpWire.OPEN_CREATE | SftpWire.OPEN_EXCLUSIVE);
      if (file.mode() == null) {
        WireAttributes.putNone(body);
      } else {
        // Closed to others until it has its mode: it may be a secret.
        WireAttributes.putMode(body, CLOSED);
      }
      SftpWire.Sent sent = wire.send(SftpWire.OPEN, body, FileStep.CREATE, file.path());
      opened.add(new Opened<>(file, file.path(), sent));
    }
  }

  private <T> void awaitHandles(List<Opened<T>> opened) throws RemoteFailure {
    for (Opened<T> one : opened) {
      one.handle =
          Answers.take(
              one.opening,
              wire::expectHandle,
              refused -> {
                one.refused(refused);
                return null;
              });
    }
  }

  private void write(Opened<NewFile> one) throws RemoteFailure {
    byte[] content = one.about.content();
    for (int at = 0; at < content.length; at += CHUNK) {
      RequestBody body = one.body();
      body.putLong(at);
      int count = Math.min(CHUNK, content.length - at);
      one.parts.add(
          wire.sendData(SftpWire.WRITE, body, content, at, count, FileStep.WRITE, one.path));
    }
    if (one.about.mode() != null || one.about.modified() >= 0) {
      RequestBody body = one.body();
      WireAttributes.putModeAndTime(body, one.about.mode(), one.about.modified());
      one.attributes = wire.send(SftpWire.FSETSTAT, body, FileStep.SET_MODE_AND_TIME, one.path);
    }
    one.closing = wire.send(SftpWire.CLOSE, one.body(), FileStep.CLOSE, one.path);
  }

  private void awaitWritten(Opened<NewFile> one) throws RemoteFailure {
    for (SftpWire.Sent part : one.parts) {
      awaitOk(one, part);
    }
    if (one.attributes != null) {
      awaitOk(one, one.attributes);
    }
    if (one.closing != null) {
      awaitOk(one, one.closing);
    }
  }

  private void awaitOk(Opened<?> one, SftpWire.Sent sent) throws RemoteFailure {
    Answers.take(
        sent,
        answer -> {
          wire.expectOk(answer);
          return true;
        },
        refused -> {
          one.refused(refused);
          return false;
        });
  }

  List<Got> get(List<Wanted> all, Cancellation stop) throws IOException {
    List<Got> got = new ArrayList<>(all.size());
    for (int from = 0; from < all.size(); ) {
      int to = from;
      for (long bytes = 0;
          to < all.size() && to - from < filesAtOnce && bytes < BYTES_AT_ONCE;
          to++) {
        bytes += all.get(to).expected();
      }
      List<Wanted> some = all.subList(from, to);
      withRoom(stop, () -> getSome(some, got));
      from = to;
    }
    return got;
  }

  private void getSome(List<Wanted> some, List<Got> got) throws IOException {
    List<Opened<Wanted>> opened = new ArrayList<>();
    wire.together(FileStep.OPEN, () -> open(some, opened));
    awaitHandles(opened);
    wire.together(FileStep.READ, () -> ask(opened));
    for (Opened<Wanted> one : opened) {
      got.add(one.handle == null ? new Got(null, null, one.failure) : read(one));
    }
  }

  private void open(List<Wanted> some, List<Opened<Wanted>> opened) throws RemoteFailure {
    for (Wanted file : some) {
      RequestBody body = SftpWire.body(file.path());
      body.putInt(SftpWire.OPEN_READ);
      WireAttributes.putNone(body);
      SftpWire.Sent sent = wire.send(SftpWire.OPEN, body, FileStep.OPEN, file.path());
      opened.add(new Opened<>(file, file.path(), sent));
    }
  }

  private void ask(List<Opened<Wanted>> opened) throws RemoteFailure {
    for (Opened<Wanted> one : opened) {
      if (one.handle != null) {
        // One byte more than expected shows a file that has grown.
        for (long at = 0; at <= one.about.expected(); at += CHUNK) {
          RequestBody body = one.body();
          body.putLong(at);
          body.putUInt(Math.min(CHUNK, one.about.expected() + 1 - at));
          one.parts.add(wire.send(SftpWire.READ, body, FileStep.READ, one.path));
        }
        one.attributes = wire.send(SftpWire.FSTAT, one.body(), FileStep.LOOK_AT, one.path);
        if (wire.handles().isKnownOpen(one.path)) {
          one.there =
              wire.send(SftpWire.LSTAT, SftpWire.body(one.path), FileStep.LOOK_AT, one.path);
        }
        one.closing = wire.send(SftpWire.CLOSE, one.body(), FileStep.CLOSE, one.path);
      }
    }
  }

  private Got read(Opened<Wanted> one) throws IOException {
    ByteArrayOutputStream content = new ByteArrayOutputStream((int) one.about.expected() + 1);
    for (SftpWire.Sent part : one.parts) {
      SftpWire.Data data =
          Answers.take(
              part,
              wire::expectData,
              refused -> {
                one.refused(refused);
                return null;
              });
      if (data != null) {
        content.write(data.bytes(), data.offset(), data.length());
      }
    }
    RemoteAttributes attributes =
        Answers.take(
            requireNonNull(one.attributes),
            wire::expectAttributes,
            refused -> {
              one.refused(refused);
              return null;
            });
    awaitOk(one, requireNonNull(one.closing));
    if (one.there != null) {
      checkIsThere(one, one.there, attributes);
    }
    if (one.failure != null) {
      return new Got(null, null, one.failure);
    }
    if (attributes != null
        && content.size() == attributes.size()
        && content.size() == one.about.expected()) {
      return new Got(content.toByteArray(), attributes, null);
    }
    return readAgain(one.path);
  }

  /** Another account has no file of another owner, size and time to put there. */
  private void checkIsThere(Opened<?> one, SftpWire.Sent asked, @Nullable RemoteAttributes opened)
      throws RemoteFailure {
    RemoteAttributes there = Answers.take(asked, wire::expectAttributes, refused -> null);
    boolean same =
        opened != null
            && there != null
            && there.uid() == opened.uid()
            && !there.looksChangedSince(opened);
    if (!same && !isTheirs(there, opened)) {
      one.refused(FolderHandles.turned(FileStep.READ, one.path, "another file"));
    }
  }

  /** A link of whoever owns what it leads to. */
  private static boolean isTheirs(
      @Nullable RemoteAttributes link, @Nullable RemoteAttributes target) {
    return link != null && target != null && link.uid() == target.uid() && link.uid() != 0;
  }

  private RemoteAttributes look(RemotePath path) throws RemoteFailure {
    return wire.expectAttributes(
        wire.send(SftpWire.STAT, SftpWire.body(path), FileStep.LOOK_AT, path));
  }

  /** For a server that answers with less than was asked, and for a file that has changed. */
  private Got readAgain(RemotePath path) throws IOException {
    try (InputStream in = opening.read(path, 0, List.of())) {
      byte[] content = in.readNBytes(RemoteBatch.LARGEST + 1);
      if (content.length > RemoteBatch.LARGEST) {
        return new Got(
            null,
            null,
            new RemoteFailure(
                Reason.FAILED, FileStep.READ, path, FilePhrase.GROWN_MEANWHILE.of(), null));
      }
      return new Got(content, look(path), null);
    } catch (RemoteFailure e) {
      if (e.reason() == Reason.LINE_LOST) {
        throw e;
      }
      return new Got(null, null, e);
    }
  }
}
