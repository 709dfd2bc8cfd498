package zander.core.reading;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.lang.reflect.Proxy;
import java.util.Arrays;
import java.util.HashMap;
import java.util.Map;
import zander.core.files.FileKind;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.files.RemoteReader;
import zander.core.phrase.FileStep;
import zander.core.rights.Mode;

/** Files in memory, which grow and are moved while they are open, as on a POSIX system. */
final class GrowingFiles {
  static final RemotePath LOG = RemotePath.of("/var/log/levels/levels.log");

  /** What an open file leads to whatever becomes of its name. */
  static final class Content {
    byte[] bytes = new byte[0];
    long modified;
    int reads;

    /** What the server tells of it beyond what it has. */
    long madeUp;
  }

  private final Map<RemotePath, Content> names = new HashMap<>();
  private long clock = 1_790_000_000L;

  /** Run before each request, so that what is in between two can be tried. */
  Runnable before = () -> {};

  Content at(RemotePath path) {
    return names.get(path);
  }

  void put(RemotePath path, byte[] bytes) {
    Content content = new Content();
    content.bytes = bytes;
    content.modified = clock++;
    names.put(path, content);
  }

  void append(Content to, byte[] more) {
    ByteArrayOutputStream all = new ByteArrayOutputStream();
    all.writeBytes(to.bytes);
    all.writeBytes(more);
    to.bytes = all.toByteArray();
    to.modified = clock++;
  }

  void move(RemotePath from, RemotePath to) {
    names.put(to, names.remove(from));
  }

  RemoteFiles files() {
    return (RemoteFiles)
        Proxy.newProxyInstance(
            GrowingFiles.class.getClassLoader(),
            new Class<?>[] {RemoteFiles.class},
            (proxy, method, arguments) -> {
              if (method.getName().equals("openToRead")) {
                return open((RemotePath) arguments[0]);
              }
              if (method.getName().equals("lookThrough")) {
                return attributes(existing((RemotePath) arguments[0]));
              }
              if (method.getName().equals("othersMayTurn")) {
                return false;
              }
              throw new UnsupportedOperationException(method.getName());
            });
  }

  private RemoteReader open(RemotePath path) throws IOException {
    before.run();
    Content content = existing(path);
    return new RemoteReader() {
      @Override
      public RemotePath path() {
        return path;
      }

      @Override
      public byte[] read(long from, int length) {
        before.run();
        content.reads++;
        int start = (int) Math.min(from, content.bytes.length);
        return Arrays.copyOfRange(
            content.bytes, start, (int) Math.min(start + (long) length, content.bytes.length));
      }

      @Override
      public Seen look() {
        before.run();
        RemoteAttributes first = attributes(content);
        before.run();
        Content there = names.get(path);
        RemoteAttributes atPath = there == null ? null : attributes(there);
        before.run();
        return new Seen(first, atPath, attributes(content));
      }

      @Override
      public void close() {}
    };
  }

  private Content existing(RemotePath path) throws IOException {
    Content content = names.get(path);
    if (content == null) {
      throw new RemoteFailure(RemoteFailure.Reason.NO_SUCH_FILE, FileStep.OPEN, path, "", null);
    }
    return content;
  }

  private static RemoteAttributes attributes(Content of) {
    return new RemoteAttributes(
        FileKind.FILE,
        of.bytes.length + of.madeUp,
        0,
        0,
        Mode.ofOctal("644"),
        of.modified,
        of.modified);
  }
}
