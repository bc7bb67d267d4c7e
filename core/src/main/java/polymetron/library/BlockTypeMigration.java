package polymetron.library;

import java.util.regex.Matcher;
import java.util.regex.Pattern;
import polymetron.json.DocumentText;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.JsonNodeFactory;
import tools.jackson.databind.node.ObjectNode;

/**
 * Definitions of format 1 as those of format 2. In format 1 access stood with the register, and what reading does and when a
 * register is the one at its address were words; in format 2 every field says what software and hardware do with it.
 */
final class BlockTypeMigration {
    private static final Pattern CONDITION =
            Pattern.compile("(\\w+\\.\\w+) is (\\d+)(, (?:read|written))?");

    private final DocumentText text;

    private BlockTypeMigration(DocumentText text) {
        this.text = text;
    }

    /**
     * @param definition of format 1, as its schema wants it; it is changed
     * @throws polymetron.json.DocumentException where something is missing that format 2 needs; the message names line and
     *     key
     */
    static void migrate(DocumentText text, ObjectNode definition) {
        BlockTypeMigration migration = new BlockTypeMigration(text);
        int at = 0;
        for (JsonNode register : definition.path("registers")) {
            migration.register((ObjectNode) register, "/registers/" + at++);
        }
    }

    private void register(ObjectNode register, String place) {
        String access = register.path("access").asString();
        JsonNode reset = register.path("reset");
        boolean takes = register.has("readEffect");
        if (takes) {
            register.put(
                    "explains",
                    "%s Reading %s."
                            .formatted(
                                    register.path("explains").asString(),
                                    register.path("readEffect").asString()));
        }
        select(register, place);
        ArrayNode fields =
                register.path("fields") instanceof ArrayNode own && !own.isEmpty()
                        ? own
                        : whole(register);
        for (JsonNode field : fields) {
            field((ObjectNode) field, access, reset, takes, fields.size() == 1);
        }
        register.set("fields", fields);
        register.remove("access");
        register.remove("reset");
        register.remove("readEffect");
        register.remove("condition");
    }

    private void select(ObjectNode register, String place) {
        String condition = register.path("condition").asString("");
        Matcher words = CONDITION.matcher(condition);
        if (words.matches()) {
            register.put("selectedBy", "%s == %s".formatted(words.group(1), words.group(2)));
        } else if (!condition.isEmpty() && !condition.matches("read|written")) {
            throw text.wrong(
                    place + "/condition",
                    "write when the register is the one at its address as an expression,"
                            + " \"selectedBy\": \"REGISTER.FIELD == 0\"");
        }
    }

    /** A register without fields is one. */
    private static ArrayNode whole(ObjectNode register) {
        ArrayNode fields = JsonNodeFactory.instance.arrayNode();
        fields.addObject()
                .put("name", "VALUE")
                .put("lowBit", 0)
                .put("width", register.path("width").asInt(32))
                .put("explains", register.path("explains").asString());
        return fields;
    }

    private static void field(
            ObjectNode field,
            String registerAccess,
            JsonNode reset,
            boolean takes,
            boolean isOnly) {
        String access = field.path("access").asString(registerAccess);
        field.remove("access");
        switch (access) {
            case "read-only" -> field.put("software", "read-only").put("hardware", "value");
            case "write-only" -> field.put("software", "write-only").put("onWrite", "hand-over");
            case "write-one-to-clear" ->
                    field.put("software", "read-write")
                            .put("onWrite", "clear-ones")
                            .put("hardware", "set");
            default -> field.put("software", "read-write");
        }
        if (takes && !access.equals("write-only")) {
            field.put("onRead", "take");
        }
        if (!reset.isMissingNode()) {
            // The part of the register's value that is the field's.
            String low = field.path("lowBit").asString();
            field.put(
                    "reset",
                    isOnly && low.equals("0")
                            ? reset.asString()
                            : "((%s) >> (%s)) %% (64'd1 << (%s))"
                                    .formatted(
                                            reset.asString(),
                                            low,
                                            field.path("width").asString("1")));
        }
    }
}
