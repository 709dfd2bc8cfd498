package zander.core.files.sftp;

import java.io.IOException;
import org.jspecify.annotations.Nullable;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.files.RemotePath;
import zander.core.files.sftp.wire.OpenHandle;
import zander.core.files.sftp.wire.RequestBody;
import zander.core.files.sftp.wire.SftpWire;
import zander.core.phrase.FilePhrase;
import zander.core.phrase.FileStep;

/**
 * Sets owner, mode and times of an entry. By its path, with links followed, as SFTP version 3 has
 * it; where another account can turn the path, of the entry itself: by {@code
 * lsetstat@openssh.com}, which follows no link, and where that is not offered or cannot do it (C
 * libraries before 2.32 set no mode so), by an open handle.
 */
final class AttributeSetter {
  private static final String LSETSTAT = "lsetstat@openssh.com";

  /**
   * What was asked.
   *
   * @param request {@code null} when there is no request that does it
   * @param fallback what stands for a request that the server cannot do
   */
  record Asked(
      SftpWire.@Nullable Sent request,
      RemotePath path,
      RequestBody wanted,
      FileStep step,
      Fallback fallback) {}

  private enum Fallback {
    NONE,
    /** By the path: nobody else can turn it. */
    PATH,
    /** By an open handle: no link may be followed. */
    HANDLE
  }

  private final SftpWire wire;

  /** Whether the server turned out to set nothing of an entry itself. */
  private volatile boolean cannotItself;

  AttributeSetter(SftpWire wire) {
    this.wire = wire;
  }

  /**
   * @param wanted the attributes as they are sent
   */
  Asked send(RemotePath path, RequestBody wanted, FileStep step) throws RemoteFailure {
    RequestBody body = SftpWire.body(path);
    body.append(wanted);
    if (!wire.handles().isOpen(path)) {
      SftpWire.Sent request = wire.send(SftpWire.SETSTAT, body, step, path);
      return new Asked(request, path, wanted, step, Fallback.NONE);
    }
    SftpWire.Sent request =
        wire.offers(LSETSTAT) ? wire.sendExtended(LSETSTAT, body, step, path) : null;
    return new Asked(request, path, wanted, step, Fallback.HANDLE);
  }

  /**
   * The same of the entry itself also where nobody else can turn the path, if the server has the
   * request for that.
   */
  Asked sendToItself(RemotePath path, RequestBody wanted, FileStep step) throws RemoteFailure {
    if (cannotItself || wire.handles().isOpen(path) || !wire.offers(LSETSTAT)) {
      return send(path, wanted, step);
    }
    RequestBody body = SftpWire.body(path);
    body.append(wanted);
    SftpWire.Sent request = wire.sendExtended(LSETSTAT, body, step, path);
    return new Asked(request, path, wanted, step, Fallback.PATH);
  }

  /** Waits until it is done. */
  void expect(Asked asked) throws RemoteFailure {
    if (asked.request != null) {
      try {
        wire.expectOk(asked.request);
        return;
      } catch (RemoteFailure e) {
        boolean cannot = e.reason() == Reason.FAILED || e.reason() == Reason.NOT_SUPPORTED;
        if (asked.fallback == Fallback.NONE || !cannot) {
          throw e;
        }
      }
    }
    if (asked.fallback == Fallback.PATH) {
      // By its path it may fail as well: then it was not the request that was not understood.
      expect(send(asked.path, asked.wanted, asked.step));
      cannotItself = true;
      return;
    }
    try {
      byHandle(asked);
    } catch (RemoteFailure e) {
      throw e;
    } catch (IOException e) {
      throw new RemoteFailure(Reason.LINE_LOST, asked.step, asked.path, "", e);
    }
  }

  private void byHandle(Asked asked) throws IOException {
    RemoteAttributes is =
        wire.expectAttributes(
            wire.send(SftpWire.LSTAT, SftpWire.body(asked.path), FileStep.LOOK_AT, asked.path));
    RequestBody body = SftpWire.body();
    switch (is.kind()) {
      case FOLDER -> wire.expectOk(wire.handles().setFolder(asked.path, asked.wanted, asked.step));
      case FILE -> {
        OpenHandle open = OpenHandle.open(wire, asked.path, SftpWire.OPEN_READ);
        try {
          body.putBytes(open.handle());
          body.append(asked.wanted);
          wire.expectOk(wire.send(SftpWire.FSETSTAT, body, asked.step, asked.path));
        } finally {
          wire.forget(wire.send(SftpWire.CLOSE, open.body(), FileStep.CLOSE, asked.path));
        }
      }
      default ->
          throw new RemoteFailure(
              Reason.NOT_SUPPORTED,
              asked.step,
              asked.path,
              FilePhrase.NEITHER_FILE_NOR_FOLDER.of(),
              null);
    }
  }
}
