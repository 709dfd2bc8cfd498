package zander.core.edit;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import net.jqwik.api.constraints.Size;
import org.junit.jupiter.api.Test;

class SideBySideTest {
  private static String text(List<Integer> lines) {
    return String.join("\n", lines.stream().map(line -> "gauge " + line).toList());
  }

  @Property(seed = "1")
  void nothingIsLostAndEachChangeCanBeTakenBack(
      @ForAll @Size(max = 12) List<@IntRange(max = 4) Integer> left,
      @ForAll @Size(max = 12) List<@IntRange(max = 4) Integer> right) {
    String one = text(left);
    String other = text(right);
    List<SideBySide.Row> rows = SideBySide.of(one, other);
    assertThat(rows.stream().filter(row -> row.leftNumber() > 0).map(SideBySide.Row::left))
        .containsExactlyElementsOf(LineChanges.lines(one));
    assertThat(rows.stream().filter(row -> row.rightNumber() > 0).map(SideBySide.Row::right))
        .containsExactlyElementsOf(LineChanges.lines(other));
    assertThat(rows).allMatch(row -> !row.isSame() || row.left().equals(row.right()));
    String now = other;
    for (int i = 0;
        i < 30 && !SideBySide.of(one, now).stream().allMatch(row -> row.isSame());
        i++) {
      now = SideBySide.withLeftIn(0, one, now);
    }
    assertThat(now).isEqualTo(one);
  }

  @Test
  void whatDiffersWithinALineIsKnown() {
    SideBySide.Row row =
        SideBySide.of("level 3 cm \ud83c\udf0a", "level 14 cm \ud83c\udf0b").get(0);
    assertThat(row.left().substring(row.from(), row.leftTo())).isEqualTo("3 cm \ud83c\udf0a");
    assertThat(row.right().substring(row.from(), row.rightTo())).isEqualTo("14 cm \ud83c\udf0b");
    SideBySide.Row word = SideBySide.of("listen 80;", "listen 8080;").get(0);
    assertThat(word.left().substring(word.from(), word.leftTo())).isEmpty();
    assertThat(word.right().substring(word.from(), word.rightTo())).isEqualTo("80");
  }
}
