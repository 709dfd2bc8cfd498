package zander.core.crossing;

import java.io.IOException;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CancellationException;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.Executor;
import java.util.concurrent.Future;
import java.util.concurrent.atomic.AtomicBoolean;
import zander.core.work.Workers;

/**
 * What a crossing begins before it is needed, so that a line's round trips are not paid one after
 * the other: the programs at both ends, and reading folders that are still being made on the other
 * side. For several threads.
 */
final class Ahead {
  /** From this many files in a folder on, more programs are worth starting. */
  private static final int MANY = 512;

  private static final int MORE_PROGRAMS = 2;
  private static final int FEW_FOLDERS = 4;

  private final Side source;
  private final Side target;
  private final Rules rules;
  private final Workers scanners;
  private final Executor elsewhere;
  private final Map<String, Future<List<Node>>> listings = new ConcurrentHashMap<>();
  private final AtomicBoolean expectsMany = new AtomicBoolean();

  /**
   * @param scanners begins its tasks in the order they are given
   */
  Ahead(Side source, Side target, Rules rules, Workers scanners, Executor elsewhere) {
    this.source = source;
    this.target = target;
    this.rules = rules;
    this.scanners = scanners;
    this.elsewhere = elsewhere;
  }

  /** A folder is to cross: it will want programs. */
  void expect(Node folder) {
    source.expectToRead(elsewhere);
    target.expectToWrite(like(folder), false, elsewhere);
  }

  private Item like(Node node) {
    return new Item("", "", node, null, false, rules.modeFor(node, false), rules.timeFor(node));
  }

  /**
   * Lists folders of the source, if they are few. What is no folder after all, or is left out, is
   * listed in vain, which costs nobody a wait.
   */
  void list(List<String> folders) {
    if (folders.size() <= FEW_FOLDERS) {
      for (String folder : folders) {
        listings.computeIfAbsent(folder, path -> scanners.submit(() -> listNow(path)));
      }
    }
  }

  /** What is in a folder of the source; waits. */
  List<Node> children(String folder) throws IOException {
    Future<List<Node>> begun = listings.remove(folder);
    if (begun != null) {
      try {
        return begun.get();
      } catch (ExecutionException | CancellationException e) {
        // Listed once more, which tells what is wrong.
      } catch (InterruptedException e) {
        Thread.currentThread().interrupt();
      }
    }
    return listNow(folder);
  }

  private List<Node> listNow(String folder) throws IOException {
    List<Node> children = source.list(folder);
    if (children.size() >= MANY && expectsMany.compareAndSet(false, true)) {
      for (int i = 0; i < MORE_PROGRAMS; i++) {
        target.expectToWrite(like(children.get(0)), true, elsewhere);
      }
    }
    return children;
  }
}
