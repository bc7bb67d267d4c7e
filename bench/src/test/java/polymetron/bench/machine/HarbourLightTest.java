package polymetron.bench.machine;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assumptions.assumeThat;

import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import polymetron.Shipped;
import polymetron.bench.block.OwnBlockModel;
import polymetron.bench.foreign.SharedModels;
import polymetron.bench.hart.MemoryShare;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.Elaborator;
import polymetron.finding.Checks;
import polymetron.output.hardware.Hardware;
import polymetron.output.image.ElfReader;
import polymetron.output.image.ProgramImage;
import polymetron.ownblock.OwnBlockExamples;
import polymetron.platform.PlatformDocument;
import polymetron.software.SoftwareView;

/** The demo with blocks of one's own: one from its registers, one from Verilog, and a program on their drivers. */
final class HarbourLightTest {
    @TempDir private Path folder;

    private static ElaboratedPlatform platform() {
        return new Elaborator(OwnBlockExamples.harbour())
                .elaborate(
                        PlatformDocument.read(
                                "harbour-light.json",
                                new String(
                                        Shipped.file("demo/harbour-light.json"),
                                        StandardCharsets.UTF_8)));
    }

    @Test
    void nothingIsFoundAndAllIsBuilt() {
        assertThat(Checks.run(platform())).isEmpty();
        assertThat(Hardware.of(platform()).notBuilt()).isEmpty();
    }

    @Test
    void eachPressShowsTheNextCharacter() {
        // Not where a machine forbids the namespaces of the sandbox.
        assumeThat(SharedModels.get().isPossible()).isTrue();
        SoftwareView view = SoftwareView.of(platform());
        try (Machine machine = new Machine(view, MemoryShare.ample(), SharedModels.get())) {
            machine.load(
                    ProgramImage.of(
                            view,
                            ElfReader.read(Shipped.file("demo/harbour-light.elf")),
                            (byte) 0));
            assertThat(BuiltProgram.says(machine, 0.01)).isEqualTo("Harbour Light\r\nfixed\r\n");
            OwnBlockModel light = (OwnBlockModel) machine.model("light").orElseThrow();
            assertThat(light.level("value")).isEqualTo(0xFF);
            // A press that bounces for less than a millisecond is one press.
            for (int bounce = 0; bounce < 3; bounce++) {
                machine.move("buttons", 1);
                BuiltProgram.says(machine, 0.0002);
                machine.move("buttons", 0);
                BuiltProgram.says(machine, 0.0002);
            }
            machine.move("buttons", 1);
            assertThat(BuiltProgram.says(machine, 0.02)).isEqualTo("flashing\r\n");
            machine.move("buttons", 0);
            assertThat(BuiltProgram.says(machine, 0.02)).isEmpty();
            machine.move("buttons", 8);
            assertThat(BuiltProgram.says(machine, 0.02)).isEqualTo("group flashing, two\r\n");
        }
    }
}
