package zander.core.files.sftp;

import java.io.IOException;
import java.time.Duration;
import java.util.function.Function;
import org.apache.sshd.common.util.buffer.Buffer;
import zander.core.files.AnswerBounds;
import zander.core.files.FileKind;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.files.RemotePath;
import zander.core.files.WireName;
import zander.core.files.sftp.channel.SftpChannel;
import zander.core.rights.Mode;
import zander.core.work.BlockingCalls;

/**
 * The requests and answers of SFTP version 3 (draft-ietf-secsh-filexfer-02) over a {@link
 * SftpChannel}.
 *
 * <p>Sending and waiting are apart, so that many requests can be under way. Names go as their own
 * bytes. Safe for several threads.
 */
final class SftpWire {
  static final int OPEN = 3;
  static final int CLOSE = 4;
  static final int READ = 5;
  static final int WRITE = 6;
  static final int LSTAT = 7;
  static final int FSTAT = 8;
  static final int SETSTAT = 9;
  static final int FSETSTAT = 10;
  static final int OPENDIR = 11;
  static final int READDIR = 12;
  static final int REMOVE = 13;
  static final int MKDIR = 14;
  static final int RMDIR = 15;
  static final int REALPATH = 16;
  static final int STAT = 17;
  static final int RENAME = 18;
  static final int READLINK = 19;
  static final int SYMLINK = 20;
  static final int EXTENDED = 200;

  static final int OPEN_READ = 0x1;
  static final int OPEN_WRITE = 0x2;
  static final int OPEN_CREATE = 0x8;
  static final int OPEN_EXCLUSIVE = 0x20;

  private static final int STATUS = 101;
  private static final int HANDLE = 102;
  private static final int DATA = 103;
  private static final int NAME = 104;
  private static final int ATTRS = 105;
  private static final int EXTENDED_REPLY = 201;

  private static final int STATUS_OK = 0;
  private static final int STATUS_EOF = 1;

  private static final int HAS_SIZE = 0x1;
  private static final int HAS_OWNER = 0x2;
  private static final int HAS_MODE = 0x4;
  private static final int HAS_TIMES = 0x8;
  private static final int HAS_EXTENDED = 0x80000000;

  /** A dead line is found by the keep-alive of the connection; this only bounds a mute server. */
  private static final Duration PATIENCE = Duration.ofMinutes(5);

  private final SftpChannel channel;
  private final FolderHandles handles;

  SftpWire(SftpChannel channel, FolderGuard guard) {
    this.channel = channel;
    this.handles = new FolderHandles(this, channel, guard);
  }

  /** How entries are named in folders where another account can turn a path. */
  FolderHandles handles() {
    return handles;
  }

  long window() {
    return channel.window();
  }

  boolean offers(String extension) {
    return channel.offers(extension);
  }

  void close() {
    channel.close(false);
  }

  /**
   * A request that was sent: what it was for, and the number its answer will carry.
   *
   * @param refused why it was not sent, which is as good as an answer; {@code null} when it was
   */
  record Sent(int id, String step, RemotePath path, RemoteFailure refused) {
    Sent(int id, String step, RemotePath path) {
      this(id, step, path, null);
    }
  }

  static RequestBody body() {
    return new RequestBody();
  }

  static RequestBody body(RemotePath path) {
    RequestBody body = body();
    body.putPath(path);
    return body;
  }

  static void putName(Buffer body, String wire) {
    body.putBytes(WireName.bytes(wire));
  }

  /** Sends a request, with names that nobody can turn where that is needed. */
  Sent send(int type, RequestBody body, String step, RemotePath path) throws RemoteFailure {
    BlockingCalls.check(step);
    try {
      int id = handles.send(body, changes(type), placed -> channel.send(type, placed));
      return new Sent(id, step, path);
    } catch (RemoteFailure e) {
      if (e.reason() == Reason.LINE_LOST) {
        throw e;
      }
      return new Sent(0, step, path, e.about(path));
    } catch (IOException | RuntimeException e) {
      throw lost(step, path, e);
    }
  }

  private static boolean changes(int type) {
    return switch (type) {
      case LSTAT, STAT, READLINK, REALPATH, OPENDIR -> false;
      default -> true;
    };
  }

