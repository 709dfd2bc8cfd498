package zander.suite;

import static org.assertj.core.api.Assertions.assertThat;

import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption.DoNotIncludeTests;
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
    assertThat(Rooms.knots(ZANDER, "zander.core", 4)).isEmpty();
    assertThat(Rooms.knots(ZANDER, "zander.standin", 4)).isEmpty();
  }
}
