package polymetron.json;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import polymetron.Shipped;
import polymetron.board.BoardDocument;
import polymetron.elaborate.BlockShape;
import polymetron.library.BlockType;
import polymetron.library.BlockTypeDocument;
import polymetron.library.Recipe;
import polymetron.output.Fingerprint;
import polymetron.platform.Platform;
import polymetron.platform.PlatformDocument;
import tools.jackson.databind.JsonNode;

/**
 * Documents as they were written in each version, kept as they are: whoever has such a file can still use it, and it means the
 * same. A sample is never changed; a new version of a format gets samples of its own.
 */
final class DocumentSamplesTest {
    private static final Path SAMPLES = Path.of("src/test/resources/samples");

    private static Map<String, String> samples(String version) throws IOException {
        Map<String, String> texts = new TreeMap<>();
        try (Stream<Path> files = Files.list(SAMPLES.resolve(version))) {
            for (Path file : files.toList()) {
                texts.put(file.getFileName().toString(), Files.readString(file));
            }
        }
        assertThat(texts).isNotEmpty();
        return texts;
    }

    /** What software sees of them is as it was when they were written. */
    @Test
    void platformsMeanWhatTheyMeant() throws IOException {
        Map<String, String> found = new TreeMap<>();
        samples("platform-1")
                .forEach(
                        (name, text) -> {
                            Platform platform = PlatformDocument.read(name, text);
                            assertThat(platform.format()).isEqualTo(Platform.FORMAT);
                            assertThat(PlatformDocument.write(platform)).as(name).isEqualTo(text);
                            found.put(name, Fingerprint.of(Shipped.elaborate(platform)));
                        });
        Map<String, String> kept = new TreeMap<>();
        for (String line : Files.readAllLines(SAMPLES.resolve("platform-1.fingerprints"))) {
            kept.put(line.split(" ")[1], line.split(" ")[0]);
        }
        assertThat(found).isEqualTo(kept);
    }

    /** The samples have each key that a document of their version can have. */
    @Test
    void samplesUseEveryKey() throws IOException {
        TreeSet<String> used = new TreeSet<>();
        for (String text : samples("platform-1").values()) {
            keys(Documents.tree("sample", text), used);
        }
        TreeSet<String> known = new TreeSet<>();
        properties(Documents.tree("schema", PlatformDocument.schemaText()), known);
        assertThat(known).hasSizeGreaterThan(30);
        assertThat(used).containsAll(known);
    }

    private static void keys(JsonNode node, TreeSet<String> found) {
        if (node.isObject()) {
            found.addAll(node.propertyNames());
        }
        node.forEach(each -> keys(each, found));
    }

    private static void properties(JsonNode schema, TreeSet<String> found) {
        if (schema.path("properties").isObject()) {
            found.addAll(schema.path("properties").propertyNames());
        }
        schema.forEach(each -> properties(each, found));
    }

    @Test
    void definitionsBoardsAndRecipesAreRead() throws IOException {
        for (var sample : samples("block-type-2").entrySet()) {
            BlockType type = BlockTypeDocument.read(sample.getKey(), sample.getValue());
            BlockType now = Shipped.LIBRARY.type(type.identity()).orElseThrow();
            assertThat(map(type)).as(sample.getKey()).isEqualTo(map(now));
        }
        samples("board-1")
                .forEach(
                        (name, text) ->
                                assertThat(BoardDocument.read(name, text).parts()).isNotEmpty());
        samples("recipe-1")
                .forEach((name, text) -> assertThat(Recipe.read(name, text).blocks()).isNotEmpty());
    }

    private static List<String> map(BlockType type) {
        return new BlockShape(type, Map.of())
                .registers().stream()
                        .map(
                                register ->
                                        "%s %x %s %s"
                                                .formatted(
                                                        register.name(),
                                                        register.offset(),
                                                        register.access(),
                                                        register.fields().stream()
                                                                .map(
                                                                        field ->
                                                                                field.name()
                                                                                        + field
                                                                                                .bitRange())
                                                                .toList()))
                        .toList();
    }

    // --- versions in general, with a kind of document that has three

    /** A document of the third version. */
    private record Note(String format, String text, int size) {}

    private static final DocumentFormat<Note> NOTES =
            new DocumentFormat<>(
                    "example-note/3",
                    null,
                    Note.class,
                    new DocumentFormat.Earlier(
                            "example-note/1",
                            anything(),
                            (text, note) -> {
                                if (!note.has("words")) {
                                    throw text.wrong("/words", "a note needs words");
                                }
                                note.set("text", note.remove("words"));
                            }),
                    new DocumentFormat.Earlier(
                            "example-note/2", anything(), (text, note) -> note.put("size", 12)));

    private static SchemaFile anything() {
        return new SchemaFile(DocumentSamplesTest.class, "anything.schema.json");
    }

    @Test
    void olderVersionsAreTakenOverStepByStep() {
        Note now = new Note("example-note/3", "hello", 12);
        assertThat(NOTES.read("a", "{\"format\": \"example-note/1\", \"words\": \"hello\"}"))
                .isEqualTo(now);
        assertThat(NOTES.read("a", "{\"text\": \"hello\", \"format\": \"example-note/2\"}"))
                .isEqualTo(now);
        assertThat(NOTES.read("a", Documents.write(now))).isEqualTo(now);
    }

    @Test
    void whatCannotBeReadSaysWhatCan() {
        assertThatThrownBy(() -> NOTES.read("a.json", "{\n\"format\": \"example-note/4\"}"))
                .isInstanceOf(DocumentException.class)
                .hasMessageContainingAll("a.json, line 2", "newer", "example-note/3");
        assertThatThrownBy(() -> NOTES.read("a.json", "{\"format\": \"example-tune/2\"}"))
                .hasMessageContainingAll("example-tune/2", "example-note/1, example-note/2");
        assertThatThrownBy(() -> NOTES.read("a.json", "{\n\n\"format\": \"example-note/1\"}"))
                .hasMessageContainingAll("a.json", "/words", "a note needs words");
        assertThatThrownBy(
                        () ->
                                PlatformDocument.read(
                                        "p.json",
                                        Shipped.demoText()
                                                .replace(Platform.FORMAT, "polymetron-platform/2")))
                .hasMessageContainingAll("p.json, line 2, at /format", "newer", Platform.FORMAT);
    }
}
