package zander.core.config;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import zander.core.phrase.ConfigPhrase;
import zander.core.phrase.InvalidInput;

/** When a block applies: its {@code Host} or {@code Match} line (ssh_config manual page). */
interface Condition {
  Condition ALWAYS = state -> true;
  Condition NEVER = state -> false;

  boolean holds(Resolution state);

  /** Whether it names hosts, rather than being for all. */
  default boolean isSpecific() {
    return false;
  }

  /**
   * @param patterns of a {@code Host} line
   */
  record Hosts(List<String> patterns) implements Condition {
    @Override
    public boolean holds(Resolution state) {
      return HostPatterns.match(patterns, state.host());
    }

    @Override
    public boolean isSpecific() {
      return !patterns.contains("*");
    }
  }

  /** One thing that a {@code Match} line asks. */
  record Criterion(String name, boolean negated, List<String> patterns) {
    private boolean holds(Resolution state) {
      boolean is =
          switch (name) {
            case "host" -> HostPatterns.match(patterns, state.target());
            case "originalhost" -> HostPatterns.match(patterns, state.original());
            case "user" -> HostPatterns.matchExactly(patterns, state.user());
            case "localuser" -> HostPatterns.matchExactly(patterns, state.local().user());
            case "canonical", "final" -> state.isFinal();
            default -> true;
          };
      return is != negated;
    }
  }

  /**
   * @param criteria all of which must hold
   */
  record Match(List<Criterion> criteria) implements Condition {
    private static final Set<String> ALONE = Set.of("all", "canonical", "final");
    private static final Set<String> WITH_PATTERNS =
        Set.of("host", "originalhost", "user", "localuser");

    /**
     * Reads the arguments of a {@code Match} line.
     *
     * @throws IllegalArgumentException with what is wrong, or not done here
     */
    static Match of(List<String> words) {
      List<Criterion> criteria = new ArrayList<>();
      for (int i = 0; i < words.size(); i++) {
        boolean negated = words.get(i).startsWith("!");
        String word = words.get(i).substring(negated ? 1 : 0);
        int equals = word.indexOf('=');
        String name = (equals < 0 ? word : word.substring(0, equals)).toLowerCase(Locale.ROOT);
        if (ALONE.contains(name)) {
          criteria.add(new Criterion(name, negated, List.of()));
          continue;
        }
        if (name.equals("exec")) {
          throw new InvalidInput(ConfigPhrase.MATCH_RUNS_A_COMMAND.of());
        }
        if (!WITH_PATTERNS.contains(name)) {
          throw new InvalidInput(ConfigPhrase.MATCH_ASKS_FOR.of(name));
        }
        if (equals < 0 && ++i == words.size()) {
          throw new InvalidInput(ConfigPhrase.MATCH_SAYS_NOTHING.of(name));
        }
        String list = equals < 0 ? words.get(i) : word.substring(equals + 1);
        criteria.add(new Criterion(name, negated, Arrays.asList(list.split(","))));
      }
      boolean all = criteria.stream().anyMatch(one -> one.name.equals("all"));
      if (all && criteria.stream().anyMatch(one -> WITH_PATTERNS.contains(one.name))) {
        throw new InvalidInput(ConfigPhrase.MATCH_ALL_ALONE.of());
      }
      return new Match(criteria);
    }

    @Override
    public boolean holds(Resolution state) {
      if (criteria.stream().anyMatch(one -> one.name.equals("final"))) {
        state.wantFinal();
      }
      return criteria.stream().allMatch(one -> one.holds(state));
    }

    @Override
    public boolean isSpecific() {
      return criteria.stream()
          .anyMatch(one -> one.name.equals("host") || one.name.equals("originalhost"));
    }
  }
}
