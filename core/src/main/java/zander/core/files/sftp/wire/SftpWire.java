package zander.core.files.sftp.wire;

import java.io.IOException;
import java.time.Duration;
import java.util.function.Function;
import org.apache.sshd.common.util.buffer.Buffer;
import org.jspecify.annotations.Nullable;
import zander.core.files.AnswerBounds;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.files.RemotePath;
import zander.core.files.WireName;
import zander.core.files.sftp.channel.ServiceTranslator;
import zander.core.files.sftp.channel.SftpChannel;
import zander.core.phrase.FilePhrase;
import zander.core.phrase.FileStep;
import zander.core.phrase.Phrase;
import zander.core.work.BlockingCalls;

/**
 * The requests and answers of SFTP version 3 (draft-ietf-secsh-filexfer-02) over a {@link
 * SftpChannel}.
 *
 * <p>Sending and waiting are apart, so that many requests can be under way. Names go as their own
 * bytes. Safe for several threads.
 */
public final class SftpWire {
  public static final int OPEN = 3;
  public static final int CLOSE = 4;
  public static final int READ = 5;
  public static final int WRITE = 6;
  public static final int LSTAT = 7;
  public static final int FSTAT = 8;
  public static final int SETSTAT = 9;
  public static final int FSETSTAT = 10;
  public static final int OPENDIR = 11;
  public static final int READDIR = 12;
  public static final int REMOVE = 13;
  public static final int MKDIR = 14;
  public static final int RMDIR = 15;
  public static final int REALPATH = 16;
  public static final int STAT = 17;
  public static final int RENAME = 18;
  public static final int READLINK = 19;
  public static final int SYMLINK = 20;
  public static final int EXTENDED = 200;

  public static final int OPEN_READ = 0x1;
  public static final int OPEN_WRITE = 0x2;
  public static final int OPEN_CREATE = 0x8;
  public static final int OPEN_EXCLUSIVE = 0x20;

  private static final int STATUS = 101;
  private static final int HANDLE = 102;
  private static final int DATA = 103;
  private static final int NAME = 104;
  private static final int ATTRS = 105;
  private static final int EXTENDED_REPLY = 201;

  private static final int STATUS_OK = 0;
  private static final int STATUS_EOF = 1;

  /** A dead line is found by the keep-alive of the connection; this only bounds a mute server. */
  private static final Duration PATIENCE = Duration.ofMinutes(5);

  private final SftpChannel channel;
  private final FolderHandles handles;

  public SftpWire(SftpChannel channel, FolderGuard guard) {
    this.channel = channel;
    this.handles = new FolderHandles(this, channel, guard);
  }

  /** How entries are named in folders where another account can turn a path. */
  public FolderHandles handles() {
    return handles;
  }

  public long window() {
    return channel.window();
  }

  public boolean offers(String extension) {
    return channel.offers(extension);
  }

  /** Whether scripts stand for a file service: few files are open at once, and none by a name. */
  public boolean isByScripts() {
    return channel.offers(ServiceTranslator.BY_SCRIPTS);
  }

  public void close() {
    channel.close(false);
  }

  /**
   * A request that was sent: what it was for, and the number its answer will carry.
   *
   * @param refused why it was not sent, which is as good as an answer; {@code null} when it was
   */
  public record Sent(
      int id, FileStep step, @Nullable RemotePath path, @Nullable RemoteFailure refused) {
    Sent(int id, FileStep step, @Nullable RemotePath path) {
      this(id, step, path, null);
    }
  }

  public static RequestBody body() {
    return new RequestBody();
  }

  public static RequestBody body(RemotePath path) {
    RequestBody body = body();
    body.putPath(path);
    return body;
  }

  public static void putName(Buffer body, String wire) {
    body.putBytes(WireName.bytes(wire));
  }

