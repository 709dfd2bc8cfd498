package zander.suite;

import static org.assertj.core.api.Assertions.assertThat;

import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption.DoNotIncludeTests;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import org.junit.jupiter.api.Test;

/** How large the rooms of all modules are; what they may know is held in each module. */
class RoomsTest {
  private static final JavaClasses ZANDER =
      new ClassFileImporter().withImportOption(new DoNotIncludeTests()).importPackages("zander");

  @Test
  void noRoomIsCrowded() {
    assertThat(ZANDER.contain("zander.desk.Main")).isTrue();
    assertThat(Rooms.crowded(ZANDER, "zander", 20)).isEmpty();
  }

  @Test
  void noClassesAreKnotted() {
    assertThat(Rooms.knots(ZANDER, "zander", 4)).isEmpty();
  }

  @Test
  void noPublicConstructorNeedsMuch() {
    assertThat(Rooms.needy(ZANDER, 6)).isEmpty();
  }

  /** The compiler holds it there, by the null checker. */
  @Test
  void packagesSayWhereNullMayBe() throws IOException {
    Set<String> unmarked = new TreeSet<>();
    for (String module : List.of("core", "desk")) {
      unmarked.addAll(Rooms.without("@NullMarked", Path.of("..", module, "src", "main", "java")));
    }
    assertThat(unmarked).isEmpty();
  }

  @Test
  void noFileIsLong() throws IOException {
    Map<String, Long> lengths = new TreeMap<>();
    for (String module : List.of("core", "standin", "desk", "suite", "bench")) {
      Rooms.lengths(Path.of("..", module, "src"), lengths);
    }
    assertThat(lengths).hasSizeGreaterThan(300);
    lengths.values().removeIf(lines -> lines <= 400);
    assertThat(lengths).isEmpty();
  }
}