  /** Sends a request with its names as they are. */
  Sent sendAsIs(int type, RequestBody body, String step, RemotePath path) throws RemoteFailure {
    BlockingCalls.check(step);
    try {
      return new Sent(channel.send(type, body), step, path);
    } catch (IOException | RuntimeException e) {
      throw lost(step, path, e);
    }
  }

  Sent sendAsIs(int type, RemotePath path, String step) throws RemoteFailure {
    return sendAsIs(type, body(path), step, path);
  }

  /**
   * Opens a file that is there.
   *
   * @param how flags and attributes of the request
   * @throws RemoteFailure with {@code LEADS_ELSEWHERE} when a link was put in its place
   */
  byte[] open(RemotePath file, RequestBody how) throws RemoteFailure {
    try {
      if (handles.isOpen(file)) {
        return handles.openFile(how, file);
      }
    } catch (RemoteFailure e) {
      throw e;
    } catch (IOException e) {
      throw lost("open", file, e);
    }
    RequestBody body = body(file);
    body.append(how);
    return expectHandle(send(OPEN, body, "open", file));
  }

  /** The same for one that ends with content, whose length is before it. */
  Sent sendData(
      int type, Buffer body, byte[] data, int offset, int count, String step, RemotePath path)
      throws RemoteFailure {
    BlockingCalls.check(step);
    body.putInt(count);
    try {
      return new Sent(channel.send(type, body, data, offset, count), step, path);
    } catch (IOException | RuntimeException e) {
      throw lost(step, path, e);
    }
  }

  Sent sendExtended(String name, RequestBody rest, String step, RemotePath path)
      throws RemoteFailure {
    RequestBody body = body();
    body.putString(name);
    body.append(rest);
    return send(EXTENDED, body, step, path);
  }

  private static RemoteFailure lost(String step, RemotePath path, Exception cause) {
    return new RemoteFailure(
        Reason.LINE_LOST, step, path, String.valueOf(cause.getMessage()), cause);
  }

  interface Asking extends SftpChannel.Asking<RemoteFailure> {}

  /** Sends what this thread asks within as few packets. */
  void together(String step, Asking asking) throws RemoteFailure {
    orLost(step, () -> channel.together(asking));
  }

  /** The same, with no request of another thread's in between. */
  void inOneRun(String step, Asking asking) throws RemoteFailure {
    orLost(step, () -> channel.inOneRun(asking));
  }

  private static void orLost(String step, SftpChannel.Asking<IOException> sending)
      throws RemoteFailure {
    try {
      sending.run();
    } catch (RemoteFailure e) {
      throw e;
    } catch (IOException | RuntimeException e) {
      throw lost(step, null, e);
    }
  }

  /** For a request whose answer changes nothing any more. */
  void forget(Sent sent) {
    channel.forget(sent.id);
  }

  /** Waits for an answer that carries nothing but success. */
  void expectOk(Sent sent) throws RemoteFailure {
    await(sent, STATUS, body -> true);
  }

  byte[] expectHandle(Sent sent) throws RemoteFailure {
    return await(sent, HANDLE, Buffer::getBytes);
  }

  RemoteAttributes expectAttributes(Sent sent) throws RemoteFailure {
    return await(sent, ATTRS, SftpWire::attributes);
  }

  /** The one name of an answer to REALPATH or READLINK. */
  String expectName(Sent sent) throws RemoteFailure {
    return await(
        sent,
        NAME,
        body -> {
          if (body.getInt() != 1) {
            throw new IllegalStateException("expected one name");
          }
          byte[] name = body.getBytes();
          if (name.length > AnswerBounds.PATH) {
            throw new IllegalStateException("a path of " + name.length + " bytes");
          }
          return WireName.fromBytes(name);
        });
  }

  /** Part of an answer, where it lies: content is not copied more often than it must be. */
  record Data(byte[] bytes, int offset, int length) {
    private static Data of(Buffer body) {
      int length = body.getInt();
      if (length < 0 || length > body.available()) {
        throw new IllegalStateException("content of " + length + " bytes in a shorter answer");
      }
      return new Data(body.array(), body.rpos(), length);
    }
  }

  /** What was read, or {@code null} at the end of the file. */
  Data expectData(Sent sent) throws RemoteFailure {
    return await(sent, DATA, Data::of);
  }

  /** Takes the memory of what was read back; it must not be looked at any more. */
  void recycle(Data data) {
    channel.recycle(data.bytes);
  }

