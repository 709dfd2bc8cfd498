package zander.core;

import static com.tngtech.archunit.base.DescribedPredicate.not;
import static com.tngtech.archunit.core.domain.JavaAccess.Predicates.target;
import static com.tngtech.archunit.core.domain.JavaClass.Predicates.assignableTo;
import static com.tngtech.archunit.core.domain.JavaClass.Predicates.resideInAPackage;
import static com.tngtech.archunit.core.domain.properties.HasName.Predicates.name;
import static com.tngtech.archunit.core.domain.properties.HasOwner.Predicates.With.owner;
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
  void coreKnowsNoOtherRoomAndNoInterface() {
    ArchRule rule =
        noClasses()
            .that()
            .resideInAPackage("zander.core..")
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage(
                "zander.desk..",
                "zander.standin..",
                "zander.bench..",
                "javafx..",
                "java.awt..",
                "javax.swing..");
    rule.check(ZANDER);
  }

  @Test
  void theSshLibraryStaysBehindConnectAndFiles() {
    ArchRule rule =
        noClasses()
            .that()
            .resideOutsideOfPackages("zander.core.connect..", "zander.core.files..")
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage("org.apache.sshd..");
    rule.check(ZANDER);
    // The vault takes its key derivation from the same library as the keys do.
    ArchRule derivation =
        noClasses()
            .that()
            .resideOutsideOfPackages(
                "zander.core.connect..",
                "zander.core.files..",
                "zander.core.vault..",
                "zander.core.seal..")
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage("org.bouncycastle..");
    derivation.check(ZANDER);
  }

  @Test
  void packagesHaveNoCycles() {
    ArchRule rule = slices().matching("zander.core.(*)..").should().beFreeOfCycles();
    rule.check(ZANDER);
  }

  /** The engine knows the ends by what a source and a target must do, and by nothing else. */
  @Test
  void theTransferEngineKnowsNoEnd() {
    String transfer = "zander.core.transfer";
    noClasses()
        .that()
        .resideInAPackage(transfer)
        .should()
        .dependOnClassesThat()
        .resideInAnyPackage(
            transfer + ".local..",
            transfer + ".remote..",
            transfer + ".server..",
            transfer + ".tar..",
            transfer + ".direct..")
        .check(ZANDER);
    noClasses()
        .that()
        .resideInAnyPackage(transfer + ".endpoint..", transfer + ".rules..", transfer + ".local..")
        .should()
        .dependOnClassesThat()
        .resideInAnyPackage(transfer, transfer + ".remote..", transfer + ".server..")
        .check(ZANDER);
    slices().matching("zander.core.transfer.(*)..").should().beFreeOfCycles().check(ZANDER);
    slices().matching("zander.core.connect.(*)..").should().beFreeOfCycles().check(ZANDER);
    slices().matching("zander.core.change.(*)..").should().beFreeOfCycles().check(ZANDER);
    slices().matching("zander.core.files.sftp.(*)..").should().beFreeOfCycles().check(ZANDER);
  }

  /** What names an entry for the server goes where others cannot turn the name; see SECURITY.md. */
  @Test
  void requestsAreNamedInOnePlace() {
    String sftp = "zander.core.files.sftp.";
    noClasses()
        .that()
        .doNotHaveFullyQualifiedName(sftp + "wire.SftpWire")
        .and()
        .resideOutsideOfPackage(sftp + "channel..")
        .should()
        .callMethodWhere(
            target(owner(assignableTo(sftp + "channel.SftpChannel"))).and(target(name("send"))))
        .check(ZANDER);
    noClasses()
        .that()
        .haveNameNotMatching(
            ".*\\.(SftpWire|FolderGuard|FolderHandles|HandleOpening|AttributeSetter)(\\$.*)?")
        .should()
        .callMethodWhere(
            target(owner(assignableTo(sftp + "wire.SftpWire"))).and(target(name("sendAsIs"))))
        .check(ZANDER);
    noClasses()
        .that()
        .resideOutsideOfPackage("zander.core.files.sftp..")
        .should()
        .dependOnClassesThat(
            resideInAPackage(sftp + "wire..").and(not(assignableTo(sftp + "wire.FolderGuard"))))
        .check(ZANDER);
  }
}
