package zander.core.transfer;

import java.io.IOException;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.Executor;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import zander.core.transfer.endpoint.Source;
import zander.core.transfer.endpoint.Target;
import zander.core.transfer.endpoint.TransferItem;
import zander.core.transfer.endpoint.TreeEntry;
import zander.core.transfer.rules.TransferRules;
import zander.core.work.Workers;

/**
 * What a transfer begins before it is needed, so that a line's round trips are not paid one after
 * the other: the programs at both ends, and reading folders that are still being made on the other
 * side. For several threads.
 */
final class Prefetch {
  /** From this many files in a folder on, more programs are worth starting. */
  private static final int MANY = 512;

  private static final int MORE_PROGRAMS = 2;
  private static final int FEW_FOLDERS = 4;

  private final Source source;
  private final Target target;
  private final TransferRules rules;
  private final Workers scanners;
  private final @Nullable Executor elsewhere;
  private final Map<String, ListingQueue> listings = new ConcurrentHashMap<>();
  private final AtomicBoolean expectsMany = new AtomicBoolean();

  /**
   * @param scanners begins its tasks in the order they are given: who waits for a listing must not
   *     wait for one that is never begun
   */
  Prefetch(
      Source source,
      Target target,
      TransferRules rules,
      Workers scanners,
      @Nullable Executor elsewhere) {
    this.source = source;
    this.target = target;
    this.rules = rules;
    this.scanners = scanners;
    this.elsewhere = elsewhere;
  }

  /**
   * Something will be read that wants a program; where nothing is in its place, what is at its top
   * need not wait to be asked for.
   */
  void read(List<String> names) {
    source.expectToRead(areWanted(names) ? names : List.of(), elsewhere);
  }

  private boolean areWanted(List<String> names) {
    try {
      return names.size() <= FEW_FOLDERS
          && names.stream().allMatch(this::isLetIn)
          && target.isFree(names);
    } catch (IOException e) {
      // A name that cannot be there, which is told when it is its turn.
      return false;
    }
  }

  private boolean isLetIn(String name) {
    return rules.leaveOut().by(name, true) == null && rules.leaveOut().by(name, false) == null;
  }

  /** A folder is to be transferred: it will want programs. */
  void expect(TreeEntry folder) {
    read(List.of());
    target.expectToWrite(like(folder), false, elsewhere);
  }

  private TransferItem like(TreeEntry node) {
    return new TransferItem(
        "", "", node, null, false, rules.modeFor(node, false, "", null), rules.timeFor(node));
  }

  /**
   * Lists folders of the source, if they are few. What is no folder after all, or is left out, is
   * listed in vain, which costs nobody a wait.
   */
  void list(List<String> folders) {
    if (folders.size() <= FEW_FOLDERS) {
      for (String folder : folders) {
        listings.computeIfAbsent(
            folder,
            path -> {
              ListingQueue portions = new ListingQueue();
              scanners.submit(
                  () -> {
                    portions.fill(portion -> listNow(path, portion));
                    return true;
                  });
              return portions;
            });
      }
    }
  }

  /**
   * What is in a folder of the source, in portions as they come; waits. When it fails, some of it
   * may have been given.
   */
  void children(String folder, Consumer<List<TreeEntry>> portion) throws IOException {
    ListingQueue begun = listings.remove(folder);
    // Where that failed before anything came, it is listed once more, which tells what is wrong.
    if (begun == null || !begun.handTo(portion)) {
      listNow(folder, portion);
    }
  }

  private void listNow(String folder, Consumer<List<TreeEntry>> portion) throws IOException {
    int[] count = {0};
    source.list(
        folder,
        part -> {
          count[0] += part.size();
          if (count[0] >= MANY && expectsMany.compareAndSet(false, true)) {
            for (int i = 0; i < MORE_PROGRAMS; i++) {
              target.expectToWrite(like(part.get(0)), true, elsewhere);
            }
          }
          portion.accept(part);
        });
  }
}
