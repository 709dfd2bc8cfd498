package zander.core.files.sftp;

import java.io.IOException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.jspecify.annotations.Nullable;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.files.RemotePath;
import zander.core.files.RemoteReader;
import zander.core.files.sftp.wire.OpenHandle;
import zander.core.files.sftp.wire.RequestBody;
import zander.core.files.sftp.wire.SftpWire;
import zander.core.phrase.FilePhrase;
import zander.core.phrase.FileStep;

/** A file that is open on one channel, read at any place. For one thread at a time. */
final class SftpOpenFile implements RemoteReader {
  private static final int CHUNK = SftpOpening.PLAIN_CHUNK;

  private final OpenHandle handle;
  private final RemotePath path;

  SftpOpenFile(OpenHandle handle, RemotePath path) {
    this.handle = handle;
    this.path = path;
  }

  @Override
  public RemotePath path() {
    return path;
  }

  private SftpWire wire() {
    return handle.wire();
  }

  @Override
  public byte[] read(long from, int length) throws IOException {
    byte[] content = new byte[length];
    int had = 0;
    while (had < length) {
      int got = readOnce(from + had, content, had);
      if (got == 0) {
        break;
      }
      had += got;
    }
    return had == length ? content : Arrays.copyOf(content, had);
  }

  /** Fills up to the first answer that is shorter than asked, which the rest has to wait for. */
  private int readOnce(long from, byte[] into, int at) throws RemoteFailure {
    List<SftpWire.Sent> parts = new ArrayList<>();
    wire()
        .together(
            FileStep.READ,
            () -> {
              for (int next = at; next < into.length; next += CHUNK) {
                RequestBody body = handle.body();
                body.putLong(from + (next - at));
                body.putInt(Math.min(CHUNK, into.length - next));
                parts.add(wire().send(SftpWire.READ, body, FileStep.READ, path));
              }
            });
    int got = 0;
    boolean whole = true;
    RemoteFailure failure = null;
    for (int i = 0; i < parts.size(); i++) {
      int asked = Math.min(CHUNK, into.length - at - i * CHUNK);
      // Every answer is taken, whatever came before: nobody else would.
      try {
        SftpWire.Data data = wire().expectData(parts.get(i));
        int length = data == null ? 0 : data.length();
        if (length > asked) {
          throw new RemoteFailure(
              Reason.BAD_ANSWER,
              FileStep.READ,
              path,
              FilePhrase.ANSWERED_SO.of(length + " bytes"),
              null);
        }
        if (data != null && whole && length > 0) {
          System.arraycopy(data.bytes(), data.offset(), into, at + got, length);
          got += length;
        }
        if (data != null) {
          wire().recycle(data);
        }
        whole &= length == asked;
      } catch (RemoteFailure e) {
        failure = failure == null ? e : failure;
      }
    }
    if (failure != null) {
      throw failure;
    }
    return got;
  }

  @Override
  public Seen look() throws IOException {
    SftpWire.Sent[] asked = new SftpWire.Sent[3];
    boolean open = wire().handles().isOpen(path);
    wire()
        .together(
            FileStep.LOOK_AT,
            () -> {
              asked[0] = wire().send(SftpWire.FSTAT, handle.body(), FileStep.LOOK_AT, path);
              int how = open ? SftpWire.LSTAT : SftpWire.STAT;
              asked[1] = wire().send(how, SftpWire.body(path), FileStep.LOOK_AT, path);
              asked[2] = wire().send(SftpWire.FSTAT, handle.body(), FileStep.LOOK_AT, path);
            });
    RemoteFailure[] failure = new RemoteFailure[1];
    RemoteAttributes before = attributes(asked[0], failure);
    RemoteFailure[] gone = new RemoteFailure[1];
    RemoteAttributes atPath = attributes(asked[1], gone);
    RemoteAttributes after = attributes(asked[2], failure);
    if (before == null || after == null) {
      throw failure[0];
    }
    if (gone[0] != null && gone[0].reason() != Reason.NO_SUCH_FILE) {
      throw gone[0];
    }
    return new Seen(before, atPath, after);
  }

  private @Nullable RemoteAttributes attributes(SftpWire.Sent sent, RemoteFailure[] failure) {
    try {
      return wire().expectAttributes(sent);
    } catch (RemoteFailure e) {
      failure[0] = failure[0] == null ? e : failure[0];
      return null;
    }
  }

  @Override
  public void close() throws IOException {
    wire().forget(wire().send(SftpWire.CLOSE, handle.body(), FileStep.CLOSE, path));
  }
}
