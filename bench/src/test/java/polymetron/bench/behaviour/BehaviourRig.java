package polymetron.bench.behaviour;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.math.BigInteger;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;
import java.util.function.UnaryOperator;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import polymetron.expression.Value;
import polymetron.hdl.HdlModule;
import polymetron.hdl.HdlPort;
import polymetron.hdl.VerilogReader;
import polymetron.outside.Tool;
import polymetron.verilog.Module;

/** A module by itself in a simulation, with the inputs of a {@link Behaviour}, and what has to come out. */
public final class BehaviourRig {
    private static final int RESET_CYCLES = 4;
    private static final int RESET_EVERY = 50_000;

    private final Path hdl;
    private final HdlModule module;
    private final Map<String, Value> parameters;
    private final Behaviour behaviour;
    private final String name;

    /** What comes out of each cycle behind the reset, by output. */
    private final List<Map<String, Long>> expected = new ArrayList<>();

    private BehaviourRig(
            Path hdl, HdlModule module, Map<String, Value> parameters, Behaviour behaviour) {
        this.hdl = hdl;
        this.module = module;
        this.parameters = parameters;
        this.behaviour = behaviour;
        name = "behaviour_" + module.name();
    }

    /**
     * Builds the simulation.
     *
     * @param hdl folder with the module and all that it needs
     * @param prefix path from the module to its registers, with a point behind it; empty where they are in the module itself
     */
    public static BehaviourRig of(
            Path hdl,
            Map<String, Long> parameters,
            Behaviour behaviour,
            String prefix,
            int cycles,
            long seed) {
        String file = behaviour.module() + ".v";
        String text = read(hdl.resolve(file));
        HdlModule module =
                VerilogReader.read(new TreeMap<>(Map.of(file, text))).modules().stream()
                        .filter(each -> each.name().equals(behaviour.module()))
                        .findFirst()
                        .orElseThrow();
        Map<String, Value> values = new LinkedHashMap<>();
        parameters.forEach(
                (each, value) ->
                        values.put(
                                each, Value.Bits.of(BigInteger.valueOf(value), Long.SIZE, true)));
        BehaviourRig rig = new BehaviourRig(hdl, module, values, behaviour);
        rig.build(text, prefix, cycles, new Random(seed));
        return rig;
    }

    /**
     * What does not come out as it has to, for a person; empty where all is well.
     *
     * @param mutant which change of the hardware is on; 0 for none
     */
    public String wrong(int mutant) {
        try {
            Process simulation =
                    new ProcessBuilder("vvp", "-n", name + ".vvp", "+MUTANT=" + mutant)
                            .directory(hdl.toFile())
                            .redirectErrorStream(true)
                            .start();
            // What is wrong is mostly so from the first cycles on: the rest need not be waited for.
            try (BufferedReader lines = simulation.inputReader()) {
                return wrong(lines);
            } finally {
                simulation.destroyForcibly();
            }
        } catch (IOException failure) {
            throw new UncheckedIOException(failure);
        }
    }

    private String wrong(BufferedReader lines) throws IOException {
        List<String> outputs = shown(UnaryOperator.identity());
        for (int cycle = 0; cycle < expected.size(); cycle++) {
            String line = lines.readLine();
            String[] values = line == null ? new String[0] : line.split(" ");
            if (values.length != outputs.size()) {
                return "%d cycles instead of %d: %s".formatted(cycle, expected.size(), line);
            }
            for (int at = 0; at < values.length; at++) {
                Long due = expected.get(cycle).get(outputs.get(at));
                if (due != null && !isSame(values[at], due)) {
                    return "cycle %d: %s is %s instead of %x"
                            .formatted(cycle, outputs.get(at), values[at], due);
                }
            }
        }
        return "";
    }

    private static boolean isSame(String value, long due) {
        return value.chars().allMatch(each -> Character.digit(each, 16) >= 0)
                && new BigInteger(value, 16).longValue() == due;
    }

    private List<HdlPort> inputs() {
        return module.ports().stream()
                .filter(port -> port.way() == Module.Way.INPUT)
                .filter(port -> !port.name().equals("clk") && !port.name().equals("rst"))
                .toList();
    }

    private List<HdlPort> outputs() {
        return module.ports().stream().filter(port -> port.way() == Module.Way.OUTPUT).toList();
    }

    /** Outputs, and registers that are put somewhere: both are compared where it is known what they are. */
    private List<String> shown(UnaryOperator<String> place) {
        return Stream.concat(
                        outputs().stream().map(HdlPort::name),
                        behaviour.registers().keySet().stream().map(place))
                .toList();
    }

