package zander.core.edit;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.stream.IntStream;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import net.jqwik.api.constraints.Size;
import org.junit.jupiter.api.Test;
import zander.core.edit.LineChanges.Change;

/**
 * Judged: which lines of two texts differ, as few as can be | the table of longest common parts |
 * 1,000
 */
class LineChangesTest {
  private static List<String> made(List<String> before, List<String> after) {
    List<String> made = new ArrayList<>();
    int at = 0;
    for (Change change : LineChanges.between(before, after)) {
      made.addAll(before.subList(at, change.from()));
      made.addAll(after.subList(change.nowFrom(), change.nowTo()));
      assertThat(change.to() - change.from() + change.nowTo() - change.nowFrom()).isPositive();
      at = change.to();
    }
    made.addAll(before.subList(at, before.size()));
    return made;
  }

  private static int cost(List<String> before, List<String> after) {
    return LineChanges.between(before, after).stream()
        .mapToInt(it -> it.to() - it.from() + it.nowTo() - it.nowFrom())
        .sum();
  }

  /** By the table that everybody learns. */
  private static int fewest(List<String> before, List<String> after) {
    int[][] common = new int[before.size() + 1][after.size() + 1];
    for (int i = before.size() - 1; i >= 0; i--) {
      for (int j = after.size() - 1; j >= 0; j--) {
        common[i][j] =
            before.get(i).equals(after.get(j))
                ? common[i + 1][j + 1] + 1
                : Math.max(common[i + 1][j], common[i][j + 1]);
      }
    }
    return before.size() + after.size() - 2 * common[0][0];
  }

  private static List<String> words(List<Integer> numbers) {
    return numbers.stream().map(String::valueOf).toList();
  }

  @Property(seed = "1")
  void theChangesMakeTheSecondTextAndAreTheFewest(
      @ForAll @Size(max = 60) List<@IntRange(max = 6) Integer> one,
      @ForAll @Size(max = 60) List<@IntRange(max = 6) Integer> other) {
    List<String> before = words(one);
    List<String> after = words(other);
    assertThat(made(before, after)).isEqualTo(after);
    assertThat(cost(before, after)).isEqualTo(fewest(before, after));
  }

  @Test
  void longTextsThatDifferMuchAreStillCompared() {
    Random random = new Random(7);
    List<String> before =
        IntStream.range(0, 40_000).mapToObj(i -> "level " + random.nextInt(9_000)).toList();
    List<String> after =
        IntStream.range(0, 40_000).mapToObj(i -> "level " + random.nextInt(9_000)).toList();
    assertThat(made(before, after)).isEqualTo(after);
    List<String> few = new ArrayList<>(before);
    few.remove(30_000);
    few.add(10, "one more");
    few.set(20_000, "another");
    assertThat(cost(before, few)).isEqualTo(4);
  }

  @Test
  void aChangeAmongLinesAlikeIsTheLastOfThem() {
    List<String> before = List.of("a", "}", "}", "b");
    assertThat(LineChanges.between(before, List.of("a", "}", "}", "}", "b")))
        .containsExactly(new Change(3, 3, 3, 4));
    assertThat(LineChanges.between(List.of("a", "x", "x", "x", "b"), List.of("a", "x", "b")))
        .containsExactly(new Change(2, 4, 2, 2));
    // It goes up again to a change of the other side, so that both are one.
    assertThat(LineChanges.between(List.of("a", "x", "x", "end"), List.of("n", "x", "end")))
        .containsExactly(new Change(0, 2, 0, 1));
  }
}
