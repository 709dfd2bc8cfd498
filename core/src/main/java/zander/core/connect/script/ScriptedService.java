package zander.core.connect.script;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Base64;
import java.util.Deque;
import java.util.List;
import java.util.Objects;
import java.util.concurrent.ThreadLocalRandom;
import org.apache.sshd.common.util.buffer.Buffer;
import org.apache.sshd.common.util.buffer.ByteArrayBuffer;
import org.jspecify.annotations.Nullable;
import zander.core.files.WireName;
import zander.core.files.sftp.channel.ServiceTranslator;
import zander.core.files.sftp.wire.SftpWire;

/**
 * Speaks SFTP for a server's {@code sh}, which is written a line for each request and answers them
 * in their order. Safe for several threads.
 */
public final class ScriptedService implements ServiceTranslator {
  private static final int INIT = 1;
  private static final String RENAME_OVER = "posix-rename@openssh.com";
  private static final String HARD_LINK = "hardlink@openssh.com";
  private static final String SYNC = "fsync@openssh.com";

  /** Content of an answer is bounded by what was asked for, with a third for its letters. */
  private static final int LONGEST_LINE = 1 << 20;

  private static final int ENTRIES_AT_ONCE = 100;

  /** Before the name of an entry. */
  private static final int FIELDS = 6;

  private final Answers answers;
  private final String mark =
      "zander-" + Long.toHexString(ThreadLocalRandom.current().nextLong()) + "-serves";
  private final OpenFiles open = new OpenFiles();
  private final Deque<Awaited> awaited = new ArrayDeque<>();
  private final ByteArrayOutputStream line = new ByteArrayOutputStream();
  private boolean begun;

  public ScriptedService(Answers answers) {
    this.answers = answers;
  }

  /** What the value of an answer is made to. */
  private interface Value {
    byte[] message(int id, String value);
  }

  /**
   * A request that was written.
   *
   * @param value of an answer with one; {@code null} where success says it all
   * @param handle of what it opens; {@code null} for none
   */
  private record Awaited(int id, @Nullable Value value, byte @Nullable [] handle) {}

  @Override
  public synchronized byte[] ask(byte[] message, int length) throws IOException {
    Buffer body = new ByteArrayBuffer(message, 0, length);
    try {
      int type = body.getUByte();
      if (type == INIT) {
        return written(new Awaited(0, null, null), FileScripts.begin(mark));
      }
      return ask(type, body.getInt(), body);
    } catch (RuntimeException e) {
      throw new IOException("a request that cannot be written as a script", e);
    }
  }

  private byte[] written(Awaited request, String script) {
    awaited.add(request);
    return WireName.bytes(script + "\n");
  }

  private byte[] plain(int id, String script) {
    return written(new Awaited(id, null, null), script);
  }

  private byte[] valued(int id, Value value, String script) {
    return written(new Awaited(id, value, null), script);
  }

  private byte[] answered(byte[] message) {
    answers.message(message);
    return new byte[0];
  }

  private static String path(Buffer body) {
    String path = WireName.fromBytes(body.getBytes());
    if (path.indexOf('\0') >= 0) {
      throw new IllegalArgumentException("no path has a zero in it");
    }
    return path;
  }

  private byte[] ask(int type, int id, Buffer body) {
    return switch (type) {
      case SftpWire.STAT, SftpWire.LSTAT ->
          valued(id, Messages::attributes, FileScripts.look(path(body), type == SftpWire.STAT));
      case SftpWire.REALPATH -> valued(id, this::name, FileScripts.realPath(path(body)));
      case SftpWire.READLINK -> valued(id, this::name, FileScripts.readLink(path(body)));
      case SftpWire.OPENDIR -> {
        byte[] handle = open.openFolder();
        yield written(new Awaited(id, null, handle), FileScripts.list(path(body)));
      }
      case SftpWire.READDIR -> answered(nextEntries(id, body.getBytes()));
      case SftpWire.OPEN -> openFile(id, path(body), body);
      case SftpWire.MKDIR -> {
        String folder = path(body);
        Integer mode = WantedAttributes.read(body).mode();
        yield plain(id, FileScripts.makeFolder(folder, mode == null ? 0777 : mode));
      }
      case SftpWire.RMDIR -> plain(id, FileScripts.removeFolder(path(body)));
      case SftpWire.REMOVE -> plain(id, FileScripts.removeFile(path(body)));
      case SftpWire.RENAME -> plain(id, FileScripts.rename(path(body), path(body), false));
      // OpenSSH has them the other way round than the draft; all follow it.
      case SftpWire.SYMLINK -> plain(id, FileScripts.link(path(body), path(body)));
      case SftpWire.SETSTAT ->
          plain(id, FileScripts.setByPath(path(body), WantedAttributes.read(body)));
      case SftpWire.EXTENDED -> extended(id, body.getString(), body);
      case SftpWire.CLOSE, SftpWire.READ, SftpWire.WRITE, SftpWire.FSTAT, SftpWire.FSETSTAT ->
          byHandle(type, id, body.getBytes(), body);
      default -> answered(Messages.status(id, Messages.NOT_SUPPORTED, "not by a script"));
    };
  }

  private byte[] name(int id, String value) {
    return Messages.name(id, decoded(value));
  }

  private static byte[] decoded(String value) {
    return Base64.getDecoder().decode(value);
  }

  private byte[] openFile(int id, String path, Buffer body) {
    int how = body.getInt();
    Integer mode = WantedAttributes.read(body).mode();
    byte[] handle = open.openFile();
    if (handle == null) {
      return answered(
          Messages.status(id, Messages.FAILURE, "too many files are open without a file service"));
    }
    int number = Objects.requireNonNull(open.file(handle)).number;
    String script =
        (how & SftpWire.OPEN_CREATE) != 0
            ? FileScripts.create(number, path, mode == null ? 0666 : mode)
            : FileScripts.openFile(number, path, (how & SftpWire.OPEN_WRITE) != 0);
    return written(new Awaited(id, null, handle), script);
  }

