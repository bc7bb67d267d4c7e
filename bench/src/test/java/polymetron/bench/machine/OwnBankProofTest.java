package polymetron.bench.machine;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.LongStream;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.output.hardware.BlockHarness;
import polymetron.outside.Tool;
import polymetron.verilog.Module;
import polymetron.verilog.ModuleHeader;

/**
 * The handshake of registers that were described at random, proved on the hardware that is made of them: whatever a bus that keeps the
 * rules of its protocol does, and whatever the block's own logic says, it is answered in time, once, and by the rules. More
 * descriptions with -Dpolymetron.own.proofs=5.
 */
final class OwnBankProofTest {
    private static final int STEPS = 8;
    private static final long ROUNDS = Long.getLong("polymetron.own.proofs", 1);
    private static final int PROTOCOLS = 5;
    private static final int REGISTERS = 4;

    @TempDir private Path folder;

    /** The block of a seed, and what is stated about its protocol. */
    private String solve(long seed, String rules, String place, String wrong, String mode)
            throws IOException {
        ElaboratedPlatform platform =
                OwnBlockRunsTest.platform(RandomOwnBlockTest.block(seed, REGISTERS), "lines");
        ElaboratedBlock own = platform.blockIndex().get("own");
        BlockHarness harness =
                BlockHarness.of(platform, own, own.shape().busInterface("registers").orElseThrow())
                        .orElseThrow();
        String all = harness.files().get("harness.v");
        int from = all.indexOf("module harness_block (");
        ModuleHeader header = ModuleHeader.of(all.substring(from));
        List<String> ports = new ArrayList<>(List.of("input clk"));
        StringBuilder outputs = new StringBuilder();
        List<String> wires = new ArrayList<>();
        for (ModuleHeader.Port port : header.ports()) {
            wires.add(".%1$s(%1$s)".formatted(port.name()));
            String range = "[%s:0] ".formatted(header.bits(port, Map.of()) - 1);
            if (port.way() == Module.Way.OUTPUT) {
                outputs.append("    wire %s%s;\n".formatted(range, port.name()));
            } else if (!port.name().equals("clk") && !port.name().equals("rst")) {
                ports.add("input %s%s".formatted(range, port.name()));
            }
        }
        Tool.write(
                folder,
                "proof.v",
                "module proof (\n    %s\n);\n    reg rst = 1'b1;\n    always @(posedge clk) rst <= 1'b0;\n%s    harness_block block (%s);\n%sendmodule\n"
                        .formatted(
                                String.join(", ", ports),
                                outputs,
                                String.join(", ", wires),
                                text(rules).replace("B_", "registers_")));
        Set<String> files = new LinkedHashSet<>();
        boolean isPlanted = false;
        for (Map.Entry<String, String> file : harness.files().entrySet()) {
            String name = file.getKey();
            boolean isUsed =
                    name.equals("harness.v")
                            || name.equals("any_any.v")
                            || name.startsWith("polymetron_%s_".formatted(rules));
            if (isUsed) {
                isPlanted |= file.getValue().contains(place);
                Tool.write(folder, name, file.getValue().replace(place, wrong));
                files.add(name);
            }
        }
        assertThat(isPlanted).as(place).isTrue();
        Tool.run(
                folder,
                "yosys",
                "-q",
                "-p",
                ("read_verilog -formal %s proof.v; prep -flatten -top proof; memory_map;"
                                + " async2sync; dffunmap; opt_clean; write_smt2 -wires proof.smt2")
                        .formatted(String.join(" ", files)));
        return Tool.tryRun(
                        folder,
                        "yosys-smtbmc -s z3 --unroll %s -t %s proof.smt2"
                                .formatted(mode, STEPS)
                                .replace("  ", " ")
                                .split(" "))
                .output();
    }

    private static String text(String rules) throws IOException {
        try (InputStream in =
                OwnBankProofTest.class.getResourceAsStream(
                        "/polymetron/proofs/own_%s.v".formatted(rules))) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        }
    }

    /** The last two are what is planted: of the end of the protocol, or of the bank. */
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            textBlock =
                    """
                    0 | axi4_lite   | else if (s_rready) s_rvalid | else s_rvalid
                    1 | apb         | s_pready = | s_pready = s_pwrite &
                    2 | ahb_lite    | failing <= is_done && error | failing <= 1'b0
                    3 | wishbone_b4 | s_err = | s_err = 1'b0 &
                    4 | axi4        | s_rlast <= read_last | s_rlast <= 1'b0
                    """)
    void keepsTheRulesOfItsProtocol(int protocol, String rules, String place, String wrong)
            throws IOException {
        for (long seed :
                LongStream.range(1, ROUNDS + 1)
                        .map(round -> PROTOCOLS * round + protocol)
                        .toArray()) {
            assertThat(solve(seed, rules, "", "", "")).contains("Status: PASSED");
            assertThat(solve(seed, rules, "", "", "-c"))
                    .contains("Reached cover")
                    .contains("Status: PASSED");
        }
        assertThat(solve(PROTOCOLS + protocol, rules, place, wrong, "")).contains("Status: FAILED");
    }
}
