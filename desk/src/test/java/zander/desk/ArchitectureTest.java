package zander.desk;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;

import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption.DoNotIncludeTests;
import com.tngtech.archunit.lang.ArchRule;
import org.junit.jupiter.api.Test;

/** The arrows between rooms and packages; see docs/ARCHITECTURE.md. */
class ArchitectureTest {
  private static final JavaClasses ZANDER =
      new ClassFileImporter().withImportOption(new DoNotIncludeTests()).importPackages("zander");

  @Test
  void standinKnowsNotTheDesk() {
    ArchRule rule =
        noClasses()
            .that()
            .resideInAPackage("zander.standin..")
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage("zander.desk..", "javafx..");
    rule.check(ZANDER);
  }

  @Test
  void theDeskSeesNoSshLibrary() {
    ArchRule rule =
        noClasses()
            .that()
            .resideInAPackage("zander.desk..")
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage("org.apache.sshd..", "org.bouncycastle..");
    rule.check(ZANDER);
  }

  @Test
  void onlyStartingTheDemoKnowsTheStandin() {
    ArchRule rule =
        noClasses()
            .that()
            .resideInAPackage("zander.desk.*..")
            .should()
            .dependOnClassesThat()
            .resideInAPackage("zander.standin..");
    rule.check(ZANDER);
  }

  @Test
  void modelsHaveNoControls() {
    ArchRule rule =
        noClasses()
            .that()
            .resideInAPackage("zander.desk.*..")
            .and()
            .resideOutsideOfPackages(
                "zander.desk.view..", "zander.desk.term..", "zander.desk.look..")
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage(
                "javafx.scene..", "javafx.stage..", "javafx.application..", "zander.desk.view..");
    rule.check(ZANDER);
  }

  @Test
  void packagesHaveNoCycles() {
    ArchRule rule = slices().matching("zander.desk.(*)..").should().beFreeOfCycles();
    rule.check(ZANDER);
  }

  @Test
  void standinPackagesHaveNoCycles() {
    ArchRule rule = slices().matching("zander.standin.(*)..").should().beFreeOfCycles();
    rule.check(ZANDER);
  }
}
