package polymetron.hdl;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import polymetron.expression.Value;
import polymetron.json.Documents;
import polymetron.outside.Tool;
import polymetron.verilog.Module;
import tools.jackson.databind.JsonNode;

/**
 * Headers of modules that others have written, as Debian's packages of a synthesiser and of simulators bring them, and of the
 * library: what is read here is what Yosys reads, with three sets of parameters.
 */
final class HeadersOutsideTest {
    private static final Path SHARED = Path.of("/usr/share");

    /** Folders of general examples and models; none of any maker of devices. */
    private static final List<String> FOLDERS =
            List.of("yosys", "doc/iverilog/examples", "verilator/examples");

    @TempDir private Path folder;

    private int compared;
    private final List<String> different = new ArrayList<>();

    private static List<Path> sources() throws IOException {
        List<Path> found = new ArrayList<>();
        for (String each : FOLDERS) {
            Path root = SHARED.resolve(each);
            if (Files.isDirectory(root)) {
                try (Stream<Path> files = Files.walk(root, each.startsWith("verilator") ? 2 : 1)) {
                    files.filter(file -> file.toString().matches(".*\\.s?v"))
                            .sorted()
                            .forEach(found::add);
                }
            }
        }
        try (Stream<Path> files =
                Files.walk(Path.of("../library/src/main/resources/polymetron/library"))) {
            // Stand-ins for parts are models with times, which no synthesiser reads.
            files.filter(file -> file.toString().endsWith(".v"))
                    .filter(file -> !file.toString().contains("/parts/"))
                    .sorted()
                    .forEach(found::add);
        }
        return found;
    }

    @Test
    void modulesOfOthersAreReadAsYosysReadsThem() throws IOException {
        int modules = 0;
        for (Path source : sources()) {
            SortedMap<String, String> files = new TreeMap<>();
            files.put(source.getFileName().toString(), Files.readString(source));
            HdlReading reading = VerilogReader.read(files);
            for (HdlModule module : reading.modules()) {
                modules++;
                for (Map<String, Long> parameters : settings(module)) {
                    compare(source, module, parameters);
                }
            }
        }
        assertThat(different).isEmpty();
        assertThat(modules).isGreaterThanOrEqualTo(60);
        assertThat(compared).as("ports that were compared").isGreaterThanOrEqualTo(1000);
    }

    /** Defaults, and twice other values of those that are whole numbers. */
    private static List<Map<String, Long>> settings(HdlModule module) {
        List<Map<String, Long>> settings = new ArrayList<>(List.of(Map.of()));
        for (int more : new int[] {1, 5}) {
            Map<String, Long> setting = new TreeMap<>();
            for (HdlParameter parameter : module.parameters()) {
                module.initial(parameter)
                        .filter(value -> !parameter.isLocal() && value instanceof Value.Bits)
                        .map(value -> value.asNumber().longValue())
                        .filter(value -> value >= 0 && value < 1 << 12)
                        .ifPresent(value -> setting.put(parameter.name(), value + more));
            }
            if (!setting.isEmpty()) {
                settings.add(setting);
            }
        }
        return settings;
    }

    private void compare(Path source, HdlModule module, Map<String, Long> parameters) {
        StringBuilder chosen = new StringBuilder();
        parameters.forEach(
                (name, value) ->
                        chosen.append(" -chparam ").append(name).append(' ').append(value));
        String script =
                "read_verilog -sv -defer %s; hierarchy -top %s%s; write_json out.json"
                        .formatted(source.toAbsolutePath(), escaped(module.name()), chosen);
        Tool.Outcome result = Tool.tryRun(folder, "yosys", "-q", "-p", script);
        if (result.status() != 0) {
            return;
        }
        JsonNode found;
        try {
            found =
                    Documents.tree("yosys", Files.readString(folder.resolve("out.json")))
                            .path("modules");
        } catch (IOException failure) {
            throw new java.io.UncheckedIOException(failure);
        }
        JsonNode top = null;
        for (JsonNode each : found) {
            if (each.path("attributes").path("top").asString("").endsWith("1")) {
                top = each.path("ports");
            }
        }
        Map<String, String> expected = new TreeMap<>();
        top.forEachEntry(
                (name, port) ->
                        expected.put(
                                name,
                                port.path("direction").asString()
                                        + " "
                                        + port.path("bits").size()));
        Map<String, Value> values = new TreeMap<>();
        parameters.forEach(
                (name, value) ->
                        values.put(
                                name,
                                Value.Bits.of(java.math.BigInteger.valueOf(value), 32, true)));
        Map<String, String> read = new TreeMap<>();
        for (HdlPort port : module.ports()) {
            String way =
                    port.way() == Module.Way.INPUT
                            ? "input"
                            : port.way() == Module.Way.OUTPUT ? "output" : "inout";
            int bits;
            try {
                bits = module.bits(port, values);
            } catch (IllegalArgumentException nothing) {
                // [0-1:0] is two bits to a simulator; who writes it means none.
                assertThat(nothing).hasMessageContaining("is 0 bits");
                return;
            }
            compared++;
            read.put(port.name(), way + " " + bits);
        }
        if (!read.equals(expected)) {
            different.add(
                    source
                            + " "
                            + module.name()
                            + parameters
                            + ": "
                            + read
                            + " instead of "
                            + expected);
        }
    }

    private static String escaped(String name) {
        return name.matches("\\w+") ? name : "\\" + name;
    }
}
