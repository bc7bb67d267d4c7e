package polymetron.platform;

import com.networknt.schema.Error;
import com.networknt.schema.Schema;
import com.networknt.schema.SchemaRegistry;
import com.networknt.schema.SpecificationVersion;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import polymetron.json.DocumentException;
import polymetron.json.Documents;
import tools.jackson.databind.JsonNode;

/** Reads and writes platform documents, checking them against the published schema. */
public final class PlatformDocument {
    /** Longest document that is read, in characters. */
    public static final int LONGEST = 16 * 1024 * 1024;

    private static final Schema SCHEMA =
            SchemaRegistry.withDefaultDialect(SpecificationVersion.DRAFT_2020_12)
                    .getSchema(schemaText());

    private PlatformDocument() {}

    /** The JSON Schema of platform documents. */
    public static String schemaText() {
        try (InputStream in = PlatformDocument.class.getResourceAsStream("platform.schema.json")) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        } catch (IOException failure) {
            throw new UncheckedIOException(failure);
        }
    }

    /** The canonical text of a platform: the same platform always gives the same bytes. */
    public static String write(Platform platform) {
        return Documents.write(platform);
    }

    /**
     * @param name what the document is called in messages, such as its file name
     * @throws DocumentException when it is no platform document; the message names line and key
     */
    public static Platform read(String name, String text) {
        if (text.length() > LONGEST) {
            throw new DocumentException("%s is longer than 16 MiB".formatted(name), "");
        }
        JsonNode tree = Documents.tree(name, text);
        List<Error> errors =
                SCHEMA.validate(tree).stream()
                        .sorted(
                                Comparator.comparing(
                                        error -> error.getInstanceLocation().toString()))
                        .toList();
        if (!errors.isEmpty()) {
            String pointer = errors.getFirst().getInstanceLocation().toString();
            throw new DocumentException(
                    "%s, line %s, at %s: %s"
                            .formatted(
                                    name,
                                    Documents.lineOf(text, pointer),
                                    pointer.isEmpty() ? "the top" : pointer,
                                    errors.getFirst().getMessage()),
                    pointer);
        }
        Platform platform = Documents.read(name, text, Platform.class);
        unique(name, platform.blocks().stream().map(Block::name).toList(), "blocks");
        unique(name, platform.buses().stream().map(Bus::name).toList(), "buses");
        unique(name, platform.domains().stream().map(ClockDomain::name).toList(), "domains");
        return platform;
    }

    private static void unique(String document, List<String> names, String what) {
        Set<String> seen = new HashSet<>();
        for (int at = 0; at < names.size(); at++) {
            if (!seen.add(names.get(at))) {
                String pointer = "/%s/%s/name".formatted(what, at);
                throw new DocumentException(
                        "%s, at %s: there are two %s named %s; each needs its own name"
                                .formatted(document, pointer, what, names.get(at)),
                        pointer);
            }
        }
    }
}
