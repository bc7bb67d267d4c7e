package polymetron.bench.machine;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.SizedOutward;
import polymetron.elaborate.SizedPort;
import polymetron.library.Direction;
import tools.jackson.databind.SerializationFeature;
import tools.jackson.databind.json.JsonMapper;

/**
 * Levels of the lines and resets that a block drives, in each cycle of a simulated program. They are recorded, so that hardware that drives
 * them otherwise is noticed; -Dpolymetron.evidence=write records them again.
 */
final class BlockLines {
    private static final Path RECORDED = Path.of("src/test/resources/polymetron/lines.json");
    private static final Pattern OUTPUT =
            Pattern.compile("output +(?:wire|reg) +(?:\\[.*?\\] +)?(\\w+)");
    private static final JsonMapper JSON =
            JsonMapper.builder().enable(SerializationFeature.INDENT_OUTPUT).build();

    private BlockLines() {}

    /** Writes down in simulation what a block drives; nothing where it drives no lines. */
    static void watch(Path folder, ElaboratedBlock block) throws IOException {
        List<String> lines = lines(folder, block);
        if (lines.isEmpty()) {
            return;
        }
        Path bench = folder.resolve("sim/testbench.v");
        String text = Files.readString(bench);
        int end = text.lastIndexOf("endmodule");
        String instance = instance(folder, block.name());
        String monitor =
                """
                integer lines_B;
                integer cycle_B = 0;
                reg [511:0] last_B = 512'd0;
                initial lines_B = $fopen("lines_B.txt", "w");
                always @(posedge board.B.clk) begin
                    cycle_B = cycle_B + 1;
                    if (board.B.rst === 1'b0 && {ALL} !== last_B) begin
                        last_B = {ALL};
                        $fdisplay(lines_B, "%0d %h", cycle_B, {ALL});
                    end
                end
                """
                        .replace("ALL", String.join(", ", lines))
                        .replace("_B", "_" + block.name())
                        .replace("board.B.", "board." + instance + ".");
        Files.writeString(bench, text.substring(0, end) + monitor + text.substring(end));
    }

    /** Two underscores follow a name that is a word of Verilog or VHDL. */
    static String instance(Path folder, String block) throws IOException {
        try (Stream<Path> files = Files.list(folder.resolve("hdl"))) {
            String renamed = "\n    %s_%s %s__ (".formatted(top(folder), block, block);
            for (Path file : files.toList()) {
                if (Files.readString(file).contains(renamed)) {
                    return block + "__";
                }
            }
        }
        return block;
    }

    private static String top(Path folder) throws IOException {
        List<String> files = Files.readAllLines(folder.resolve("hdl/files.f"));
        return files.getLast().replaceFirst("\\.v$", "");
    }

    private static List<String> lines(Path folder, ElaboratedBlock block) throws IOException {
        List<String> lines = new ArrayList<>();
        if (block.type().hardware() == null) {
            return lines;
        }
        Path file = folder.resolve("hdl/" + block.type().hardware().module() + ".v");
        Matcher output = OUTPUT.matcher(Files.readString(file));
        while (output.find()) {
            String name = output.group(1);
            if (block.type().resetOutputs().stream().anyMatch(each -> each.name().equals(name))) {
                lines.add("board.%s.behaviour.%s".formatted(instance(folder, block.name()), name));
            }
            for (SizedOutward outward : block.shape().outward()) {
                for (SizedPort port : outward.ports()) {
                    if (port.direction() != Direction.IN && isOf(output.group(1), port.name())) {
                        lines.add(
                                "board.%s.behaviour.%s"
                                        .formatted(
                                                instance(folder, block.name()), output.group(1)));
                    }
                }
            }
        }
        return lines;
    }

    private static boolean isOf(String output, String port) {
        return List.of(port, port + "__", port + "_out", port + "_drive").contains(output);
    }

    /** What was written down: the number of changes, and a number for all of them; empty where nothing is. */
    static String said(Path folder, String block) {
        Path file = folder.resolve("sim/lines_" + block + ".txt");
        try {
            if (!Files.exists(file)) {
                return "";
            }
            List<String> changes = Files.readAllLines(file);
            return "%d changes, %08x".formatted(changes.size(), changes.hashCode());
        } catch (IOException failure) {
            throw new UncheckedIOException(failure);
        }
    }

    /** Compares with what was recorded of a program. */
    static void check(Path folder, String block, String program) throws IOException {
        String said = said(folder, block);
        if (said.isEmpty()) {
            return;
        }
        SortedMap<String, String> recorded = recorded();
        String key = block + ", " + program;
        if ("write".equals(System.getProperty("polymetron.evidence"))) {
            recorded.put(key, said);
            Files.writeString(RECORDED, JSON.writeValueAsString(recorded) + "\n");
        }
        assertThat(said).as("lines of %s", key).isEqualTo(recorded.get(key));
    }

    @SuppressWarnings("unchecked")
    private static SortedMap<String, String> recorded() throws IOException {
        return Files.exists(RECORDED)
                ? JSON.readValue(Files.readString(RECORDED), TreeMap.class)
                : new TreeMap<>();
    }
}
