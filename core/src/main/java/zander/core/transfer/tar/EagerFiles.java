package zander.core.transfer.tar;

import java.io.IOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.BooleanSupplier;
import java.util.stream.Collectors;
import zander.core.connect.command.ShellWords;
import zander.core.files.FileKind;
import zander.core.transfer.endpoint.Endpoint;
import zander.core.transfer.endpoint.SmallFile;
import zander.core.transfer.endpoint.TreeEntry;
import zander.core.work.Cancellation;

/**
 * Small files that a server's program sends before anybody has asked for them: those at the top of
 * what is transferred, where nothing is in their place yet. The server names them to its program
 * itself, while their names are still on the way here, which saves a round trip. What comes and is
 * not wanted after all is dropped; what does not come is asked for by its name. For several
 * threads.
 */
final class EagerFiles {
  static final EagerFiles NONE = new EagerFiles(List.of(), () -> false);

  /**
   * So that what comes unasked has a bound: files, and blocks of 512 bytes of each (POSIX find).
   */
  private static final int MOST = 4096;

  private static final int BLOCKS = 16;
  private static final int MOST_BYTES = BLOCKS * 512;

  /** Files between two ends. */
  private static final int BATCH = 256;

  private final Set<String> roots;
  private final BooleanSupplier isSlow;
  private final Map<String, Early> come = new HashMap<>();
  private volatile boolean over;
  private volatile boolean givenUp;
  private boolean reading;

  /** For the thread that reads. */
  private int count;

  /**
   * @param sure whether the program had nothing to say about what came with it
   */
  private record Early(byte[] content, long modified, boolean sure) {}

  /**
   * @param roots files or folders at the top of what is transferred, relative to the source's
   *     folder
   * @param isSlow whether the line was found to be one on which loads should be compressed
   */
  EagerFiles(List<String> roots, BooleanSupplier isSlow) {
    this.roots = Set.copyOf(roots);
    this.isSlow = isSlow;
    this.over = roots.isEmpty();
  }

  /**
   * Writes the names, and an end after some of them each.
   *
   * @param end what is written after some; ended by NUL, without anything that a shell would read
   * @param last the same after all
   */
  String script(String end, String last) {
    String folders =
        roots.stream()
            .map(root -> ShellWords.quoteWire("./" + root))
            .collect(Collectors.joining(" "));
    return "find "
        + folders
        + " -maxdepth 1 -type f -size -"
        + (BLOCKS + 1)
        + " -print0 | head -zn "
        + MOST
        + " | xargs -0 -r -n "
        + BATCH
        + " sh -c 'printf \"%s\\0\" \"$@\"; printf \""
        + end.replace("\0", "\\0")
        + "\"' sh; printf '"
        + last.replace("\0", "\\0")
        + "'";
  }

  /** Whether no more comes. */
  boolean isOver() {
    return over;
  }

  /** Whether none was ever asked for. */
  boolean isEmpty() {
    return roots.isEmpty();
  }

  /** Whether the rest was given up, so that the program is of no use any more. */
  boolean isGivenUp() {
    return givenUp;
  }

  private boolean mayCome(SmallFile smallFile) {
    TreeEntry node = smallFile.item.node();
    return node.kind() == FileKind.FILE
        && !smallFile.item.followed()
        && node.size() <= MOST_BYTES
        && (roots.contains(smallFile.item.from())
            || roots.contains(Endpoint.folderOf(smallFile.item.from())));
  }

  /**
   * Gives those that come their content; waits for them.
   *
   * @return those that are to be looked at once more, because something was not well with some
   */
  List<SmallFile> take(List<SmallFile> load, TarDownloadProcess program, Cancellation stop)
      throws IOException {
    List<SmallFile> unsure = new ArrayList<>();
    for (SmallFile smallFile : load) {
      if (!mayCome(smallFile)) {
        continue;
      }
      String name = "./" + smallFile.item.from();
      await(() -> come.containsKey(name), program, stop);
      Early early;
      synchronized (this) {
        early = come.remove(name);
      }
      if (early != null) {
        smallFile.read(early.content, early.modified);
        if (!early.sure) {
          unsure.add(smallFile);
        }
      }
    }
    return unsure;
  }

  /** What was asked for comes after it. */
  void readAll(TarDownloadProcess program, Cancellation stop) throws IOException {
    await(() -> false, program, stop);
  }

  /** Reads on until something is there or all is over, or lets another thread do that. */
  private void await(BooleanSupplier isThere, TarDownloadProcess program, Cancellation stop)
      throws IOException {
    while (true) {
      synchronized (this) {
        while (!over && !isThere.getAsBoolean() && reading) {
          pause();
        }
        if (over || isThere.getAsBoolean()) {
          return;
        }
        reading = true;
      }
      try {
        readSome(program, stop);
      } finally {
        synchronized (this) {
          reading = false;
          notifyAll();
        }
      }
    }
  }

  private void pause() throws IOException {
    try {
      wait();
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new IOException("interrupted", e);
    }
  }

  private void readSome(TarDownloadProcess program, Cancellation stop) throws IOException {
    stop.throwIfStopped();
    if (isSlow.getAsBoolean()) {
      givenUp = true;
      over = true;
      return;
    }
    Map<String, Early> some = new HashMap<>();
    try {
      TarDownloadProcess.EarlyPart part =
          program.readEarly(
              (name, content, modified) -> {
                if (++count > MOST) {
                  throw new IOException("the server sends more than was named");
                }
                // One that has grown is asked for, like any other.
                if (content.length <= MOST_BYTES) {
                  some.put(name, new Early(content, modified, true));
                }
              });
      boolean sure = part.complaints().isEmpty();
      synchronized (this) {
        some.forEach((name, it) -> come.put(name, new Early(it.content, it.modified, sure)));
        over = part.last();
      }
    } catch (IOException | RuntimeException e) {
      over = true;
      throw e;
    }
  }
}
