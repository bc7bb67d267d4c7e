package polymetron.server;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;

import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import org.junit.jupiter.api.Test;

/** What the bench and the server may use. */
final class ServerRulesTest {
    private static final JavaClasses ALL =
            new ClassFileImporter()
                    .withImportOption(new ImportOption.DoNotIncludeTests())
                    .importPackages("polymetron");

    @Test
    void theCoreAndTheBenchKnowNeitherWebNorDatabase() {
        noClasses()
                .that()
                .resideOutsideOfPackage("polymetron.server..")
                .should()
                .dependOnClassesThat()
                .resideInAnyPackage(
                        "polymetron.server..", "org.springframework..", "org.jooq..", "java.sql..")
                .check(ALL);
    }

    @Test
    void onlyTheStoreSpeaksToTheDatabase() {
        noClasses()
                .that()
                .resideInAPackage("polymetron.server..")
                .and()
                .resideOutsideOfPackages(
                        "polymetron.server.store..",
                        "polymetron.server.event..",
                        "polymetron.server.problem..")
                .should()
                .dependOnClassesThat()
                .resideInAnyPackage("org.jooq..", "java.sql..")
                .check(ALL);
    }

    @Test
    void packagesDoNotGoInCircles() {
        slices().matching("polymetron.server.(*)..").should().beFreeOfCycles().check(ALL);
        slices().matching("polymetron.bench.(*)..").should().beFreeOfCycles().check(ALL);
    }
}
