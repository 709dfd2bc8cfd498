package zander.core.reading;

import java.io.Closeable;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import zander.core.files.FileKind;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.files.RemoteReader;
import zander.core.phrase.FilePhrase;
import zander.core.phrase.FileStep;

/**
 * An open file by lines around any of its bytes. Holds nothing of it. Its methods wait for the
 * server; one thread at a time is let in.
 */
public final class PagedFile implements Closeable {
  /** How much is fetched for lines around a place, in bytes. */
  public static final int PAGE = 128 * 1024;

  /** So much before a place shows every break at it and behind. */
  private static final int BEFORE = LineBreaks.LONGEST;

  private final RemotePath path;
  private RemoteReader reader;

  /** As far as is known. */
  private volatile long size;

  /** Whether what was in it is not in the file any more. */
  private boolean isOver;

  private PagedFile(RemoteReader reader) {
    this.path = reader.path();
    this.reader = reader;
  }

  /**
   * Opens it and finds how long it is, in three round trips.
   *
   * @throws RemoteFailure with {@code NOT_SUPPORTED} for what is no file: a server that opens a
   *     named pipe answers nothing any more until somebody writes into it
   */
  public static PagedFile open(RemoteFiles files, RemotePath path) throws IOException {
    return new PagedFile(openReader(files, path)).looked();
  }

  static RemoteReader openReader(RemoteFiles files, RemotePath path) throws IOException {
    if (files.lookThrough(path).kind() != FileKind.FILE) {
      throw new RemoteFailure(
          RemoteFailure.Reason.NOT_SUPPORTED,
          FileStep.OPEN,
          path,
          FilePhrase.NOT_A_FILE.of(),
          null);
    }
    return files.openToRead(path);
  }

  private PagedFile looked() throws IOException {
    try {
      look();
      return this;
    } catch (IOException | RuntimeException e) {
      reader.close();
      throw e;
    }
  }

  /** The same open file with other content: of this one, nothing can be read any more. */
  synchronized PagedFile emptied() {
    PagedFile anew = new PagedFile(reader);
    anew.size = size;
    end();
    return anew;
  }

  /** Nothing can be read of it any more. */
  synchronized void end() {
    size = 0;
    isOver = true;
  }

  /** Goes on with the same file over another connection. */
  synchronized void goOn(RemoteReader again) {
    reader = again;
  }

  public RemotePath path() {
    return path;
  }

  /** Its length when that was last heard of, in bytes; does not wait. */
  public long size() {
    return size;
  }

  synchronized RemoteReader.Seen look() throws IOException {
    RemoteReader.Seen seen = reader.look();
    size = isOver ? 0 : seen.after().size();
    return seen;
  }

  /** What the open file is now. */
  public RemoteAttributes attributes() throws IOException {
    return look().after();
  }

  /** How long it is now, in bytes; 0 where nothing can be read of it any more. */
  public synchronized long sizeNow() throws IOException {
    if (!isOver) {
      look();
    }
    return size;
  }

  /** As it lies in the file; fewer bytes only where it ends. */
  public synchronized byte[] read(long from, int length) throws IOException {
    if (isOver) {
      return new byte[0];
    }
    byte[] content = reader.read(from, length);
    size = Math.max(size, from + content.length);
    return content;
  }

  /**
   * The lines that begin at a place or behind it, of about {@link #PAGE} bytes; a last one without
   * a line end counts. Empty at the end of the file.
   *
   * @param from any byte, in the middle of a line too
   */
  public List<FileLine> after(long from) throws IOException {
    return after(from, PAGE);
  }

  /** The same of about so many bytes. */
  List<FileLine> after(long from, int page) throws IOException {
    long at = Math.max(0, from - BEFORE);
    int length = (int) (from - at) + page + BEFORE;
    byte[] bytes = read(at, length);
    boolean end = bytes.length < length;
    List<Integer> breaks = breaks(bytes, at, end);
    breaks.removeIf(index -> at + index < from);
    // The last line known may be cut: only the end of the file makes it whole.
    return LineBreaks.lines(bytes, at, breaks);
  }

  /**
   * The lines before a place, of about {@link #PAGE} bytes.
   *
   * @param end where a line begins, or the file ends
   */
  public List<FileLine> before(long end) throws IOException {
    return before(end, PAGE);
  }

  /** The same of about so many bytes. */
  List<FileLine> before(long end, int page) throws IOException {
    long at = Math.max(0, end - page - BEFORE);
    byte[] bytes = read(at, (int) (end - at));
    return LineBreaks.lines(bytes, at, breaks(bytes, at, true));
  }

  /** The last lines, in one round trip. */
  public List<FileLine> last() throws IOException {
    return before(size);
  }

  /** Where the line begins that a byte is in. */
  public long lineAt(long place) throws IOException {
    long at = Math.max(0, place - BEFORE);
    byte[] bytes = read(at, (int) (place - at));
    List<Integer> breaks = breaks(bytes, at, false);
    return breaks.isEmpty() ? at : at + breaks.get(breaks.size() - 1);
  }

  private static List<Integer> breaks(byte[] bytes, long at, boolean end) {
    List<Integer> breaks = new ArrayList<>();
    if (at == 0) {
      breaks.add(0);
    }
    breaks.addAll(LineBreaks.in(bytes, at));
    if (end && !breaks.isEmpty() && breaks.get(breaks.size() - 1) != bytes.length) {
      breaks.add(bytes.length);
    }
    return breaks;
  }

  @Override
  public synchronized void close() throws IOException {
    reader.close();
  }
}
