package polymetron;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.classes;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;

import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import org.junit.jupiter.api.Test;

/** What the core may use, and how its packages hang together. */
final class ModuleRulesTest {
    private static final JavaClasses CORE =
            new ClassFileImporter()
                    .withImportOption(new ImportOption.DoNotIncludeTests())
                    .importPackages("polymetron");

    @Test
    void coreUsesOnlyTheJdkAndSmallLibraries() {
        classes()
                .should()
                .onlyDependOnClassesThat()
                .resideInAnyPackage(
                        "polymetron..",
                        "java..",
                        "javax.xml..",
                        "org.w3c.dom..",
                        "org.xml.sax..",
                        "tools.jackson..",
                        "com.fasterxml.jackson.annotation..",
                        "com.networknt.schema..",
                        "org.antlr.v4.runtime..")
                .check(CORE);
        noClasses()
                .should()
                .dependOnClassesThat()
                .resideInAnyPackage("java.sql..", "java.net..", "java.awt..", "javax.swing..")
                .check(CORE);
    }

    @Test
    void packagesAreNamedForTheirSubject() {
        noClasses()
                .should()
                .resideInAnyPackage("..util..", "..utils..", "..impl..", "..dto..", "..helper..")
                .check(CORE);
    }

    @Test
    void packagesDoNotGoInCircles() {
        slices().matching("polymetron.(*)..").should().beFreeOfCycles().check(CORE);
    }

    /** Exporters must give the same bytes on every run and machine. */
    @Test
    void outputsKnowNoClockAndNoChance() {
        noClasses()
                .that()
                .resideInAnyPackage("..output..")
                .should()
                .dependOnClassesThat()
                .haveFullyQualifiedName("java.time.Instant")
                .orShould()
                .dependOnClassesThat()
                .haveFullyQualifiedName("java.util.Random")
                .orShould()
                .callMethod(System.class, "currentTimeMillis")
                .orShould()
                .callMethod(System.class, "lineSeparator")
                .check(CORE);
    }
}
