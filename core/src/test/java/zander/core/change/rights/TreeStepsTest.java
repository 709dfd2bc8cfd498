package zander.core.change.rights;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;
import zander.core.change.rights.look.TreeRoots;
import zander.core.files.RemotePath;
import zander.core.phrase.ExplainedException;
import zander.core.rights.Mode;
import zander.core.rights.Rights;
import zander.core.rights.RightsStep;

class TreeStepsTest {
  private static final List<RightsStep> STEPS =
      List.of(
          new RightsStep(
              false, new Rights(1002, 33, new Mode(0664)), new Rights(1002, 33, new Mode(0644))),
          new RightsStep(true, new Rights(-2, 0, new Mode(07777)), new Rights(0, -2, new Mode(0))));

  private record One(String path, int tag, long file) {}

  private static List<One> some(Random random, int count) {
    List<One> all = new ArrayList<>();
    String last = "";
    for (int i = 0; i < count; i++) {
      int keep = last.isEmpty() ? 0 : random.nextInt(last.length());
      StringBuilder path = new StringBuilder(last.substring(0, keep));
      for (int more = random.nextInt(12) + 1; more > 0; more--) {
        path.append((char) (random.nextInt(255) + 1));
      }
      last = path.toString();
      all.add(new One(last, random.nextInt(STEPS.size()), random.nextLong()));
    }
    return all;
  }

  private static TreeSteps steps(List<One> all) {
    PackedPaths paths = new PackedPaths();
    all.forEach(one -> paths.add(one.path, one.tag, one.file));
    TreeRoots roots = TreeRoots.of(List.of(RemotePath.of("/srv/levels/site")));
    return new TreeSteps(roots, true, STEPS, paths);
  }

  private static List<One> forwards(PackedPaths paths) throws IOException {
    List<One> found = new ArrayList<>();
    paths.forEach((path, tag, file) -> found.add(new One(path, tag, file)));
    return found;
  }

  @Property(tries = 60, seed = "1")
  void whatIsKeptIsReadAgain(@ForAll long seed) throws Exception {
    Random random = new Random(seed);
    // Sometimes more than a block.
    List<One> all = some(random, random.nextInt(6) == 0 ? 9000 : random.nextInt(40));
    TreeSteps kept = TreeSteps.ofBytes(steps(all).toBytes());
    assertThat(kept.roots()).isEqualTo(steps(all).roots());
    assertThat(kept.otherFileSystems()).isTrue();
    assertThat(kept.steps()).isEqualTo(STEPS);
    assertThat(kept.size()).isEqualTo(all.size());
    assertThat(forwards(kept.paths())).isEqualTo(all);
    List<One> backwards = new ArrayList<>();
    kept.paths().forEachBackwards((path, tag, file) -> backwards.add(new One(path, tag, file)));
    Collections.reverse(backwards);
    assertThat(backwards).isEqualTo(all);
  }

  @Property(tries = 300, seed = "1")
  void damagedBytesAreRefusedAndNothingElseHappens(@ForAll long seed) {
    Random random = new Random(seed);
    byte[] bytes = steps(some(random, 30)).toBytes();
    bytes[random.nextInt(bytes.length)] ^= (byte) (1 + random.nextInt(255));
    byte[] cut = Arrays.copyOf(bytes, random.nextInt(bytes.length + 1));
    for (byte[] one : List.of(bytes, cut)) {
      try {
        TreeSteps.ofBytes(one);
      } catch (IOException e) {
        assertThat(e).isInstanceOf(ExplainedException.class);
      }
    }
  }

  @Test
  void theWayBackIsTheWayBack() {
    TreeSteps there = steps(List.of(new One("a", 0, 1)));
    assertThat(there.reversed().steps().get(0).after()).isEqualTo(STEPS.get(0).before());
    assertThat(there.reversed().reversed().steps()).isEqualTo(STEPS);
  }

  @Test
  void entriesOfTwoFoldersAreRefused() {
    List<RemotePath> two = List.of(RemotePath.of("/srv/a"), RemotePath.of("/var/b"));
    assertThatThrownBy(() -> TreeRoots.of(two)).isInstanceOf(IllegalArgumentException.class);
    TreeRoots root = TreeRoots.of(List.of(RemotePath.ROOT));
    assertThat(root.at("etc/levels")).isEqualTo(RemotePath.of("/etc/levels"));
    assertThat(root.below(RemotePath.of("/etc/levels"))).isEqualTo("etc/levels");
  }

  @Test
  void everyPathIsFoundAgainInTheTable() {
    List<One> all = some(new Random(4), 50_000);
    Map<String, One> last = new HashMap<>();
    PathTable table = new PathTable(all.size());
    for (One one : all) {
      table.put(one.path, one.tag, one.file);
      last.put(one.path, one);
    }
    for (One one : last.values()) {
      int at = table.find(one.path);
      assertThat(table.tag(at)).isEqualTo(one.tag);
      assertThat(table.file(at)).isEqualTo(one.file);
      assertThat(table.state(at)).isZero();
    }
    assertThat(table.find("never put in")).isNegative();
  }
}
