package polymetron.server.store;

import java.nio.file.Path;
import org.flywaydb.core.Flyway;
import org.jooq.codegen.GenerationTool;
import org.jooq.meta.jaxb.Configuration;
import org.jooq.meta.jaxb.Database;
import org.jooq.meta.jaxb.Generate;
import org.jooq.meta.jaxb.Generator;
import org.jooq.meta.jaxb.Jdbc;
import org.jooq.meta.jaxb.Target;
import polymetron.server.TestDatabase;

/** Generates the table classes from a freshly migrated database. */
public final class GenerateTables {
    private GenerateTables() {}

    /**
     * @param arguments folder of sources to write to, such as {@code src/main/java}
     */
    public static void main(String[] arguments) throws Exception {
        try (TestDatabase database = TestDatabase.start()) {
            Flyway.configure().dataSource(database.url(), "polymetron", "").load().migrate();
            into(database, Path.of(arguments[0]));
        }
    }

    static void into(TestDatabase database, Path sources) throws Exception {
        GenerationTool.generate(
                new Configuration()
                        .withJdbc(
                                new Jdbc()
                                        .withUrl(database.url())
                                        .withUser("polymetron")
                                        .withPassword(""))
                        .withGenerator(
                                new Generator()
                                        .withDatabase(
                                                new Database()
                                                        .withInputSchema("public")
                                                        .withExcludes("flyway_.*")
                                                        .withOutputSchemaToDefault(true))
                                        .withGenerate(
                                                new Generate()
                                                        .withRecords(false)
                                                        .withGeneratedAnnotation(false)
                                                        .withComments(false))
                                        .withTarget(
                                                new Target()
                                                        .withPackageName(
                                                                "polymetron.server.store.generated")
                                                        .withDirectory(sources.toString()))));
    }
}
