package polymetron.output.handoff;

import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.regex.Pattern;
import polymetron.Shipped;
import polymetron.json.Documents;
import polymetron.library.BlockType;
import polymetron.library.BlockTypeDocument;
import polymetron.library.Library;
import polymetron.library.Vlnv;
import polymetron.platform.Platform;
import polymetron.platform.PlatformDocument;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.JsonNodeFactory;
import tools.jackson.databind.node.ObjectNode;

/**
 * The library with other names for every parameter, bus interface, interrupt, register and field of the block types that are something
 * to the rest of a platform: nothing but definitions and documents may know the old ones.
 */
public final class RenamedLibrary {
    private static final String ENDING = "zq";
    private static final Set<String> TEXTS =
            Set.of("title", "summary", "description", "explains", "macro", "identity", "format");
    private static final Pattern FIELD = Pattern.compile("\\b([A-Z]\\w*)\\.(\\w+)");

    private final Map<Vlnv, Renamed> renamed = new TreeMap<>();
    private final Library library;

    /** A definition, and which of its names are changed. */
    private record Renamed(ObjectNode definition, Set<String> parameters) {}

    public RenamedLibrary() {
        Map<Vlnv, BlockType> types = new TreeMap<>();
        Map<Vlnv, java.util.SortedMap<String, String>> drivers = new TreeMap<>();
        Shipped.LIBRARY.types().forEach(type -> types.put(type.identity(), type));
        types.keySet().forEach(type -> drivers.put(type, Shipped.LIBRARY.driverFiles(type)));
        JsonNode index = tree("index.json");
        for (JsonNode folder : index.path("blockTypes")) {
            String path = "block-types/" + folder.stringValue() + "/block-type.json";
            ObjectNode definition = (ObjectNode) tree(path);
            if (definition.path("provides").isEmpty()) {
                continue;
            }
            Renamed each = new Renamed(definition, new TreeSet<>());
            rename(each);
            BlockType type = BlockTypeDocument.read(path, definition.toString());
            types.put(type.identity(), type);
            renamed.put(type.identity(), each);
        }
        library =
                new Library(
                        types.values(),
                        Shipped.LIBRARY.boards(),
                        Shipped.LIBRARY.devices(),
                        Shipped.LIBRARY.recipes(),
                        drivers);
    }

    public Library library() {
        return library;
    }

    int renamedTypes() {
        return renamed.size();
    }

    private static JsonNode tree(String path) {
        return Documents.tree(
                path, new String(Shipped.file(path), java.nio.charset.StandardCharsets.UTF_8));
    }

    // --- definitions ---------------------------------------------------------------------------

    private static void rename(Renamed each) {
        ObjectNode definition = each.definition();
        for (JsonNode parameter : definition.path("parameters")) {
            each.parameters().add(parameter.path("name").asString());
        }
        for (String part : definition.propertyNames()) {
            definition.set(part, expressions(definition.get(part), part, each.parameters()));
        }
        for (String list : new String[] {"parameters", "busInterfaces", "interrupts"}) {
            definition.path(list).forEach(named -> end(named, "name"));
        }
        definition.path("busInterfaces").forEach(form -> end(form, "seenBy"));
        for (JsonNode register : definition.path("registers")) {
            end(register, "name");
            end(register, "target");
            fields(register, "selectedBy");
            for (JsonNode field : register.path("fields")) {
                end(field, "name");
                fields(field, "lockedBy");
                fields(field.path("interrupt"), "enable");
                end(field.path("interrupt"), "source");
            }
        }
        for (JsonNode capability : definition.path("provides")) {
            for (JsonNode role : capability) {
                for (String key :
                        new String[] {
                            "registers", "port", "fetch", "data", "writer", "inputs", "irq"
                        }) {
                    end(role, key);
                }
                for (String key :
                        new String[] {"input", "output", "drive", "rise", "fall", "edge"}) {
                    fields(role, key);
                }
                JsonNode lines = role.path("lines");
                (lines.isArray() ? lines : JsonNodeFactory.instance.arrayNode().add(lines))
                        .forEach(line -> line.propertyNames().forEach(key -> end(line, key)));
                if (role.path("contexts") instanceof ArrayNode contexts) {
                    for (int at = 0; at < contexts.size(); at++) {
                        contexts.set(
                                at,
                                JsonNodeFactory.instance.stringNode(
                                        contexts.get(at).asString() + ENDING));
                    }
                }
            }
        }
    }

    /** The same with the parameters renamed in all that is not text for people. */
    private static JsonNode expressions(JsonNode node, String key, Set<String> parameters) {
        if (node instanceof ObjectNode object) {
            for (String each : object.propertyNames()) {
                object.set(each, expressions(object.get(each), each, parameters));
            }
        } else if (node instanceof ArrayNode array) {
            for (int at = 0; at < array.size(); at++) {
                array.set(at, expressions(array.get(at), key, parameters));
            }
        } else if (node.isString() && !TEXTS.contains(key) && !key.equals("name")) {
            String text = node.stringValue();
            for (String parameter : parameters) {
                text =
                        text.replaceAll(
                                "(?<![\\w.])" + parameter + "(?![\\w.])", parameter + ENDING);
            }
            return JsonNodeFactory.instance.stringNode(text);
        }
        return node;
    }

    private static void end(JsonNode node, String key) {
        if (node instanceof ObjectNode object && object.path(key).isString()) {
            object.put(key, object.get(key).stringValue() + ENDING);
        }
    }

    private static void fields(JsonNode node, String key) {
        if (node instanceof ObjectNode object && object.path(key).isString()) {
            String text = object.get(key).stringValue();
            object.put(key, FIELD.matcher(text).replaceAll("$1" + ENDING + ".$2" + ENDING));
        }
    }

    // --- platforms -----------------------------------------------------------------------------

    public Platform platform(Platform platform) {
        ObjectNode document =
                (ObjectNode) Documents.tree("platform", PlatformDocument.write(platform));
        Map<String, Renamed> blocks = new TreeMap<>();
        for (JsonNode block : document.path("blocks")) {
            Renamed type = renamed.get(Vlnv.parse(block.path("type").asString()));
            if (type != null) {
                blocks.put(block.path("name").asString(), type);
            }
        }
        for (JsonNode block : document.path("blocks")) {
            if (blocks.containsKey(block.path("name").asString())) {
                for (String part : new String[] {"parameters", "attachments", "interrupts"}) {
                    keys(block.path(part));
                }
            }
            for (JsonNode wire : block.path("interrupts")) {
                if (blocks.containsKey(wire.path("block").asString())) {
                    end(wire, "sink");
                }
            }
        }
        return PlatformDocument.read("platform", document.toString());
    }

    private static void keys(JsonNode node) {
        if (node instanceof ObjectNode object) {
            for (String key : new TreeSet<>(object.propertyNames())) {
                object.set(key + ENDING, object.remove(key));
            }
        }
    }

    /** What was made of the renamed platform, with the old names and without what only follows their lengths. */
    public static String withOldNames(String text) {
        return text.replaceAll("(?i)" + ENDING, "")
                .replaceAll("\\b[0-9a-f]{16}\\b", "fingerprint")
                .replaceAll("(FINGERPRINT_(?:HIGH|LOW)) .*", "$1")
                .replaceAll("-{2,}", "--")
                .replaceAll("[ \\t]+", " ");
    }
}
