package polymetron.server.api;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Stream;
import org.jooq.codegen.GenerationTool;
import org.jooq.meta.jaxb.Configuration;
import org.jooq.meta.jaxb.Database;
import org.jooq.meta.jaxb.Generate;
import org.jooq.meta.jaxb.Generator;
import org.jooq.meta.jaxb.Jdbc;
import org.jooq.meta.jaxb.Target;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.io.TempDir;
import polymetron.server.OneServer;
import polymetron.server.RunningServer;
import tools.jackson.databind.SerializationFeature;
import tools.jackson.databind.json.JsonMapper;

/**
 * Generated files are current. With {@code -Dpolymetron.generate=true} they are made again instead, which is what
 * {@code ./polymetron generate} does.
 */
@ExtendWith(OneServer.class)
final class GeneratedFilesTest {
    private static final boolean WRITE = Boolean.getBoolean("polymetron.generate");
    private static final Path DESCRIPTION = Path.of("src/main/openapi/openapi.json");
    private static final Path SOURCES = Path.of("src/main/java");
    private static final String TABLES = "polymetron.server.store.generated";

    @Test
    void apiDescription(RunningServer server) throws IOException {
        JsonMapper mapper =
                JsonMapper.builder()
                        .enable(SerializationFeature.INDENT_OUTPUT)
                        .enable(SerializationFeature.ORDER_MAP_ENTRIES_BY_KEYS)
                        .build();
        Object described = mapper.readValue(server.get("/api/openapi").bytes(), Object.class);
        String text = mapper.writeValueAsString(described).replace("\r", "") + "\n";
        if (WRITE) {
            Files.writeString(DESCRIPTION, text);
        }
        assertThat(Files.readString(DESCRIPTION))
                .as("run ./polymetron generate when the API has changed")
                .isEqualTo(text);
    }

    @Test
    void tableClasses(RunningServer server, @TempDir Path fresh) throws Exception {
        Path target = WRITE ? SOURCES : fresh;
        generateTables(server, target);
        assertThat(files(SOURCES.resolve(TABLES.replace('.', '/'))))
                .as("run ./polymetron generate when the tables have changed")
                .isEqualTo(files(target.resolve(TABLES.replace('.', '/'))));
    }

    private static Map<String, String> files(Path folder) throws IOException {
        Map<String, String> contents = new TreeMap<>();
        try (Stream<Path> all = Files.walk(folder)) {
            for (Path file : all.filter(Files::isRegularFile).toList()) {
                contents.put(folder.relativize(file).toString(), Files.readString(file));
            }
        }
        return contents;
    }

    private static void generateTables(RunningServer server, Path sources) throws Exception {
        GenerationTool.generate(
                new Configuration()
                        .withJdbc(
                                new Jdbc()
                                        .withUrl(server.database().url())
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
                                                        .withPackageName(TABLES)
                                                        .withDirectory(sources.toString()))));
    }
}
