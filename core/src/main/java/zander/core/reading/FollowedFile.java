package zander.core.reading;

import java.io.Closeable;
import java.io.IOException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.jspecify.annotations.Nullable;
import zander.core.files.FileKind;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.files.RemoteReader;

/**
 * What comes to the end of a file, each line once and in its order, also when the file is moved
 * away and a new one comes in its place: the one before stays open, is read to its end, and is
 * looked at for what its writer still puts there; what came and went between two looks nobody knows
 * of. Each look costs one round trip, and those for what has come. Looking waits for the server,
 * one thread at a time; what is known by then is given to any thread without waiting.
 */
public final class FollowedFile implements Closeable {
  /** What happened to the file. */
  public enum Turn {
    /** More came to its end. */
    GREW,
    /** Another file is at its path. */
    REPLACED,
    /** Another is, and what happened before was not seen: lines may be missing. */
    REPLACED_UNSEEN,
    /** It was made shorter, or written over: it is read from its front. */
    EMPTIED,
    /** Nothing is at its path; what still comes is read. */
    GONE
  }

  /**
   * @param file which the lines are of
   * @param late whether another file is at the path by now
   */
  public record Growth(Turn turn, PagedFile file, List<FileLine> lines, boolean late) {}

  /**
   * @param file at the path, as far as is known
   * @param offset where its first line begins that was not told yet, in bytes
   */
  public record Told(PagedFile file, long offset) {}

  /** So many files that were replaced are kept open, to be read back into. */
  private static final int KEPT_OPEN = 6;

  /** Looks at a replaced file without more in it, after which its writer is taken to be done. */
  private static final int IDLE_LOOKS = 30;

  /** Enough for the head of a log to show by its time that it is another. */
  private static final int HEAD = 512;

  private RemoteFiles files;
  private final RemotePath path;
  private FileTail current;

  /** Replaced files that may still be written to, oldest first. */
  private final List<FileTail> late = new ArrayList<>();

  /** The files that lines may be read back from, oldest first; the last is the current one. */
  private final List<PagedFile> open = new ArrayList<>();

  private boolean isGone;
  private boolean hasMore;
  private boolean closed;

  private record Known(List<PagedFile> open, Told told, boolean hasMore) {}

  /** As of the last look, to be read while the next one waits for the server. */
  private volatile Known known;

  private FollowedFile(RemoteFiles files, PagedFile file, long from) {
    this.files = files;
    this.path = file.path();
    this.current = new FileTail(file, from);
    open.add(file);
    publish();
  }

  /**
   * @param from where the first line begins that is to be told
   */
  public static FollowedFile from(RemoteFiles files, PagedFile file, long from) {
    return new FollowedFile(files, file, from);
  }

  /** Whether more had come than one look takes: the next should not wait. */
  public boolean hasMore() {
    return known.hasMore;
  }

  /** The file that was at the path before this one; {@code null} when it is not open any more. */
  public @Nullable PagedFile fileBefore(PagedFile file) {
    int index = known.open.indexOf(file);
    return index < 1 ? null : known.open.get(index - 1);
  }

  /** The one that came in its place; {@code null} for the last, and one that is not open. */
  public @Nullable PagedFile fileAfter(PagedFile file) {
    List<PagedFile> now = known.open;
    int index = now.indexOf(file);
    return index < 0 || index == now.size() - 1 ? null : now.get(index + 1);
  }

  /** The file at the path, as far as is known. */
  public PagedFile file() {
    return known.told.file;
  }

  /** Up to where lines were told. */
  public Told told() {
    return known.told;
  }

  private void publish() {
    known = new Known(List.copyOf(open), new Told(current.file(), current.lineStart()), hasMore);
  }

  /** Tells nothing of what has come up to now but is not told yet. */
  public synchronized void skipToEnd() throws IOException {
    PagedFile file = current.file();
    current = new FileTail(file, file.lineAt(file.look().after().size()));
    publish();
  }

  /** What has come since the last look. */
  public synchronized List<Growth> look() throws IOException {
    List<Growth> grown = new ArrayList<>();
    if (!closed) {
      try {
        look(grown);
      } finally {
        publish();
      }
    }
    return grown;
  }

  private void look(List<Growth> grown) throws IOException {
    hasMore = false;
    lookAtLate(grown);
    RemoteReader.Seen seen = current.file().look();
    grow(current, seen.after().size(), grown);
    if (seen.atPath() == null || seen.atPath().kind() != FileKind.FILE) {
      if (!isGone) {
        grown.add(new Growth(Turn.GONE, current.file(), List.of(), false));
      }
      isGone = true;
    } else if (isGone || !seen.isAtPath()) {
      lookForAnother(grown);
    }
  }

