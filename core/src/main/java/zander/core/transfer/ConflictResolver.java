package zander.core.transfer;

import static java.util.Objects.requireNonNull;

import java.io.IOException;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.HashMap;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.CancellationException;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.BiConsumer;
import zander.core.transfer.endpoint.Endpoint;
import zander.core.transfer.endpoint.Source;
import zander.core.transfer.endpoint.Target;
import zander.core.transfer.endpoint.TransferItem;
import zander.core.transfer.endpoint.TreeEntry;
import zander.core.transfer.progress.ProgressCounter;
import zander.core.transfer.rules.ConflictPrompt;
import zander.core.transfer.rules.ConflictPrompt.Answer;
import zander.core.transfer.rules.ConflictPrompt.Question;
import zander.core.transfer.rules.ConflictRule;
import zander.core.transfer.rules.Decision;

/**
 * Decides what happens to names that are taken: by the rule, or by answers. What must be asked
 * waits aside, one question at a time, while everything else is transferred.
 */
final class ConflictResolver {
  /** Something that waits for an answer, and what to do with it then. */
  private record Waiting(
      TransferItem item, PendingFolder folder, BiConsumer<TransferItem, Decision> then) {}

  private final Source source;
  private final Target target;
  private final ConflictPrompt prompt;
  private final boolean continues;
  private final ProgressCounter counter;
  private final Deque<Waiting> waiting = new ArrayDeque<>();
  private final Map<String, ConflictRule> byKind = new HashMap<>();
  private final Set<String> given = ConcurrentHashMap.newKeySet();
  private ConflictRule rule;
  private boolean asking;

  ConflictResolver(
      Source source,
      Target target,
      ConflictRule rule,
      ConflictPrompt prompt,
      boolean continues,
      ProgressCounter counter) {
    this.source = source;
    this.target = target;
    this.rule = rule;
    this.prompt = prompt;
    this.continues = continues;
    this.counter = counter;
  }

  Decision on(TransferItem item) {
    return on(item, ruleFor(item));
  }

  private synchronized ConflictRule ruleFor(TransferItem item) {
    return byKind.getOrDefault(ConflictPrompt.ending(item.node().name()), rule);
  }

  private Decision on(TransferItem item, ConflictRule choice) {
    return Decision.of(choice, item.node(), item.there(), continues);
  }

  /**
   * Puts something aside until it is answered.
   *
   * @param then told on a thread that may wait
   * @return whether the caller is to call {@link #askAll}, on such a thread
   */
  synchronized boolean putAside(
      TransferItem item, PendingFolder folder, BiConsumer<TransferItem, Decision> then) {
    waiting.add(new Waiting(item, folder, then));
    counter.waiting(1);
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
      Decision verdict = on(item);
      if (verdict == Decision.ASK) {
        verdict = ask(item, more);
      }
      counter.waiting(-1);
      next.then().accept(item, verdict);
    }
  }

  private Decision ask(TransferItem item, int more) {
    TreeEntry there = requireNonNull(item.there(), "nothing is asked about a free place");
    Question question =
        new Question(target.show(item.to()), item.from(), item.to(), item.node(), there, more);
    Answer answer = prompt.ask(question);
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
    Decision verdict = on(item, answer.choice());
    // A folder in the way of a file is never replaced, whatever was answered.
    return verdict == Decision.ASK ? Decision.SKIP : verdict;
  }

  /**
   * {@code index.html} becomes {@code index-2.html}, or the next number that is free: there, and
   * beside what is carried, whose neighbour may be coming too.
   */
  String freeName(TransferItem item) throws IOException {
    String folder = Endpoint.folderOf(item.to());
    String from = Endpoint.folderOf(item.from());
    String name = Endpoint.nameOf(item.to());
    String ending = ConflictPrompt.ending(name);
    String stem = name.substring(0, name.length() - ending.length());
    for (int number = 2; ; number++) {
      String numbered = stem + "-" + number + ending;
      String free = Endpoint.join(folder, numbered);
      // A name is given once, also one that turns out to be taken.
      if (given.add(free)
          && target.look(free) == null
          && source.look(Endpoint.join(from, numbered)) == null) {
        return free;
      }
    }
  }
}
