package polymetron.json;

import com.networknt.schema.Error;
import com.networknt.schema.Schema;
import com.networknt.schema.SchemaRegistry;
import com.networknt.schema.SpecificationVersion;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.Comparator;
import java.util.List;
import tools.jackson.databind.JsonNode;

/** A published JSON Schema beside a class, and documents that are read by it. */
public final class SchemaFile {
    /** Longest document that is read, in characters. */
    public static final int LONGEST = 16 * 1024 * 1024;

    private final String text;
    private final Schema schema;
    private final JsonNode rules;

    /**
     * @param beside class in whose package the file is
     */
    public SchemaFile(Class<?> beside, String name) {
        try (InputStream in = beside.getResourceAsStream(name)) {
            this.text = new String(in.readAllBytes(), StandardCharsets.UTF_8);
        } catch (IOException failure) {
            throw new UncheckedIOException(failure);
        }
        this.rules = Documents.tree(name, text);
        this.schema =
                SchemaRegistry.withDefaultDialect(SpecificationVersion.DRAFT_2020_12)
                        .getSchema(text);
    }

    public String text() {
        return text;
    }

    /**
     * Reads a document of the schema.
     *
     * @param name what the document is called in messages, such as its file name
     * @throws DocumentException when it does not follow the schema; the message names line and key
     */
    public <T> T read(String name, String document, Class<T> form) {
        if (document.length() > LONGEST) {
            throw new DocumentException("%s is longer than 16 MiB".formatted(name), "");
        }
        JsonNode tree = Documents.tree(name, document);
        if (tree.isMissingNode()) {
            throw new DocumentException(name + " is empty", "");
        }
        List<Error> errors =
                schema.validate(tree).stream()
                        .sorted(
                                Comparator.comparing(
                                        error -> error.getInstanceLocation().toString()))
                        .toList();
        if (!errors.isEmpty()) {
            if ("additionalProperties".equals(errors.getFirst().getKeyword())) {
                // The reader itself says which keys there are.
                Documents.read(name, document, form);
            }
            String pointer = errors.getFirst().getInstanceLocation().toString();
            throw new DocumentException(
                    "%s, line %s, at %s: %s"
                            .formatted(
                                    name,
                                    Documents.lineOf(document, pointer),
                                    pointer.isEmpty() ? "the top" : pointer,
                                    reason(errors.getFirst())),
                    pointer);
        }
        return Documents.read(name, document, form);
    }

    /** Instead of a regular expression, what the schema says that the value is. */
    private String reason(Error error) {
        if ("pattern".equals(error.getKeyword())) {
            String place = error.getSchemaLocation().getFragment().toString();
            JsonNode rule = rules.at(place.substring(0, place.lastIndexOf('/')));
            if (rule.hasNonNull("description") && error.getInstanceNode() != null) {
                return "'%s' is not %s"
                        .formatted(
                                error.getInstanceNode().asString(),
                                rule.get("description").asString());
            }
        }
        return error.getMessage();
    }
}
