package polymetron.bench.block;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import polymetron.Shipped;
import polymetron.elaborate.BlockShape;
import polymetron.elaborate.Register;
import polymetron.elaborate.SizedInterface;
import polymetron.json.Documents;
import polymetron.library.BlockType;
import polymetron.output.hardware.RegisterBankModule;
import polymetron.outside.Tool;
import polymetron.verilog.Module;
import tools.jackson.databind.JsonNode;

/**
 * The register banks in hardware, of every block type, under random traffic of software and events of the block, simulated by
 * Icarus Verilog beside what the definition says ({@link RegisterReference}).
 */
final class RegisterHardwareTest {
    private static final long CLOCK_HZ = 50_000_000;
    private static final int ACCESSES = 300;

    static List<String> types() {
        return RegisterTrafficTest.types();
    }

    @ParameterizedTest
    @MethodSource("types")
    void banksDoWhatTheirDefinitionSays(String folder, @TempDir Path work) {
        JsonNode definition =
                Documents.tree(
                        folder,
                        new String(
                                Shipped.file("block-types/" + folder + "/block-type.json"),
                                StandardCharsets.UTF_8));
        BlockType type =
                Shipped.LIBRARY.types().stream()
                        .filter(
                                each ->
                                        each.identity()
                                                .toString()
                                                .equals(definition.path("identity").asString()))
                        .findFirst()
                        .orElseThrow();
        BlockShape shape = new BlockShape(type, Map.of());
        boolean isFirst = true;
        for (SizedInterface form : shape.busInterfaces()) {
            if (!form.isTarget() || form.isMemory()) {
                continue;
            }
            List<Register> registers = shape.registersOf(form.name());
            RegisterReference reference =
                    new RegisterReference(
                            definition, form.name(), isFirst, shape.parameters(), CLOCK_HZ);
            isFirst = false;
            if (!registers.isEmpty()) {
                int bits = 64 - Long.numberOfLeadingZeros(form.sizeBytes() - 1);
                Module bank =
                        RegisterBankModule.of("bank", registers, CLOCK_HZ, bits, port -> false);
                new Bench(folder, reference, bank, bits).run(work.resolve(form.name()));
            }
        }
    }

    /** A test bench that makes accesses, one a cycle, and compares what is read. */
    private static final class Bench {
        private final String what;
        private final RegisterReference reference;
        private final Module bank;
        private final int bits;
        private final StringBuilder out = new StringBuilder();

        private Bench(String what, RegisterReference reference, Module bank, int bits) {
            this.what = what;
            this.reference = reference;
            this.bank = bank;
            this.bits = bits;
        }

        private void run(Path folder) {
            Tool.write(folder, "bank.v", bank.text().getBytes(StandardCharsets.UTF_8));
            text();
            Tool.write(folder, "bench.v", out.toString().getBytes(StandardCharsets.UTF_8));
            String warnings =
                    Tool.run(folder, "iverilog -g2005 -Wall -o bench bank.v bench.v".split(" "));
            assertThat(warnings).as(what).isEmpty();
            String said = Tool.run(folder, "vvp", "-n", "bench");
            assertThat(said.strip().lines().toList()).as(what).containsExactly("done");
        }

        private void text() {
            List<String> ports = new ArrayList<>();
            out.append("module bench;\nreg clk = 0;\nreg rst = 1;\nalways #5 clk = ~clk;\n");
            for (Module.Port port : bank.ports()) {
                String name = port.net().name();
                ports.add("." + name + "(" + name + ")");
                if (name.equals("clk") || name.equals("rst")) {
                    continue;
                }
                String kind = port.way() == Module.Way.INPUT ? "reg" : "wire";
                String start = port.way() == Module.Way.INPUT ? " = 0" : "";
                out.append("%s [%s:0] %s%s;\n".formatted(kind, port.net().bits() - 1, name, start));
            }
            out.append("bank bank (").append(String.join(", ", ports)).append(");\n");
            out.append("task reads(input [31:0] at, input [31:0] known, input [31:0] expected);\n");
            out.append("begin read = 1; read_address = at; #4;\n");
            out.append("if ((read_data & known) !== (expected & known))");
            out.append(
                    " $display(\"at %h: %h, not %h, of %h\", at, read_data, expected, known);\n");
            out.append("@(posedge clk); #1; read = 0; end endtask\n");
            out.append(
                    "task writes(input [31:0] at, input [31:0] value, input [3:0] bytes);\n"
                        + "begin write = 1; write_address = at; write_data = value; write_bytes ="
                        + " bytes; @(posedge clk); #1; write = 0; end endtask\n");
            out.append("initial begin\nrepeat (2) @(posedge clk);\n#1 rst = 0;\n");
            traffic();
            out.append("$display(\"done\");\n$finish;\nend\nendmodule\n");
        }

        private void traffic() {
            int[] words =
                    reference.cells.stream()
                            .mapToInt(cell -> (int) (cell.offset & ~3L))
                            .distinct()
                            .toArray();
            Random random = new Random(what.hashCode());
            // What the block itself gives, loads or counts is not driven here; it stays 0, or as it
            // was.
            for (RegisterReference.Cell cell : reference.cells) {
                if (cell.is("hardware", "value")) {
                    cell.value = 0;
                }
            }
            for (int word : words) {
                reads(word);
            }
            for (int access = 0; access < ACCESSES; access++) {
                int word = words[random.nextInt(words.length)];
                if (random.nextInt(3) == 0) {
                    event(random);
                }
                if (random.nextBoolean()) {
                    int bytes = random.nextInt(3) == 0 ? random.nextInt(16) : 15;
                    int value = random.nextInt(4) == 0 ? -1 : random.nextInt();
                    int mask = 0;
                    for (int lane = 0; lane < 4; lane++) {
                        mask |= (bytes >>> lane & 1) != 0 ? 0xFF << 8 * lane : 0;
                    }
                    out.append("writes(32'h%x, 32'h%x, 4'd%s);\n".formatted(word, value, bytes));
                    reference.write(word, value, mask);
                } else {
                    reads(word);
                }
                // Events of the cycle come after the access: they win over clearing.
                pending.forEach(Runnable::run);
                if (!pending.isEmpty()) {
                    out.append(quiet);
                    quiet.setLength(0);
                    pending.clear();
                }
            }
        }

        private final List<Runnable> pending = new ArrayList<>();
        private final StringBuilder quiet = new StringBuilder();

        /** Bits that the block sets in the cycle of the next access. */
        private void event(Random random) {
            List<RegisterReference.Cell> all =
                    reference.cells.stream()
                            .filter(cell -> cell.is("hardware", "set") && cell.bits != 0)
                            .toList();
            if (all.isEmpty()) {
                return;
            }
            RegisterReference.Cell cell = all.get(random.nextInt(all.size()));
            String port = cell.name.replace('.', '_') + "_set";
            long set = random.nextLong() & cell.bits;
            out.append("%s = 64'h%x;\n".formatted(port, set));
            quiet.append("%s = 0;\n".formatted(port));
            pending.add(() -> cell.value |= set);
        }

        private void reads(int word) {
            // Everything is known: nothing but the events above comes from the block.
            out.append(
                    "reads(32'h%x, 32'h%x, 32'h%x);\n".formatted(word, -1, reference.seen(word)));
            reference.read(word);
        }
    }
}
