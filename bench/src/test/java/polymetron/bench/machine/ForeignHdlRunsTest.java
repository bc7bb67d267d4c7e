package polymetron.bench.machine;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assumptions.assumeThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.TreeMap;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import polymetron.Shipped;
import polymetron.bench.block.OwnBlockModel;
import polymetron.bench.foreign.ForeignModels;
import polymetron.bench.foreign.SharedModels;
import polymetron.bench.foreign.VerilatedModel;
import polymetron.bench.hart.MemoryShare;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.hdl.HdlReader;
import polymetron.output.hardware.Hardware;
import polymetron.output.image.ImageFiles;
import polymetron.output.image.ProgramImage;
import polymetron.outside.Tool;
import polymetron.ownblock.BlockFromHdl;
import polymetron.ownblock.OwnBlock;
import polymetron.ownblock.OwnBlockChecks;
import polymetron.ownblock.OwnBlockDocument;
import polymetron.software.SoftwareView;

/**
 * User-supplied Verilog and VHDL in four styles and on three protocols: what is proposed for its ports is right without a
 * correction, and a program reaches its registers in simulation.
 */
final class ForeignHdlRunsTest {
    /**
     * @param names file names with blanks between
     */
    static OwnBlock block(String names) throws IOException {
        TreeMap<String, String> files = new TreeMap<>();
        for (String file : names.split(" ")) {
            try (var in = ForeignHdlRunsTest.class.getResourceAsStream("/foreign/" + file)) {
                files.put(file, new String(in.readAllBytes(), StandardCharsets.UTF_8));
            }
        }
        BlockFromHdl found = BlockFromHdl.of(files, null, "bellworks");
        assertThat(found.problems()).isEmpty();
        assertThat(found.reasons())
                .hasSameSizeAs(HdlReader.read(files).module(found.module()).orElseThrow().ports())
                .allSatisfy(each -> assertThat(each).isNotNull());
        assertThat(OwnBlockChecks.of(found.block(), Shipped.LIBRARY)).isEmpty();
        // What its owner would still change: which part of a board the lines can go to.
        String text = OwnBlockDocument.write(found.block()).replace("\"header\"", "\"lamps\"");
        return OwnBlockDocument.read(found.module(), text);
    }

    @ParameterizedTest
    @CsvSource({
        "strobe_unit.v, strobes, iverilog, 0000000f00000002",
        "wishing_well.v, shown_o, iverilog, 0000000f00000014",
        "latch_box.sv, kept, verilator, 0000000fcafe0001",
        "tally_adder.vhd tally_box.vhd, marks, iverilog, 0000000f00000002"
    })
    void aProgramReachesItsRegisters(
            String file, String lines, String simulator, String words, @TempDir Path folder)
            throws IOException {
        OwnBlock block = block(file);
        ElaboratedPlatform platform = OwnBlockRunsTest.platform(block, lines);
        Hardware hardware = Hardware.of(platform);
        assertThat(hardware.notBuilt()).isEmpty();
        hardware.files().forEach(each -> Tool.write(folder, each.path(), each.bytes()));
        var image = program(platform, folder.resolve("program"));
        // A block whose definition says nothing of the devicetree has a node that dtc takes.
        Tool.run(
                folder.resolve("program"),
                "dtc",
                "-q",
                "-O",
                "dtb",
                "-o",
                "chimes.dtb",
                "chimes.dts");
        Tool.write(folder, "chimes.hex", ImageFiles.of(image, "chimes").getFirst().bytes());
        assertThat(OwnBlockRunsTest.run(folder, simulator)).contains(words + " end.");
        assertThat(OwnBlockRunsTest.run(folder, simulator, "PARTS=1"))
                .contains("gate_drives 5", "gate_drives f");
    }

    private static ProgramImage program(ElaboratedPlatform platform, Path folder) {
        return BuiltProgram.of(
                platform,
                folder,
                """
                int main(void)
                {
                    volatile uint32_t *words = (volatile uint32_t *)OWN_BASE;
                    words[0] = 5u;
                    words[0] = 15u;
                    print_hex(words[0]);
                    print_hex(words[1]);
                    print(" end.");
                    for (;;) {
                    }
                }
                """);
    }

    /** A block without clock and registers acts on the board all the same. */
    @Test
    void logicAloneRunsOnTheBench(@TempDir Path folder) throws IOException {
        OwnBlock block = block("lamp_logic.v");
        ElaboratedPlatform platform = OwnBlockRunsTest.platform(block, "lamps", "own.switches");
        ForeignModels models = SharedModels.get();
        assumeThat(models.isPossible()).isTrue();
        try (Machine machine =
                new Machine(SoftwareView.of(platform), MemoryShare.ample(), models)) {
            OwnBlockModel model = (OwnBlockModel) machine.model("own").orElseThrow();
            for (long levels = 0; levels < 16; levels++) {
                machine.move("switches", levels);
                assertThat(model.level("lamps"))
                        .isEqualTo(levels ^ (levels >> 1 | (levels & 1) << 3));
            }
        }
    }

    /** On the bench the Verilog itself runs, in a process of its own: the same words as in simulation. */
    @ParameterizedTest
    @CsvSource({
        "strobe_unit.v, strobes, 0000000f00000002",
        "wishing_well.v, shown_o, 0000000f00000014",
        "latch_box.sv, kept, 0000000fcafe0001",
        "tally_adder.vhd tally_box.vhd, marks, 0000000f00000002"
    })
    void theVerilogRunsOnTheBench(String file, String lines, String words, @TempDir Path folder)
            throws IOException {
        ElaboratedPlatform platform = OwnBlockRunsTest.platform(block(file), lines);
        ForeignModels models = SharedModels.get();
        // Not where a machine forbids the namespaces of the sandbox.
        assumeThat(models.isPossible()).isTrue();
        try (Machine machine =
                new Machine(SoftwareView.of(platform), MemoryShare.ample(), models)) {
            machine.load(program(platform, folder));
            assertThat(BuiltProgram.saysUntil(machine, "end.", 0.1)).isEqualTo(words + " end.");
            VerilatedModel model = (VerilatedModel) machine.model("own").orElseThrow();
            assertThat(model.level(lines)).isEqualTo(0xF);
            machine.reset();
            assertThat(model.level(lines)).isZero();
            assertThat(BuiltProgram.saysUntil(machine, "end.", 0.1)).isEqualTo(words + " end.");
        }
    }
}
