package zander.core.crossing;

import java.io.IOException;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.HashMap;
import java.util.Map;
import java.util.concurrent.CancellationException;
import java.util.function.BiConsumer;
import zander.core.crossing.ExistsTalk.Answer;
import zander.core.crossing.ExistsTalk.Question;

/**
 * Decides what happens to names that are taken: by the rule, or by answers. What must be asked
 * waits aside, one question at a time, while everything else crosses.
 */
final class Deciding {
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
  private record Waiting(Item item, OpenFolder folder, BiConsumer<Item, Verdict> then) {}

  private final Side target;
  private final ExistsTalk talk;
  private final boolean continues;
  private final Tally tally;
  private final Deque<Waiting> waiting = new ArrayDeque<>();
  private final Map<String, WhenExists> byKind = new HashMap<>();
  private final java.util.Set<String> given = new java.util.HashSet<>();
  private WhenExists rule;
  private boolean asking;

  Deciding(Side target, WhenExists rule, ExistsTalk talk, boolean continues, Tally tally) {
    this.target = target;
    this.rule = rule;
    this.talk = talk;
    this.continues = continues;
    this.tally = tally;
  }

  Verdict on(Item item) {
    return on(item, ruleFor(item));
  }

  private synchronized WhenExists ruleFor(Item item) {
    return byKind.getOrDefault(ExistsTalk.ending(item.node().name()), rule);
  }

  private Verdict on(Item item, WhenExists choice) {
    Standing standing = Standing.of(item.node(), item.there());
    if (standing == Standing.NEW) {
      return Verdict.GO;
    }
    if (standing == Standing.IN_THE_WAY) {
      return switch (choice) {
        case SKIP, NEWER, DIFFERENT, DIFFERENT_CONTENT -> Verdict.SKIP;
        case KEEP_BOTH -> Verdict.BESIDE;
        default -> Verdict.ASK;
      };
    }
    boolean same = standing == Standing.SAME;
    if (same && (continues || !carriesTheSame(choice))) {
      return Verdict.IS_SAME;
    }
    return switch (choice) {
      case ASK -> Verdict.ASK;
      case REPLACE -> Verdict.GO;
      case SKIP -> Verdict.SKIP;
      case NEWER -> standing == Standing.NEWER ? Verdict.GO : Verdict.SKIP;
      case DIFFERENT -> Verdict.GO;
      case DIFFERENT_CONTENT -> mayBeEqual(item) ? Verdict.COMPARE : Verdict.GO;
      case KEEP_BOTH -> Verdict.BESIDE;
    };
  }

  /** Whether the rule says what to do even with what has the same size and time. */
  private static boolean carriesTheSame(WhenExists choice) {
    return choice == WhenExists.REPLACE
        || choice == WhenExists.KEEP_BOTH
        || choice == WhenExists.DIFFERENT_CONTENT;
  }

  private static boolean mayBeEqual(Item item) {
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
  synchronized boolean putAside(Item item, OpenFolder folder, BiConsumer<Item, Verdict> then) {
    waiting.add(new Waiting(item, folder, then));
    tally.waiting(1);
    boolean first = !asking;
    asking = true;
    return first;
  }

  /**
   * Asks until nothing waits any more.
   *
   * @throws CancellationException when the person stops the crossing instead of answering
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
      Item item = next.item();
      // An earlier answer may have been meant for this one too.
      Verdict verdict = on(item);
      if (verdict == Verdict.ASK) {
        verdict = ask(item, more);
      }
      tally.waiting(-1);
      next.then().accept(item, verdict);
    }
  }

  private Verdict ask(Item item, int more) {
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
    String folder = Side.folderOf(path);
    String name = Side.nameOf(path);
    String ending = ExistsTalk.ending(name);
    String stem = name.substring(0, name.length() - ending.length());
    for (int number = 2; ; number++) {
      String free = Side.join(folder, stem + "-" + number + ending);
      if (target.look(free) == null && given.add(free)) {
        return free;
      }
    }
  }
}
