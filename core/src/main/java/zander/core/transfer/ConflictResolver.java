package zander.core.transfer;

import java.io.IOException;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.HashMap;
import java.util.Map;
import java.util.concurrent.CancellationException;
import java.util.function.BiConsumer;
import zander.core.transfer.endpoint.Endpoint;
import zander.core.transfer.endpoint.Target;
import zander.core.transfer.endpoint.TransferItem;
import zander.core.transfer.progress.ProgressCounter;
import zander.core.transfer.rules.Comparison;
import zander.core.transfer.rules.ConflictPrompt;
import zander.core.transfer.rules.ConflictPrompt.Answer;
import zander.core.transfer.rules.ConflictPrompt.Question;
import zander.core.transfer.rules.ConflictRule;

/**
 * Decides what happens to names that are taken: by the rule, or by answers. What must be asked
 * waits aside, one question at a time, while everything else is transferred.
 */
final class ConflictResolver {
  /** What becomes of something. */
  enum Verdict {
    GO,
    SKIP,
    IS_SAME,
    /** Both have the same size, and the rule asks for their contents. */
    COMPARE,
    BESIDE,
    ASK
  }

  /** Something that waits for an answer, and what to do with it then. */
  private record Waiting(
      TransferItem item, PendingFolder folder, BiConsumer<TransferItem, Verdict> then) {}

  private final Target target;
  private final ConflictPrompt talk;
  private final boolean continues;
  private final ProgressCounter tally;
  private final Deque<Waiting> waiting = new ArrayDeque<>();
  private final Map<String, ConflictRule> byKind = new HashMap<>();
  private final java.util.Set<String> given = new java.util.HashSet<>();
  private ConflictRule rule;
  private boolean asking;

  ConflictResolver(
      Target target,
      ConflictRule rule,
      ConflictPrompt talk,
      boolean continues,
      ProgressCounter tally) {
    this.target = target;
    this.rule = rule;
    this.talk = talk;
    this.continues = continues;
    this.tally = tally;
  }

  Verdict on(TransferItem item) {
    return on(item, ruleFor(item));
  }

  private synchronized ConflictRule ruleFor(TransferItem item) {
    return byKind.getOrDefault(ConflictPrompt.ending(item.node().name()), rule);
  }

  private Verdict on(TransferItem item, ConflictRule choice) {
    Comparison standing = Comparison.of(item.node(), item.there());
    if (standing == Comparison.NEW) {
      return Verdict.GO;
    }
    if (standing == Comparison.IN_THE_WAY) {
      return switch (choice) {
        case SKIP, NEWER, DIFFERENT, DIFFERENT_CONTENT -> Verdict.SKIP;
        case KEEP_BOTH -> Verdict.BESIDE;
        default -> Verdict.ASK;
      };
    }
    boolean same = standing == Comparison.SAME;
    if (same && (continues || !carriesTheSame(choice))) {
      return Verdict.IS_SAME;
    }
    return switch (choice) {
      case ASK -> Verdict.ASK;
      case REPLACE -> Verdict.GO;
      case SKIP -> Verdict.SKIP;
      case NEWER -> standing == Comparison.NEWER ? Verdict.GO : Verdict.SKIP;
      case DIFFERENT -> Verdict.GO;
      case DIFFERENT_CONTENT -> mayBeEqual(item) ? Verdict.COMPARE : Verdict.GO;
      case KEEP_BOTH -> Verdict.BESIDE;
    };
  }

  /** Whether the rule says what to do even with what has the same size and time. */
  private static boolean carriesTheSame(ConflictRule choice) {
    return choice == ConflictRule.REPLACE
        || choice == ConflictRule.KEEP_BOTH
        || choice == ConflictRule.DIFFERENT_CONTENT;
  }

  private static boolean mayBeEqual(TransferItem item) {
    return item.node().kind() == zander.core.files.FileKind.FILE
        && item.there().kind() == zander.core.files.FileKind.FILE
        && item.node().size() == item.there().size();
  }

  /**
   * Puts something aside until it is answered.
   *
   * @param then told on a thread that may wait
   * @return whether the caller is to call {@link #askAll}, on such a thread
   */
  synchronized boolean putAside(
      TransferItem item, PendingFolder folder, BiConsumer<TransferItem, Verdict> then) {
    waiting.add(new Waiting(item, folder, then));
    tally.waiting(1);
    boolean first = !asking;
    asking = true;
    return first;
  }

  /**
   * Asks until nothing waits any more.
   *
   * @throws CancellationException when the person stops the transfer instead of answering
   */
  void askAll() {
    while (true) {
      Waiting next;
      int more;
      synchronized (this) {
        next = waiting.poll();
        more = waiting.size();
        if (next == null) {
          asking = false;
          return;
        }
      }
      TransferItem item = next.item();
      // An earlier answer may have been meant for this one too.
      Verdict verdict = on(item);
      if (verdict == Verdict.ASK) {
        verdict = ask(item, more);
      }
      tally.waiting(-1);
      next.then().accept(item, verdict);
    }
  }

  private Verdict ask(TransferItem item, int more) {
    Question question =
        new Question(
            target.show(item.to()), item.from(), item.to(), item.node(), item.there(), more);
    Answer answer = talk.ask(question);
    if (answer == null) {
      throw new CancellationException("stopped at a question");
    }
    synchronized (this) {
      switch (answer.meant()) {
        case REST -> {
          rule = answer.choice();
          byKind.clear();
        }
        case KIND -> byKind.put(question.ending(), answer.choice());
        case THIS -> {}
      }
    }
    Verdict verdict = on(item, answer.choice());
    // A folder in the way of a file is never replaced, whatever was answered.
    return verdict == Verdict.ASK ? Verdict.SKIP : verdict;
  }

  /** {@code index.html} becomes {@code index-2.html}, or the next number that is free. */
  synchronized String freeName(String path) throws IOException {
    String folder = Endpoint.folderOf(path);
    String name = Endpoint.nameOf(path);
    String ending = ConflictPrompt.ending(name);
    String stem = name.substring(0, name.length() - ending.length());
    for (int number = 2; ; number++) {
      String free = Endpoint.join(folder, stem + "-" + number + ending);
      if (target.look(free) == null && given.add(free)) {
        return free;
      }
    }
  }
}
