package polymetron.merge;

import java.util.Set;
import java.util.TreeSet;
import polymetron.edit.Edit;
import polymetron.json.Documents;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** What an edit names: whoever made it has looked at these. */
final class Named {
    private static final JsonMapper MAPPER = Documents.mapper();

    private Named() {}

    /** Paths of blocks, buses and domains, as in {@link Facts}. */
    static Set<String> in(Edit edit) {
        Set<String> paths = new TreeSet<>();
        collect(MAPPER.valueToTree(edit), paths);
        return paths;
    }

    private static void collect(JsonNode node, Set<String> paths) {
        node.properties()
                .forEach(
                        each -> {
                            JsonNode value = each.getValue();
                            switch (each.getKey()) {
                                case "block", "sinkBlock" -> add("/blocks/", value, paths);
                                case "blocks" ->
                                        value.forEach(name -> add("/blocks/", name, paths));
                                case "bus" -> add("/buses/", value, paths);
                                case "domain" -> add("/domains/", value, paths);
                                case "subject" ->
                                        add(
                                                "/blocks/",
                                                value.asString().replaceFirst("\\..*", ""),
                                                paths);
                                case "edits" -> value.forEach(part -> collect(part, paths));
                                default -> {
                                    // A value, not something that is there already.
                                }
                            }
                        });
    }

    private static void add(String kind, JsonNode value, Set<String> paths) {
        add(kind, value.isObject() ? value.path("name").asString() : value.asString(), paths);
    }

    private static void add(String kind, String name, Set<String> paths) {
        paths.add(kind + name);
    }
}
