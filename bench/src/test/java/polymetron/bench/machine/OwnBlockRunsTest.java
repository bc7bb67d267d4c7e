package polymetron.bench.machine;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.Map;
import java.util.TreeMap;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import polymetron.Shipped;
import polymetron.edit.Edit;
import polymetron.edit.Editor;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.Elaborator;
import polymetron.library.Library;
import polymetron.library.Vlnv;
import polymetron.output.hardware.Hardware;
import polymetron.output.image.ImageFiles;
import polymetron.output.image.ProgramImage;
import polymetron.outside.Tool;
import polymetron.ownblock.DriverSkeleton;
import polymetron.ownblock.LogicSkeleton;
import polymetron.ownblock.OwnBlock;
import polymetron.ownblock.OwnBlockChecks;
import polymetron.ownblock.OwnBlockDocument;
import polymetron.platform.Platform;
import polymetron.wiring.Starter;
import polymetron.wiring.WiringPlan;

/**
 * A block of one's own with two registers and four lines, as its owner would make it: described, filled with a skeleton and a
 * driver, put on a board, and used by a program on the bench and in both simulators, on each protocol.
 */
final class OwnBlockRunsTest {
    private static final String DESCRIBED =
            """
            {
              "format": "polymetron-own-block/1",
              "definition": {
                "format": "polymetron-block-type/2",
                "identity": "bellworks:io:chime:1.0",
                "kind": "peripheral",
                "title": "Chime",
                "summary": "Four hammers",
                "description": "Each line is high while its bit is.",
                "defaultName": "chime",
                "parameters": [
                  { "name": "HAMMERS", "title": "hammers", "form": "integer", "initial": "4", "minimum": 1, "maximum": 8,
                    "explains": "How many there are." }
                ],
                "clocks": [{ "name": "clk", "minimumHz": 1, "maximumHz": 200000000 }],
                "resets": [{ "name": "rst", "clock": "clk" }],
                "busInterfaces": [
                  { "name": "registers", "role": "target", "protocols": ["PROTOCOL"], "dataWidth": 32, "size": 4096,
                    "usage": "registers", "executable": false }
                ],
                "outward": [
                  { "name": "hammers", "title": "hammers", "partKinds": ["lamps"],
                    "ports": [{ "name": "value", "direction": "\\"out\\"", "width": "HAMMERS" }] }
                ],
                "registers": [
                  { "name": "LINES", "explains": "The lines.", "fields": [
                    { "name": "LEVEL", "width": "HAMMERS", "software": "read-write", "explains": "one bit a hammer" }] },
                  { "name": "STROKES", "explains": "What is counted.", "fields": [
                    { "name": "MOST", "width": 8, "software": "read-write", "reset": 9, "explains": "strokes a minute" },
                    { "name": "LOUD", "software": "read-write", "explains": "1 is loud" }] }
                ],
                "provides": [
                  { "lines": { "registers": "registers", "count": "HAMMERS", "direction": "\\"out\\"", "output": "LINES.LEVEL" } }
                ],
                "resources": { "lookupTables": 20, "flipFlops": 20, "multipliers": 0 },
                "hardware": { "module": "bellworks_chime", "files": ["bellworks_chime.v"], "parameters": { "HAMMERS": "HAMMERS" } },
                "software": { "compatible": ["bellworks,chime-1.0"], "driver": "chime.h" }
              }
            }
            """;

    /** The block with the skeleton and the driver that follow from its description. */
    private static OwnBlock chime(String protocol) {
        OwnBlock described =
                OwnBlockDocument.read("chime.json", DESCRIBED.replace("PROTOCOL", protocol));
        TreeMap<String, String> hardware = new TreeMap<>();
        hardware.put("bellworks_chime.v", LogicSkeleton.of(described.type()));
        TreeMap<String, String> drivers = new TreeMap<>();
        drivers.put("chime.h", DriverSkeleton.of(described.type()));
        OwnBlock whole = new OwnBlock(described.type(), described.definition(), hardware, drivers);
        assertThat(OwnBlockChecks.of(whole, Shipped.LIBRARY)).isEmpty();
        // One file, and the same from it.
        String text = OwnBlockDocument.write(whole);
        assertThat(OwnBlockDocument.write(OwnBlockDocument.read("again.json", text)))
                .isEqualTo(text);
        return OwnBlockDocument.read("again.json", text);
    }

