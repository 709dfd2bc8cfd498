package zander.desk.view;

import static org.assertj.core.api.Assertions.assertThat;

import com.tngtech.archunit.core.domain.JavaClass;
import com.tngtech.archunit.core.domain.JavaModifier;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption.DoNotIncludeTests;
import java.util.Set;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import zander.desk.sheet.Sheet;

class SheetViewsTest {
  /** A new kind of sheet without a view would fail only when somebody opens it. */
  @Test
  void everyKindOfSheetHasAView() {
    Set<String> kinds =
        new ClassFileImporter()
            .withImportOption(new DoNotIncludeTests()).importPackages("zander.desk").stream()
                .filter(type -> type.isAssignableTo(Sheet.class))
                .filter(type -> !type.getModifiers().contains(JavaModifier.ABSTRACT))
                .map(JavaClass::getName)
                .collect(Collectors.toSet());
    assertThat(new SheetViews(null).kinds()).extracting(Class::getName).hasSameElementsAs(kinds);
  }
}
