package zander.core.edit;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.CharRange;
import net.jqwik.api.constraints.Size;
import org.junit.jupiter.api.Test;

class LineOperationsTest {
  @Test
  void theTextSaysWhatItIndentsBy() {
    assertThat(LineOperations.indentUnit(List.of("a {", "    b", "        c", "}")))
        .isEqualTo("    ");
    assertThat(LineOperations.indentUnit(List.of("a:", "  - b", "  - c"))).isEqualTo("  ");
    assertThat(LineOperations.indentUnit(List.of("all:", "\tmake", "  # odd"))).isEqualTo("\t");
    assertThat(LineOperations.indentUnit(List.of("", "flat"))).isEqualTo("\t");
  }

  @Property(seed = "1")
  void indentingIsTakenBackByIndentingLess(
      @ForAll @Size(min = 1, max = 8) List<@CharRange(from = 'a', to = 'c') String> lines) {
    for (String unit : List.of("\t", "  ", "    ")) {
      List<String> in = LineOperations.indented(lines, unit);
      assertThat(LineOperations.outdented(in, unit)).isEqualTo(lines);
    }
  }

  @Test
  void outdentingTakesWhatThereIs() {
    assertThat(LineOperations.outdented(List.of("\ta", " b", "c", "      d"), "    "))
        .containsExactly("a", "b", "c", "  d");
  }

  @Test
  void commentsComeAndGoAsAWhole() {
    List<String> lines = List.of("  listen 80;", "", "    root /srv;");
    List<String> made = LineOperations.commented(lines, "#", "");
    assertThat(made).containsExactly("  # listen 80;", "", "  #   root /srv;");
    assertThat(LineOperations.commented(made, "#", "")).isEqualTo(lines);
    // Where one is a line, all become comments, those that are some twice.
    assertThat(LineOperations.commented(List.of("# a", "b"), "#", ""))
        .containsExactly("# # a", "# b");
    assertThat(LineOperations.commented(List.of("<p>x</p>"), "<!--", "-->"))
        .containsExactly("<!-- <p>x</p> -->");
    assertThat(LineOperations.commented(List.of("<!-- <p>x</p> -->"), "<!--", "-->"))
        .containsExactly("<p>x</p>");
    assertThat(LineOperations.commented(List.of("#a"), "#", "")).containsExactly("a");
  }

  @Test
  void linesAreJoinedAndSorted() {
    assertThat(LineOperations.joined(List.of("allow", "    all;", "", "end")))
        .isEqualTo("allow all; end");
    assertThat(LineOperations.sorted(List.of("b", "a", "C"))).containsExactly("C", "a", "b");
    assertThat(LineOperations.sorted(List.of("C", "a", "b"))).containsExactly("b", "a", "C");
  }
}