    /**
     * @param lines what goes to the gate drives
     * @param more block and lines that go to the part of their name
     */
    static ElaboratedPlatform platform(OwnBlock block, String lines, String... more) {
        String name = lines.equals("hammers") ? "chime" : "own";
        Library library = Shipped.LIBRARY.with(block.type(), block.hardware(), block.drivers());
        Editor editor = new Editor(library);
        Platform platform =
                Starter.start(
                        library,
                        "Chimes",
                        Vlnv.parse("polymetron:boards:sluice:1.0"),
                        library.recipe("console").orElseThrow());
        platform =
                editor.apply(platform, new Edit.AddBlock(name, block.type().identity(), Map.of()));
        platform = editor.apply(platform, new Edit.BindPart(name, lines, "gate_drives"));
        for (String each : more) {
            String[] names = each.split("\\.");
            platform = editor.apply(platform, new Edit.BindPart(names[0], names[1], names[1]));
        }
        platform = editor.apply(platform, new Edit.SetParameter("console", "BAUD", "3125000"));
        platform =
                editor.apply(
                        platform,
                        WiringPlan.propose(platform, library, WiringPlan.Decisions.NONE)
                                .asEdit("wire"));
        return new Elaborator(library).elaborate(platform);
    }

    private static ProgramImage program(ElaboratedPlatform platform, Path folder) {
        return BuiltProgram.of(
                platform,
                folder,
                """
                #include "drivers/chime.h"
                int main(void)
                {
                    chime_set_lines_level(CHIME_BASE, 0x5u);
                    chime_set_strokes_loud(CHIME_BASE, 1u);
                    print_hex(*(volatile uint32_t *)(CHIME_BASE + CHIME_STROKES_OFFSET));
                    chime_set_strokes_most(CHIME_BASE, 0x1FFu);
                    print_hex(*(volatile uint32_t *)(CHIME_BASE + CHIME_STROKES_OFFSET));
                    print_hex(chime_lines_level(CHIME_BASE) + chime_strokes_loud(CHIME_BASE));
                    chime_set_lines_level(CHIME_BASE, ~0u);
                    print_hex(chime_lines_level(CHIME_BASE));
                    print(" end.");
                    for (;;) {
                    }
                }
                """);
    }

    private static final String SAID = "00000109" + "000001ff" + "00000006" + "0000000f" + " end.";

    @Test
    void runsOnTheBench(@TempDir Path folder) {
        ElaboratedPlatform platform = platform(chime("axi4-lite"), "hammers");
        Machine machine = new Machine(platform);
        machine.load(program(platform, folder));
        assertThat(BuiltProgram.saysUntil(machine, "end.", 0.1)).isEqualTo(SAID);
        assertThat(
                        ((polymetron.bench.block.GpioModel) machine.model("chime").orElseThrow())
                                .driven())
                .isEqualTo(0xF);
    }

    @ParameterizedTest
    @ValueSource(strings = {"axi4-lite", "apb", "ahb-lite", "wishbone-b4"})
    void runsInSimulation(String protocol, @TempDir Path folder) {
        ElaboratedPlatform platform = platform(chime(protocol), "hammers");
        Hardware hardware = Hardware.of(platform);
        assertThat(hardware.notBuilt()).isEmpty();
        hardware.files().forEach(file -> Tool.write(folder, file.path(), file.bytes()));
        ProgramImage image = program(platform, folder.resolve("program"));
        Tool.write(folder, "chimes.hex", ImageFiles.of(image, "chimes").getFirst().bytes());
        for (String simulator :
                protocol.equals("apb")
                        ? "iverilog verilator".split(" ")
                        : new String[] {"verilator"}) {
            assertThat(run(folder, simulator)).contains(SAID);
            assertThat(run(folder, simulator, "PARTS=1"))
                    .contains("gate_drives 5", "gate_drives f");
        }
    }

    static String run(Path folder, String simulator, String... more) {
        String command =
                "make -s -C sim run SIM=%s IMAGE=chimes.hex UNTIL=end. CYCLES=400000 %s"
                        .formatted(simulator, String.join(" ", more));
        return Tool.run(folder, command.strip().split(" "));
    }

    /** Two versions on one platform that bring different files of one name are refused, and not mixed. */
    @Test
    void versionsOfOneModuleAreNotMixed() {
        OwnBlock old = chime("apb");
        TreeMap<String, String> files = new TreeMap<>(old.hardware());
        files.computeIfPresent("bellworks_chime.v", (name, text) -> text + "// newer\n");
        OwnBlock described =
                OwnBlockDocument.read(
                        "chime.json",
                        OwnBlockDocument.write(old)
                                .replace("bellworks:io:chime:1.0", "bellworks:io:chime:1.1"));
        Library library =
                Shipped.LIBRARY
                        .with(old.type(), old.hardware(), old.drivers())
                        .with(described.type(), files, old.drivers());
        Platform platform = platform(old, "hammers").platform();
        platform =
                new Editor(library)
                        .apply(
                                platform,
                                new Edit.AddBlock("other", described.type().identity(), Map.of()));
        assertThat(Hardware.of(new Elaborator(library).elaborate(platform)).notBuilt())
                .extracting(each -> each.subject() + ": " + each.why())
                .contains(
                        "other: its file bellworks_chime.v is another than that of chime, which is"
                                + " version 1.0; use one version of both");
    }
}
