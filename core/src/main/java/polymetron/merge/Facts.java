package polymetron.merge;

import java.util.HashMap;
import java.util.HashSet;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import polymetron.json.Documents;
import polymetron.platform.Platform;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * A platform as single facts, such as {@code /blocks/lamps/parameters/WIDTH = 8}. Blocks, buses and domains are known by
 * their names, not by their places in the document, so that those of two revisions can be compared.
 */
final class Facts {
    private static final JsonMapper MAPPER = Documents.mapper();

    private final Map<String, String> values = new HashMap<>();

    private Facts() {}

    static Facts of(Platform platform) {
        Facts facts = new Facts();
        facts.add("", MAPPER.valueToTree(platform));
        return facts;
    }

    private void add(String path, JsonNode node) {
        if (node.isObject()) {
            node.properties().forEach(each -> add(path + "/" + each.getKey(), each.getValue()));
        } else if (node.isArray() && !node.isEmpty() && node.get(0).isObject()) {
            for (JsonNode each : node) {
                add(path + "/" + identity(each), each);
            }
        } else {
            values.put(path, node.toString());
        }
    }

    /** What tells an element of a list from the others. */
    private static String identity(JsonNode element) {
        return element.has("name")
                ? element.path("name").asString()
                : element.path("rule").asString() + " at " + element.path("subject").asString();
    }

    /** How one fact differs; null where it is not there. */
    record Change(String before, String after) {}

    /** What has to change for these to become others, by path. */
    Map<String, Change> changesTo(Facts others) {
        Map<String, Change> changes = new HashMap<>();
        Set<String> paths = new HashSet<>(values.keySet());
        paths.addAll(others.values.keySet());
        for (String path : paths) {
            String before = values.get(path);
            String after = others.values.get(path);
            if (!Objects.equals(before, after)) {
                changes.put(path, new Change(before, after));
            }
        }
        return changes;
    }
}