  private byte[] byHandle(int type, int id, byte[] handle, Buffer body) {
    OpenFiles.Open file = open.file(handle);
    if (file == null) {
      boolean folder = open.folder(handle) != null && type == SftpWire.CLOSE;
      open.close(handle);
      return answered(
          Messages.status(id, folder ? Messages.OK : Messages.FAILURE, "no such handle"));
    }
    return switch (type) {
      case SftpWire.CLOSE -> {
        open.close(handle);
        yield plain(id, FileScripts.close(file.number));
      }
      case SftpWire.FSTAT -> valued(id, Messages::attributes, FileScripts.lookAtOpen(file.number));
      case SftpWire.FSETSTAT ->
          plain(id, FileScripts.set(FileScripts.open(file.number), WantedAttributes.read(body)));
      case SftpWire.READ ->
          valued(
              id,
              (answer, value) ->
                  value.isEmpty()
                      ? Messages.status(answer, Messages.END, "")
                      : Messages.data(answer, decoded(value)),
              FileScripts.read(file.number, body.getLong(), body.getInt()));
      default -> write(id, file, body.getLong(), body.getBytes());
    };
  }

  private byte[] write(int id, OpenFiles.Open file, long at, byte[] content) {
    String script = "";
    if (at < file.position) {
      script = FileScripts.rewind(file.number);
      file.position = 0;
    }
    long skip = at - file.position;
    file.position = at + content.length;
    String letters = Base64.getEncoder().encodeToString(content);
    return plain(id, script + FileScripts.write(file.number, skip, letters));
  }

  private byte[] extended(int id, String name, Buffer body) {
    return switch (name) {
      case RENAME_OVER -> plain(id, FileScripts.rename(path(body), path(body), true));
      case HARD_LINK -> plain(id, FileScripts.hardLink(path(body), path(body)));
      case SYNC -> {
        OpenFiles.Open file = open.file(body.getBytes());
        yield file == null
            ? answered(Messages.status(id, Messages.FAILURE, "no such handle"))
            : plain(id, FileScripts.sync(file.number));
      }
      default -> answered(Messages.status(id, Messages.NOT_SUPPORTED, "not by a script"));
    };
  }

  private byte[] nextEntries(int id, byte[] handle) {
    OpenFiles.Listed listed = open.folder(handle);
    if (listed == null) {
      return Messages.status(id, Messages.FAILURE, "no such handle");
    }
    List<byte[]> some = new ArrayList<>();
    while (some.size() < ENTRIES_AT_ONCE && !listed.entries.isEmpty()) {
      some.add(listed.entries.poll());
    }
    return some.isEmpty() ? Messages.status(id, Messages.END, "") : Messages.names(id, some);
  }

  @Override
  public void heard(byte[] data, int offset, int length) throws IOException {
    int from = offset;
    for (int at = offset; at < offset + length; at++) {
      if (data[at] == '\n') {
        line.write(data, from, at - from);
        from = at + 1;
        take(line.toByteArray());
        line.reset();
      }
    }
    line.write(data, from, offset + length - from);
    if (line.size() > LONGEST_LINE) {
      throw new IOException("an answer without an end");
    }
  }

  private void take(byte[] answer) throws IOException {
    byte[] message;
    synchronized (this) {
      if (!begun) {
        // What start files print comes before.
        begun = mark.equals(Messages.text(answer));
        return;
      }
      Awaited first = awaited.peek();
      if (first == null || answer.length == 0) {
        throw new IOException("an answer that nobody asked for");
      }
      try {
        message = message(first, answer);
      } catch (RuntimeException e) {
        throw new IOException("an answer against the script", e);
      }
    }
    if (message != null) {
      answers.message(message);
    }
  }

  /** {@code null} where the answer goes on. */
  private byte @Nullable [] message(Awaited request, byte[] answer) {
    String text = Messages.text(answer);
    String rest = text.length() > 2 ? text.substring(2) : "";
    switch (text.charAt(0)) {
      case 'L', 'N' -> {
        addEntry(request, answer, text);
        return null;
      }
      case '0' -> {
        awaited.remove();
        if (request.id == 0) {
          return Messages.version(List.of(RENAME_OVER, HARD_LINK, SYNC));
        }
        return request.handle == null
            ? Messages.status(request.id, Messages.OK, "")
            : Messages.handle(request.id, request.handle);
      }
      case '2' -> {
        awaited.remove();
        return Objects.requireNonNull(request.value).message(request.id, rest);
      }
      default -> {
        awaited.remove();
        if (request.id == 0) {
          answers.refused(WireName.toText(rest.strip()));
          return null;
        }
        if (request.handle != null) {
          open.close(request.handle);
        }
        return Messages.failure(request.id, rest);
      }
    }
  }

  private void addEntry(Awaited request, byte[] answer, String text) {
    OpenFiles.Listed listed =
        Objects.requireNonNull(open.folder(Objects.requireNonNull(request.handle)));
    int fields = 1;
    for (int count = 0; count < FIELDS; count++) {
      fields = text.indexOf(' ', fields) + 1;
    }
    boolean plain = text.charAt(0) == 'L';
    // Plain names have ./ before them.
    byte[] name =
        plain
            ? Arrays.copyOfRange(answer, fields + 2, answer.length)
            : decoded(text.substring(fields));
    listed.add(Messages.entry(name, text.substring(1, fields)));
  }
}