    /** Each line of memory has rst, the inputs, whether registers are put somewhere, and where. */
    private void build(String text, String prefix, int cycles, Random random) {
        List<String> lines = new ArrayList<>();
        int next = 0;
        for (int cycle = 0; cycle < cycles; cycle++) {
            boolean isReset = cycle >= next && cycle < next + RESET_CYCLES;
            if (cycle == next + RESET_CYCLES) {
                next = cycle + random.nextInt(1 + random.nextInt(RESET_EVERY));
            }
            if (isReset) {
                behaviour.reset();
            }
            Map<String, Long> in = isReset ? Map.of() : behaviour.inputs(random, cycle);
            Map<String, Long> put = isReset ? Map.of() : behaviour.put(random, cycle);
            BigInteger line = BigInteger.valueOf(isReset ? 1 : 0);
            for (HdlPort port : inputs()) {
                BigInteger value =
                        behaviour
                                .wide()
                                .getOrDefault(
                                        port.name(),
                                        BigInteger.valueOf(in.getOrDefault(port.name(), 0L)));
                line = with(line, module.bits(port, parameters), value);
            }
            for (Map.Entry<String, Integer> each : behaviour.registers().entrySet()) {
                Long value = put.get(each.getKey());
                line = with(line, 1, BigInteger.valueOf(value == null ? 0 : 1));
                line = with(line, each.getValue(), BigInteger.valueOf(value == null ? 0 : value));
            }
            lines.add(line.toString(16));
            if (!isReset) {
                Map<String, Long> all = new LinkedHashMap<>();
                inputs().forEach(port -> all.put(port.name(), in.getOrDefault(port.name(), 0L)));
                expected.add(behaviour.step(all));
            }
        }
        Tool.write(hdl, name + ".hex", String.join("\n", lines));
        Tool.write(hdl, name + "_bench.v", bench(text, prefix, lines.size()));
        Tool.run(
                hdl,
                "iverilog -g2005 -s bench -y . -o %1$s.vvp %1$s_bench.v"
                        .formatted(name)
                        .split(" "));
    }

    private static String read(Path file) {
        try {
            return Files.readString(file);
        } catch (IOException failure) {
            throw new UncheckedIOException(failure);
        }
    }

    private static BigInteger with(BigInteger line, int bits, BigInteger value) {
        BigInteger mask = BigInteger.ONE.shiftLeft(bits).subtract(BigInteger.ONE);
        return line.shiftLeft(bits).or(value.and(mask));
    }

    private String bench(String text, String prefix, int count) {
        StringBuilder declared = new StringBuilder();
        StringBuilder put = new StringBuilder();
        StringBuilder release = new StringBuilder();
        List<String> columns = new ArrayList<>(List.of("rst"));
        int bits = 1;
        for (HdlPort port : inputs()) {
            int width = module.bits(port, parameters);
            declared.append("    reg [%d:0] %s;\n".formatted(width - 1, port.name()));
            columns.add(port.name());
            bits += width;
        }
        for (HdlPort port : outputs()) {
            declared.append(
                    "    wire [%d:0] %s;\n"
                            .formatted(module.bits(port, parameters) - 1, port.name()));
        }
        for (Map.Entry<String, Integer> each : behaviour.registers().entrySet()) {
            String value = "to_" + each.getKey().replace('.', '_');
            String place = place(text, prefix, each.getKey());
            declared.append(
                    "    reg put_%1$s;\n    reg [%2$d:0] %1$s;\n"
                            .formatted(value, each.getValue() - 1));
            columns.add("put_" + value);
            columns.add(value);
            bits += 1 + each.getValue();
            // A change behind a register makes a net of it.
            boolean isRegister = isRegister(text, each.getKey(), !prefix.isEmpty());
            put.append(
                    "            if (put_%1$s) %2$s%3$s = %1$s;\n"
                            .formatted(value, isRegister ? "" : "force ", place));
            if (!isRegister) {
                release.append("            release %s;\n".formatted(place));
            }
        }
        String given =
                parameters.entrySet().stream()
                        .map(each -> ".%s(%s)".formatted(each.getKey(), each.getValue().asNumber()))
                        .collect(Collectors.joining(", "));
        String connected =
                module.ports().stream()
                        .map(port -> ".%1$s(%1$s)".formatted(port.name()))
                        .collect(Collectors.joining(", "));
        String formats =
                shown(UnaryOperator.identity()).stream()
                        .map(each -> "%h")
                        .collect(Collectors.joining(" "));
        String outputs = String.join(", ", shown(each -> place(text, prefix, each)));
        return """
        module bench;
            reg clk = 0;
            reg rst;
        %s
            reg [%d:0] given [0:%d];
            integer at;
            %s%s block (%s);
            initial begin
                $readmemh("%s.hex", given);
                for (at = 0; at < %d; at = at + 1) begin
                    {%s} = given[at];
        %s            #1;
                    if (!rst) $display("%s", %s);
                    clk = 1;
                    #1;
        %s            clk = 0;
                end
                $finish;
            end
        endmodule
        """
                .formatted(
                        declared,
                        bits - 1,
                        count - 1,
                        module.name(),
                        given.isEmpty() ? "" : " #(%s)".formatted(given),
                        connected,
                        name,
                        count,
                        String.join(", ", columns),
                        put,
                        formats,
                        outputs,
                        release);
    }

    /** In a changed module, which is flat, a register of a part has a name with points. */
    private static String place(String text, String prefix, String register) {
        String flat = "\\%s ".formatted(register);
        return "block." + prefix + (text.contains(flat) ? flat : register);
    }

    private static boolean isRegister(String text, String register, boolean isChanged) {
        String where = isChanged ? text.substring(text.indexOf("module mutated")) : text;
        boolean isFlat = where.contains("\\%s ".formatted(register));
        String name = isFlat ? Pattern.quote("\\" + register) + " " : register + "\\b";
        return register.contains(".") && !isFlat
                || Pattern.compile("\\breg +(\\[[^;,]*\\] *)?%s".formatted(name))
                        .matcher(where)
                        .find();
    }
}