  /** Hands over the answer to READDIR; {@code null} at the end of the folder. */
  <T> T expectNames(Sent sent, Function<Buffer, T> reader) throws RemoteFailure {
    return await(sent, NAME, reader);
  }

  <T> T expectExtended(Sent sent, Function<Buffer, T> reader) throws RemoteFailure {
    return await(sent, EXTENDED_REPLY, reader);
  }

  private <T> T await(Sent sent, int expected, Function<Buffer, T> reader) throws RemoteFailure {
    if (sent.refused != null) {
      throw sent.refused;
    }
    Buffer answer;
    try {
      answer = channel.receive(sent.id, PATIENCE);
    } catch (IOException | RuntimeException e) {
      throw lost(sent.step, sent.path, e);
    }
    if (answer == null) {
      throw lost(sent.step, sent.path, new IOException("no answer within five minutes"));
    }
    try {
      int type = answer.getUByte();
      answer.getInt();
      if (type == STATUS) {
        int code = answer.getInt();
        if (code == STATUS_EOF && (expected == DATA || expected == NAME)) {
          return null;
        }
        if (code != STATUS_OK) {
          String said = answer.available() > 0 ? answer.getString() : "";
          said = said.substring(0, Math.min(AnswerBounds.SAID, said.length()));
          throw refused(sent, code, WireName.toText(WireName.fromText(said)));
        }
      }
      if (type != expected) {
        throw new IllegalStateException("answer of type " + type + ", expected " + expected);
      }
      return reader.apply(answer);
    } catch (RuntimeException e) {
      throw new RemoteFailure(
          Reason.BAD_ANSWER, sent.step, sent.path, String.valueOf(e.getMessage()), e);
    }
  }

  private static RemoteFailure refused(Sent sent, int code, String said) {
    Reason reason =
        switch (code) {
          case 2 -> Reason.NO_SUCH_FILE;
          case 3 -> Reason.PERMISSION_DENIED;
          case 6, 7 -> Reason.LINE_LOST;
          case 8 -> Reason.NOT_SUPPORTED;
          default -> Reason.FAILED;
        };
    return new RemoteFailure(
        reason, sent.step, sent.path, said.isBlank() ? "status " + code : said, null);
  }

  static RemoteAttributes attributes(Buffer body) {
    int flags = body.getInt();
    long size = (flags & HAS_SIZE) != 0 ? body.getLong() : 0;
    int uid = (flags & HAS_OWNER) != 0 ? body.getInt() : -1;
    int gid = (flags & HAS_OWNER) != 0 ? body.getInt() : -1;
    int mode = (flags & HAS_MODE) != 0 ? body.getInt() : 0;
    long accessed = (flags & HAS_TIMES) != 0 ? body.getUInt() : 0;
    long modified = (flags & HAS_TIMES) != 0 ? body.getUInt() : 0;
    if ((flags & HAS_EXTENDED) != 0) {
      for (int left = body.getInt(); left > 0; left--) {
        body.getBytes();
        body.getBytes();
      }
    }
    return new RemoteAttributes(
        FileKind.ofMode(mode), Math.max(0, size), uid, gid, Mode.ofStat(mode), modified, accessed);
  }

  static void putNoAttributes(Buffer body) {
    body.putInt(0);
  }

  static void putSize(Buffer body, long size) {
    body.putInt(HAS_SIZE);
    body.putLong(size);
  }

  static void putMode(Buffer body, Mode mode) {
    body.putInt(HAS_MODE);
    body.putInt(mode.bits());
  }

  static void putOwner(Buffer body, int uid, int gid) {
    body.putInt(HAS_OWNER);
    body.putInt(uid);
    body.putInt(gid);
  }

  /**
   * @param mode {@code null} to leave it
   * @param modified -1 to leave both times
   */
  static void putModeAndTime(Buffer body, Mode mode, long modified) {
    body.putInt((mode == null ? 0 : HAS_MODE) | (modified < 0 ? 0 : HAS_TIMES));
    if (mode != null) {
      body.putInt(mode.bits());
    }
    if (modified >= 0) {
      body.putUInt(modified);
      body.putUInt(modified);
    }
  }

  static void putTimes(Buffer body, long accessed, long modified) {
    body.putInt(HAS_TIMES);
    body.putUInt(accessed);
    body.putUInt(modified);
  }
}
