package polymetron.json;

import com.fasterxml.jackson.annotation.JsonInclude;
import java.util.Arrays;
import java.util.stream.Collectors;
import polymetron.expression.ExpressionException;
import tools.jackson.core.JacksonException;
import tools.jackson.core.JsonParser;
import tools.jackson.core.JsonToken;
import tools.jackson.core.StreamReadFeature;
import tools.jackson.core.exc.StreamConstraintsException;
import tools.jackson.core.util.DefaultIndenter;
import tools.jackson.core.util.DefaultPrettyPrinter;
import tools.jackson.databind.DatabindException;
import tools.jackson.databind.DeserializationFeature;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.MapperFeature;
import tools.jackson.databind.exc.InvalidFormatException;
import tools.jackson.databind.exc.UnrecognizedPropertyException;
import tools.jackson.databind.json.JsonMapper;

/**
 * The JSON documents of the product: strict when read (no unknown keys, no duplicates), and always the same bytes
 * when written (keys in the order of the records, two spaces, line feeds).
 */
public final class Documents {
    static final JsonMapper MAPPER = mapper();

    private Documents() {}

    /** The mapper behind all documents, for layers that carry them. */
    public static JsonMapper mapper() {
        return JsonMapper.builder()
                .enable(DeserializationFeature.FAIL_ON_UNKNOWN_PROPERTIES)
                .enable(DeserializationFeature.FAIL_ON_NULL_FOR_PRIMITIVES)
                .enable(DeserializationFeature.FAIL_ON_TRAILING_TOKENS)
                .enable(StreamReadFeature.STRICT_DUPLICATE_DETECTION)
                .disable(StreamReadFeature.INCLUDE_SOURCE_IN_LOCATION)
                .disable(MapperFeature.SORT_PROPERTIES_ALPHABETICALLY)
                .disable(MapperFeature.ALLOW_COERCION_OF_SCALARS)
                .changeDefaultPropertyInclusion(
                        all -> all.withValueInclusion(JsonInclude.Include.NON_EMPTY))
                .build();
    }

    /**
     * @param name what the text is called in messages, such as its file name
     * @throws DocumentException when the text is no JSON
     */
    public static JsonNode tree(String name, String text) {
        try {
            return MAPPER.readTree(withoutMark(text));
        } catch (JacksonException wrong) {
            throw explain(name, wrong);
        }
    }

    /** What the key {@code format} of a document says; null when it is not there, or no text, or this is no JSON. */
    static String formatOf(String text) {
        try (JsonParser parser = MAPPER.createParser(withoutMark(text))) {
            if (parser.nextToken() != JsonToken.START_OBJECT) {
                return null;
            }
            while (parser.nextToken() == JsonToken.PROPERTY_NAME) {
                boolean isFormat = parser.currentName().equals("format");
                JsonToken value = parser.nextToken();
                if (isFormat) {
                    return value == JsonToken.VALUE_STRING ? parser.getString() : null;
                }
                parser.skipChildren();
            }
            return null;
        } catch (JacksonException notJson) {
            return null;
        }
    }

    /**
     * Reads a document.
     *
     * @throws DocumentException when it is no JSON or not of that form; the message names line and key
     */
    public static <T> T read(String name, String text, Class<T> form) {
        try {
            T document = MAPPER.readValue(withoutMark(text), form);
            if (document == null) {
                throw new DocumentException(name + " is empty", "");
            }
            return document;
        } catch (JacksonException wrong) {
            throw explain(name, wrong);
        }
    }

    /** Some editors put a byte order mark before the text; it says nothing here. */
    static String withoutMark(String text) {
        return text.startsWith("\uFEFF") ? text.substring(1) : text;
    }

    /** The document's bytes as text, ended by a line feed. */
    public static String write(Object document) {
        DefaultIndenter indenter = new DefaultIndenter("  ", "\n");
        DefaultPrettyPrinter printer =
                new DefaultPrettyPrinter().withObjectIndenter(indenter).withArrayIndenter(indenter);
        return MAPPER.writer().with(printer).writeValueAsString(document) + "\n";
    }

    /** The line on which the value at a JSON pointer begins, or 1 when there is none. */
    public static int lineOf(String text, String pointer) {
        return Lines.byPointer(text).getOrDefault(pointer, 1);
    }

    private static DocumentException explain(String name, JacksonException wrong) {
        String path = wrong instanceof DatabindException bind ? path(bind) : "";
        String place =
                wrong.getLocation() == null ? "" : ", line " + wrong.getLocation().getLineNr();
        String key = path.isEmpty() ? "" : ", at " + path;
        return new DocumentException(name + place + key + ": " + reason(wrong), path);
    }

    private static String reason(JacksonException wrong) {
        if (wrong instanceof UnrecognizedPropertyException unknown) {
            String known =
                    unknown.getKnownPropertyIds() == null
                            ? ""
                            : unknown.getKnownPropertyIds().stream()
                                    .map(Object::toString)
                                    .sorted()
                                    .collect(Collectors.joining(", "));
            return "there is no key '%s' here; known keys are %s"
                    .formatted(unknown.getPropertyName(), known);
        }
        if (wrong instanceof InvalidFormatException format && format.getTargetType() != null) {
            if (format.getTargetType().isEnum()) {
                return "'%s' is not one of %s"
                        .formatted(
                                format.getValue(),
                                Arrays.toString(format.getTargetType().getEnumConstants()));
            }
        }
        Throwable cause = wrong.getCause();
        if (cause instanceof IllegalArgumentException || cause instanceof ExpressionException) {
            return cause.getMessage();
        }
        if (wrong instanceof StreamConstraintsException) {
            return "it is nested more than 500 levels deep, or has a longer number or text than any"
                    + " platform needs";
        }
        // What the parser could be told to accept is no help to the reader.
        return wrong.getOriginalMessage().replaceFirst(": enable `.*", "");
    }

    private static String path(DatabindException wrong) {
        StringBuilder path = new StringBuilder();
        for (JacksonException.Reference step : wrong.getPath()) {
            path.append('/')
                    .append(
                            step.getPropertyName() == null
                                    ? step.getIndex()
                                    : step.getPropertyName());
        }
        return path.toString();
    }
}
