package zander.core.files.sftp;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.files.RemotePath;
import zander.core.files.RemoteWriter;
import zander.core.files.sftp.wire.OpenHandle;
import zander.core.files.sftp.wire.RequestBody;
import zander.core.files.sftp.wire.SftpWire;
import zander.core.files.sftp.wire.WireAttributes;
import zander.core.phrase.FilePhrase;
import zander.core.phrase.FileStep;
import zander.core.rights.Mode;

/** Opens files to be read and written; a large one over several channels at once. */
final class SftpOpening {
  /** Every server takes reads of this size (draft-ietf-secsh-filexfer-02, section 3). */
  static final int PLAIN_CHUNK = 32 * 1024;

  /** What servers that offer {@code limits@openssh.com} take; replies over 256 KiB are refused. */
  private static final int LARGE_CHUNK = 255 * 1024;

  private final SftpWire wire;
  private final FailureCause cause;

  SftpOpening(SftpWire wire, FailureCause cause) {
    this.wire = wire;
    this.cause = cause;
  }

  byte[] readAll(RemotePath file, long limit) throws IOException {
    try (InputStream in = read(file, 0, List.of())) {
      ByteArrayOutputStream content = new ByteArrayOutputStream();
      byte[] buffer = new byte[PLAIN_CHUNK];
      for (int count; (count = in.read(buffer)) >= 0; ) {
        content.write(buffer, 0, count);
        if (content.size() > limit) {
          throw new RemoteFailure(
              Reason.TOO_LARGE, FileStep.READ, file, FilePhrase.MORE_THAN_BYTES.of(limit), null);
        }
      }
      return content.toByteArray();
    }
  }

  InputStream read(RemotePath file, long from, List<SftpWire> more) throws IOException {
    boolean large = wire.offers("limits@openssh.com");
    List<OpenHandle> lanes = lanes(file, SftpWire.OPEN_READ, more);
    return new SftpReader(file, lanes, large ? LARGE_CHUNK : PLAIN_CHUNK, from);
  }

  private List<OpenHandle> lanes(RemotePath file, int how, List<SftpWire> more)
      throws RemoteFailure {
    List<OpenHandle> lanes = new ArrayList<>(List.of(OpenHandle.open(wire, file, how)));
    OpenHandle.openMore(more, file, how, lanes);
    return lanes;
  }

  RemoteWriter create(RemotePath file, @Nullable Mode mode, List<SftpWire> more)
      throws IOException {
    byte[] handle = cause.expectNew(file, sendCreate(file, mode), wire::expectHandle);
    List<OpenHandle> lanes = new ArrayList<>(List.of(new OpenHandle(wire, handle)));
    OpenHandle.openMore(more, file, SftpWire.OPEN_WRITE, lanes);
    return new SftpWriter(cause, file, lanes, 0, true);
  }

  /**
   * @param mode {@code null} for what the server gives new files
   */
  SftpWire.Sent sendCreate(RemotePath file, @Nullable Mode mode) throws RemoteFailure {
    RequestBody body = SftpWire.body(file);
    body.putInt(SftpWire.OPEN_WRITE | SftpWire.OPEN_CREATE | SftpWire.OPEN_EXCLUSIVE);
    if (mode == null) {
      WireAttributes.putNone(body);
    } else {
      WireAttributes.putMode(body, mode);
    }
    return wire.send(SftpWire.OPEN, body, FileStep.CREATE, file);
  }

  RemoteWriter continueFrom(RemotePath file, long from, List<SftpWire> more) throws IOException {
    return new SftpWriter(cause, file, lanes(file, SftpWire.OPEN_WRITE, more), from, true);
  }

  RemoteWriter rewrite(RemotePath file) throws IOException {
    return new SftpWriter(cause, file, lanes(file, SftpWire.OPEN_WRITE, List.of()), 0, false);
  }
}
