package zander.core.edit;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/**
 * Merges of made-up triples, as {@code git merge-file} makes them.
 *
 * <p>Judged: merging three versions | {@code git merge-file} | 2,000 ({@code merge.cases})
 */
class JudgedByGitMergeTest {
  private static final int CASES = Integer.getInteger("merge.cases", 2_000);

  private static final int FEWEST_KINDS = 8;

  /**
   * Of few kinds of lines, equal ones can be laid on each other in several ways with as few
   * changes, each of them right; so often two of them were taken, in 20,000 cases.
   */
  private static final int ONE_IN = 2_500;

  @TempDir Path folder;

  private record Judged(boolean clean, String text) {}

  private Judged judge(String base, String mine, String theirs) throws Exception {
    Files.writeString(folder.resolve("base"), base);
    Files.writeString(folder.resolve("mine"), mine);
    Files.writeString(folder.resolve("theirs"), theirs);
    Process git =
        new ProcessBuilder("git", "merge-file", "-p", "-q", "mine", "base", "theirs")
            .directory(folder.toFile())
            .start();
    String text = new String(git.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
    return new Judged(git.waitFor() == 0, text);
  }

  private static List<String> edited(List<String> base, Random random, int kinds) {
    List<String> made = new ArrayList<>(base);
    for (int i = 1 + random.nextInt(3); i > 0; i--) {
      int at = random.nextInt(made.size() + 1);
      int count = random.nextInt(3);
      for (int gone = random.nextInt(3); gone > 0 && at < made.size(); gone--) {
        made.remove(at);
      }
      for (; count > 0; count--) {
        made.add(at, "line " + random.nextInt(kinds));
      }
    }
    return made;
  }

  private static String text(List<String> lines) {
    return lines.isEmpty() ? "" : String.join("\n", lines) + "\n";
  }

  @Test
  void theSameMergesAreCleanAndGiveTheSameText() throws Exception {
    int clean = 0;
    List<Integer> differ = new ArrayList<>();
    for (int i = 0; i < CASES; i++) {
      Random random = new Random(i);
      int kinds = FEWEST_KINDS + random.nextInt(60);
      List<String> lines = new ArrayList<>();
      for (int n = random.nextInt(40); n > 0; n--) {
        lines.add("line " + random.nextInt(kinds));
      }
      String base = text(lines);
      String mine = text(edited(lines, random, kinds));
      String theirs = text(edited(lines, random, kinds));
      Judged judged = judge(base, mine, theirs);
      ThreeWayMerge merge = ThreeWayMerge.of(base, mine, theirs);
      boolean agrees =
          merge.conflicts().isEmpty() == judged.clean()
              && (!judged.clean() || merge.text(List.of()).equals(judged.text()));
      if (!agrees) {
        differ.add(i);
      }
      clean += judged.clean() ? 1 : 0;
    }
    assertThat(clean).isBetween(CASES / 5, CASES * 4 / 5);
    assertThat(differ.size()).as("%s", differ).isLessThanOrEqualTo(CASES / ONE_IN);
  }

  @Test
  void whatBothChangedIsChosenPlaceByPlace() {
    ThreeWayMerge merge =
        ThreeWayMerge.of(
            "a\nb\nc\nd\ne\n", "a\nmine\nc\nd\ne\nadded\n", "first\na\ntheirs\nc\nd\ne\n");
    assertThat(merge.conflicts()).hasSize(1);
    ThreeWayMerge.Part place = merge.conflicts().get(0);
    assertThat(place.base()).containsExactly("b");
    assertThat(place.line()).isEqualTo(2);
    assertThat(merge.text(List.of(place.mine()))).isEqualTo("first\na\nmine\nc\nd\ne\nadded\n");
    assertThat(merge.text(List.of(place.theirs()))).isEqualTo("first\na\ntheirs\nc\nd\ne\nadded\n");
  }
}