  private void lookAtLate(List<Growth> grown) throws IOException {
    for (FileTail tail : List.copyOf(late)) {
      grow(tail, tail.file().look().after().size(), grown);
      if (tail.idleLooks() > IDLE_LOOKS) {
        late.remove(tail);
      }
    }
  }

  private void grow(FileTail tail, long size, List<Growth> grown) throws IOException {
    long before = tail.position();
    boolean late = tail != current;
    List<FileLine> lines = tail.grow(size);
    if (lines == null) {
      PagedFile was = tail.file();
      tail.startAnew();
      open.replaceAll(file -> file == was ? tail.file() : file);
      grown.add(new Growth(Turn.EMPTIED, tail.file(), orNone(tail.grow(size)), late));
    } else if (!lines.isEmpty()) {
      grown.add(new Growth(Turn.GREW, tail.file(), lines, late));
    }
    // Not where a server tells a length that it then gives nothing of.
    hasMore |= tail.position() < size && tail.position() != before;
  }

  /** None where it was written over once more within this look: the next one tells of it. */
  private static List<FileLine> orNone(@Nullable List<FileLine> lines) {
    return lines == null ? List.of() : lines;
  }

  /** Opens what is at the path now, and goes on with it when it is another file. */
  private void lookForAnother(List<Growth> grown) throws IOException {
    PagedFile found;
    try {
      found = PagedFile.open(files, path);
    } catch (RemoteFailure e) {
      if (e.reason() == RemoteFailure.Reason.NO_SUCH_FILE) {
        return;
      }
      throw e;
    }
    boolean isSame;
    try {
      isSame = isSame(found);
    } catch (IOException | RuntimeException e) {
      found.close();
      throw e;
    }
    isGone = false;
    if (isSame) {
      found.close();
      return;
    }
    drain(current, grown);
    late.add(current);
    goOnWith(found, Turn.REPLACED, grown);
  }

  private boolean isSame(PagedFile found) throws IOException {
    RemoteReader.Seen first = current.file().look();
    RemoteReader.Seen other = found.look();
    RemoteReader.Seen last = current.file().look();
    return new RemoteReader.Seen(first.before(), other.after(), last.after()).isAtPath()
        && Arrays.equals(found.read(0, HEAD), current.file().read(0, HEAD));
  }

  /** All that the file has by now, before those of the next one are told. */
  private void drain(FileTail tail, List<Growth> grown) throws IOException {
    long size = tail.file().look().after().size();
    while (tail.position() < size) {
      long before = tail.position();
      grow(tail, size, grown);
      if (tail.position() <= before) {
        return;
      }
    }
  }

  private void goOnWith(PagedFile next, Turn turn, List<Growth> grown) throws IOException {
    current = new FileTail(next, 0);
    open.add(next);
    while (open.size() > KEPT_OPEN) {
      PagedFile oldest = open.remove(0);
      late.removeIf(tail -> tail.file() == oldest);
      oldest.close();
    }
    grown.add(new Growth(turn, next, orNone(current.grow(next.size())), false));
    hasMore |= current.position() > 0 && current.position() < next.size();
  }

  /**
   * Goes on over another connection. What was open is gone with the one before: whether the file is
   * the same shows by what stands before the place that was read up to.
   */
  public synchronized List<Growth> goOn(RemoteFiles again) throws IOException {
    List<Growth> grown = new ArrayList<>();
    if (!closed) {
      try {
        goOn(again, grown);
      } finally {
        publish();
      }
    }
    return grown;
  }

  private void goOn(RemoteFiles again, List<Growth> grown) throws IOException {
    RemoteReader reader = PagedFile.openReader(again, path);
    files = again;
    late.clear();
    open.remove(current.file());
    open.forEach(PagedFile::end);
    open.clear();
    if (isCurrent(reader)) {
      current.file().goOn(reader);
      open.add(current.file());
      look(grown);
    } else {
      reader.close();
      current.file().end();
      goOnWith(PagedFile.open(again, path), Turn.REPLACED_UNSEEN, grown);
    }
  }

  private boolean isCurrent(RemoteReader reader) throws IOException {
    try {
      return current.isIn(reader);
    } catch (IOException | RuntimeException e) {
      reader.close();
      throw e;
    }
  }

  /** Lets go of all open files; those of a lost connection are gone already. */
  @Override
  public synchronized void close() throws IOException {
    closed = true;
    for (PagedFile file : open) {
      file.close();
    }
    open.clear();
  }
}