  /** Sends a request, with names that nobody can turn where that is needed. */
  public Sent send(int type, RequestBody body, FileStep step, @Nullable RemotePath path)
      throws RemoteFailure {
    BlockingCalls.check(step.written());
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
  public Sent sendAsIs(int type, RequestBody body, FileStep step, @Nullable RemotePath path)
      throws RemoteFailure {
    BlockingCalls.check(step.written());
    try {
      return new Sent(channel.send(type, body), step, path);
    } catch (IOException | RuntimeException e) {
      throw lost(step, path, e);
    }
  }

  public Sent sendAsIs(int type, RemotePath path, FileStep step) throws RemoteFailure {
    return sendAsIs(type, body(path), step, path);
  }

  /**
   * Opens a file that is there.
   *
   * @param how flags and attributes of the request
   * @throws RemoteFailure with {@code LEADS_ELSEWHERE} when a link was put in its place
   */
  public byte[] open(RemotePath file, RequestBody how) throws RemoteFailure {
    try {
      if (handles.isOpen(file)) {
        return handles.openFile(how, file);
      }
    } catch (RemoteFailure e) {
      throw e;
    } catch (IOException e) {
      throw lost(FileStep.OPEN, file, e);
    }
    RequestBody body = body(file);
    body.append(how);
    return expectHandle(send(OPEN, body, FileStep.OPEN, file));
  }

  /** The same for one that ends with content, whose length is before it. */
  public Sent sendData(
      int type, Buffer body, byte[] data, int offset, int count, FileStep step, RemotePath path)
      throws RemoteFailure {
    BlockingCalls.check(step.written());
    body.putInt(count);
    try {
      return new Sent(channel.send(type, body, data, offset, count), step, path);
    } catch (IOException | RuntimeException e) {
      throw lost(step, path, e);
    }
  }

  public Sent sendExtended(String name, RequestBody rest, FileStep step, @Nullable RemotePath path)
      throws RemoteFailure {
    RequestBody body = body();
    body.putString(name);
    body.append(rest);
    return send(EXTENDED, body, step, path);
  }

  private static RemoteFailure lost(FileStep step, @Nullable RemotePath path, Exception cause) {
    return new RemoteFailure(Reason.LINE_LOST, step, path, Phrase.of(cause), cause);
  }

  public interface Asking extends SftpChannel.Asking<RemoteFailure> {}

  /** Sends what this thread asks within as few packets. */
  public void together(FileStep step, Asking asking) throws RemoteFailure {
    orLost(step, () -> channel.together(asking));
  }

  /** The same, with no request of another thread's in between. */
  public void inOneRun(FileStep step, Asking asking) throws RemoteFailure {
    orLost(step, () -> channel.inOneRun(asking));
  }

  private static void orLost(FileStep step, SftpChannel.Asking<IOException> sending)
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
  public void forget(Sent sent) {
    channel.forget(sent.id);
  }

  /** Waits for an answer that carries nothing but success. */
  public void expectOk(Sent sent) throws RemoteFailure {
    await(sent, STATUS, body -> true);
  }

  public byte[] expectHandle(Sent sent) throws RemoteFailure {
    return await(sent, HANDLE, Buffer::getBytes);
  }

  public RemoteAttributes expectAttributes(Sent sent) throws RemoteFailure {
    return await(sent, ATTRS, WireAttributes::read);
  }

  /** The one name of an answer to REALPATH or READLINK. */
  public String expectName(Sent sent) throws RemoteFailure {
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
  public record Data(byte[] bytes, int offset, int length) {
    private static Data of(Buffer body) {
      int length = body.getInt();
      if (length < 0 || length > body.available()) {
        throw new IllegalStateException("content of " + length + " bytes in a shorter answer");
      }
      return new Data(body.array(), body.rpos(), length);
    }
  }

  /** What was read, or {@code null} at the end of the file. */
  public @Nullable Data expectData(Sent sent) throws RemoteFailure {
    return awaitOrEnd(sent, DATA, Data::of);
  }

  /** Takes the memory of what was read back; it must not be looked at any more. */
  public void recycle(Data data) {
    channel.recycle(data.bytes);
  }

  /** Hands over the answer to READDIR; {@code null} at the end of the folder. */
  public <T> @Nullable T expectNames(Sent sent, Function<Buffer, T> reader) throws RemoteFailure {
    return awaitOrEnd(sent, NAME, reader);
  }

  public <T> T expectExtended(Sent sent, Function<Buffer, T> reader) throws RemoteFailure {
    return await(sent, EXTENDED_REPLY, reader);
  }

  private <T> T await(Sent sent, int expected, Function<Buffer, T> reader) throws RemoteFailure {
    T answer = awaitOrEnd(sent, expected, reader);
    if (answer == null) {
      throw new RemoteFailure(
          Reason.BAD_ANSWER, sent.step, sent.path, FilePhrase.ANSWERED_SO.of("EOF"), null);
    }
    return answer;
  }

  /** What content and the names of a folder are followed by; {@code null} at their end. */
  private <T> @Nullable T awaitOrEnd(Sent sent, int expected, Function<Buffer, T> reader)
      throws RemoteFailure {
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
          Reason.BAD_ANSWER, sent.step, sent.path, FilePhrase.ANSWERED_SO.of(Phrase.of(e)), e);
    }
  }

  /**
   * A path that the server told.
   *
   * @param asked what it was asked about; may be {@code null}
   * @throws RemoteFailure {@code BAD_ANSWER} when it is none
   */
  public static RemotePath pathOf(String wireName, @Nullable RemotePath asked)
      throws RemoteFailure {
    try {
      return RemotePath.ofWire(wireName);
    } catch (IllegalArgumentException e) {
      Phrase told = FilePhrase.ANSWERED_SO.of(Phrase.of(e));
      throw new RemoteFailure(Reason.BAD_ANSWER, FileStep.RESOLVE, asked, told, e);
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
    Phrase detail = said.isBlank() ? FilePhrase.STATUS.of(code) : Phrase.quoted(said);
    return new RemoteFailure(reason, sent.step, sent.path, detail, null);
  }
}
