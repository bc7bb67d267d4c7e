package polymetron.ownblock;

import java.util.SortedMap;
import polymetron.library.BlockType;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/**
 * What a definition says of the files that come with it, where it says nothing: the module with the parameters that its ports need,
 * and the driver. The list of Verilog files is always that of those that are there.
 */
final class FileBindings {
    private FileBindings() {}

    /** Whether anything was changed. */
    static boolean fill(
            ObjectNode definition,
            BlockType type,
            SortedMap<String, String> hardware,
            SortedMap<String, String> drivers) {
        return hardware(definition, type, hardware) | driver(definition, drivers);
    }

    private static boolean hardware(
            ObjectNode definition, BlockType type, SortedMap<String, String> files) {
        if (files.isEmpty()) {
            return false;
        }
        JsonNode before = definition.path("hardware").deepCopy();
        if (!(definition.path("hardware") instanceof ObjectNode)) {
            ObjectNode made = definition.putObject("hardware");
            made.put("module", LogicSkeleton.moduleName(type));
            ObjectNode parameters = made.putObject("parameters");
            LogicSkeleton.parameters(type).forEach(each -> parameters.put(each, each));
        }
        ObjectNode hardware = (ObjectNode) definition.path("hardware");
        ArrayNode listed = hardware.putArray("files");
        files.keySet().forEach(listed::add);
        return !hardware.equals(before);
    }

    private static boolean driver(ObjectNode definition, SortedMap<String, String> drivers) {
        JsonNode software = definition.path("software");
        String named = software.path("driver").asString("");
        if (drivers.isEmpty() || !named.isEmpty()) {
            return false;
        }
        ObjectNode its =
                software instanceof ObjectNode known ? known : definition.putObject("software");
        its.put("driver", drivers.firstKey());
        return true;
    }
}
