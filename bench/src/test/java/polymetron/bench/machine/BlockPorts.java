package polymetron.bench.machine;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.library.Kind;
import polymetron.outside.Tool;
import tools.jackson.databind.SerializationFeature;
import tools.jackson.databind.json.JsonMapper;

/**
 * What a block drives at its ports in each cycle of a simulated program: lines, streams, requests, interrupts, values of registers.
 * A number is made of it, which is written down every 512 cycles. The last one is recorded, so that hardware that does anything
 * else is noticed; -Dpolymetron.evidence=write records it again.
 */
final class BlockPorts {
    private static final Path RECORDED = Path.of("src/test/resources/polymetron/ports.json");
    private static final Pattern OUTPUT =
            Pattern.compile("output +(?:wire|reg) +(?:\\[.*?\\] +)?(\\w+)");
    private static final JsonMapper JSON =
            JsonMapper.builder().enable(SerializationFeature.INDENT_OUTPUT).build();

    private static final Set<String> RECORDED_NOW = new HashSet<>();

    private BlockPorts() {}

    /** Writes down in simulation what a block drives, where it has one clock and is no processor. */
    static void watch(Path folder, ElaboratedBlock block) throws IOException {
        List<String> values = values(folder, block);
        if (values.isEmpty()) {
            return;
        }
        Path bench = folder.resolve("sim/testbench.v");
        String text = Files.readString(bench);
        int end = text.lastIndexOf("endmodule");
        StringBuilder all = new StringBuilder();
        values.forEach(
                each ->
                        all.append(
                                "        sum_@ = {sum_@[56:0], sum_@[63:57]} ^ (VALUE);\n"
                                        .replace("VALUE", each)));
        String monitor =
                """
                integer ports_@;
                integer cycle_@ = 0;
                reg [63:0] sum_@ = 64'd0;
                integer watched_@;
                initial begin
                    watched_@ = $fopen("watch_@", "r");
                    if (watched_@ != 0) ports_@ = $fopen("ports_@.txt", "w");
                end
                always @(posedge board.I.clk) if (watched_@ != 0) begin
                    #1;
                    if (board.I.rst === 1'b0) begin
                ALL    end
                    cycle_@ = cycle_@ + 1;
                    if (cycle_@ % 512 == 0) $fdisplay(ports_@, "%h", sum_@);
                end
                """
                        .replace("ALL", all)
                        .replace("_@", "_" + block.name())
                        .replace("board.I.", "board." + instance(folder, block.name()) + ".");
        Files.writeString(bench, text.substring(0, end) + monitor + text.substring(end));
    }

    /** Only this block is watched from the next simulation on, since that takes time. */
    static void only(Path folder, String block) {
        forget(folder);
        Tool.write(folder, "sim/watch_" + block, new byte[0]);
    }

    /** No block is watched. */
    static void forget(Path folder) {
        try (Stream<Path> files = Files.list(folder.resolve("sim"))) {
            for (Path file : files.toList()) {
                String name = file.getFileName().toString();
                if (name.startsWith("watch_") || name.startsWith("ports_")) {
                    Files.delete(file);
                }
            }
        } catch (IOException failure) {
            throw new UncheckedIOException(failure);
        }
    }

    /** Two underscores follow a name that is a word of Verilog or VHDL. */
    static String instance(Path folder, String block) throws IOException {
        List<String> files = Files.readAllLines(folder.resolve("hdl/files.f"));
        String top = files.getLast().replaceFirst("\\.v$", "");
        String renamed = "\n    %s_%s %s__ (".formatted(top, block, block);
        try (Stream<Path> all = Files.list(folder.resolve("hdl"))) {
            for (Path file : all.toList()) {
                if (Files.readString(file).contains(renamed)) {
                    return block + "__";
                }
            }
        }
        return block;
    }

    private static List<String> values(Path folder, ElaboratedBlock block) throws IOException {
        List<String> values = new ArrayList<>();
        if (block.type().hardware() == null
                || block.type().kind() == Kind.PROCESSOR
                || block.type().clocks().size() != 1
                || block.type().resets().size() != 1) {
            return values;
        }
        Path file = folder.resolve("hdl/" + block.type().hardware().module() + ".v");
        List<String> outputs = new ArrayList<>();
        Matcher output = OUTPUT.matcher(Files.readString(file));
        while (output.find()) {
            outputs.add(output.group(1));
        }
        String inside = "board.%s.behaviour.".formatted(instance(folder, block.name()));
        for (String each : outputs) {
            List<String> conditions =
                    meaning(each, outputs).stream().map(valid -> "|" + inside + valid).toList();
            values.add(
                    conditions.isEmpty()
                            ? inside + each
                            : "%s ? %s%s : 0"
                                    .formatted(String.join(" && ", conditions), inside, each));
        }
        return values;
    }

    /**
     * The outputs that say whether another one has a meaning: what goes with a request, or with a write, or with a word, or is
     * driven.
     */
    private static List<String> meaning(String output, List<String> outputs) {
        int last = output.lastIndexOf('_');
        if (last < 0) {
            return List.of();
        }
        String stem = output.substring(0, last);
        boolean isWritten = output.endsWith("_value") || output.endsWith("_bytes");
        return Stream.of("_tvalid", "_request", "_drive", "_load", "_set", "_write")
                .filter(each -> isWritten || !each.equals("_write"))
                .map(each -> stem + each)
                .filter(each -> outputs.contains(each) && !each.equals(output))
                .toList();
    }

    /** The numbers that were written down, as one; empty where nothing is. */
    static String said(Path folder, String block) {
        Path file = folder.resolve("sim/ports_" + block + ".txt");
        try {
            if (!Files.exists(file)) {
                return "";
            }
            List<String> sums = Files.readAllLines(file);
            return sums.isEmpty() ? "none" : "%d: %s".formatted(sums.size(), sums.getLast());
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
        // One simulator records, the other one is compared with that.
        if ("write".equals(System.getProperty("polymetron.evidence"))
                && !said.equals(recorded.get(key))
                && RECORDED_NOW.add(key)) {
            recorded.put(key, said);
            Files.writeString(RECORDED, JSON.writeValueAsString(recorded) + "\n");
        }
        assertThat(said).as("ports of %s", key).isEqualTo(recorded.get(key));
    }

    @SuppressWarnings("unchecked")
    private static SortedMap<String, String> recorded() throws IOException {
        return Files.exists(RECORDED)
                ? JSON.readValue(Files.readString(RECORDED), TreeMap.class)
                : new TreeMap<>();
    }
}
