package zander.core.access;

import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import zander.core.rights.AccessList.Answer;
import zander.core.rights.AccessList.Asker;

/**
 * The smallest changes of one kind that would let somebody do what they cannot.
 *
 * @param changes in the order of the way
 * @param facts how things would be then
 */
public record Cure(List<CureChange> changes, PathFacts facts) {
  /**
   * Whom else it lets do the same, and whom it no longer lets; of those that are asked about.
   *
   * @param gain in the order of their names
   * @param lose the same
   */
  public record Effect(Set<String> gain, Set<String> lose) {}

  /**
   * @param before how things are
   * @param accounts all of the server, by their names
   */
  public Effect effect(PathFacts before, Deed deed, Map<String, Asker> accounts) {
    Set<String> gain = new TreeSet<>();
    Set<String> lose = new TreeSet<>();
    accounts.forEach(
        (name, asker) -> {
          boolean was = AccessChain.of(before, asker, deed).answer() == Answer.YES;
          boolean is = AccessChain.of(facts, asker, deed).answer() == Answer.YES;
          if (is && !was) {
            gain.add(name);
          } else if (was && !is) {
            lose.add(name);
          }
        });
    return new Effect(gain, lose);
  }
}
