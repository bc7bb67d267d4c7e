package polymetron.bench.machine;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import polymetron.Shipped;
import polymetron.address.Address;
import polymetron.bus.Protocol;
import polymetron.edit.Edit;
import polymetron.edit.Editor;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.library.Vlnv;
import polymetron.output.HandoffFile;
import polymetron.output.hardware.Hardware;
import polymetron.output.image.ImageFiles;
import polymetron.output.image.ProgramImage;
import polymetron.outside.Tool;
import polymetron.platform.Bus;
import polymetron.platform.Platform;
import polymetron.platform.PlatformDocument;
import polymetron.software.Programs;

/** Two processors with a program each, both at address 0 of a memory of their own, which talk over a shared memory. */
final class TwoProcessorsTest {
    private static final Editor EDITOR = new Editor(Shipped.LIBRARY);
    private static final String MAILBOX = "0x%s0003FF0u";

    @TempDir private Path folder;

    private static Platform platform() {
        Platform first =
                PlatformDocument.read(
                        "first-steps.json",
                        new String(Shipped.file("demo/first-steps.json"), StandardCharsets.UTF_8));
        return EDITOR.apply(
                first,
                new Edit.Several(
                        null,
                        List.of(
                                new Edit.SetParameter("console", "BAUD", "3125000"),
                                new Edit.AddBus(new Bus("own", Protocol.AXI4_LITE, 32, 32, "main")),
                                new Edit.AddBlock(
                                        "second",
                                        Vlnv.parse("polymetron:processor:rv32-small:1.1"),
                                        Map.of("HART_ID", "1", "MULTIPLIER", "iterative")),
                                inMain("second"),
                                new Edit.Attach("second", "instruction", "own", null, null),
                                new Edit.Attach("second", "data", "own", null, null),
                                new Edit.AddBlock(
                                        "store",
                                        Vlnv.parse("polymetron:memory:block-memory:1.1"),
                                        Map.of("SIZE", "16384")),
                                inMain("store"),
                                new Edit.Attach("store", "port", "own", new Address(0), null),
                                new Edit.AddBlock("bridge", Shipped.BRIDGE, null),
                                inMain("bridge"),
                                new Edit.Attach(
                                        "bridge", "window", "own", new Address(0x4000_0000L), null),
                                new Edit.Attach("bridge", "behind", "system", null, null))));
    }

    private static Edit inMain(String block) {
        return new Edit.Several(
                null,
                List.of(
                        new Edit.SetDomain(block, "clk", "main"),
                        new Edit.SetDomain(block, "rst", "main")));
    }

    @Test
    void theyTalkOnTheBenchAndInSimulation() {
        ElaboratedPlatform platform = Shipped.elaborate(platform());
        Hardware hardware = Hardware.of(platform);
        assertThat(hardware.notBuilt()).isEmpty();
        for (HandoffFile file : hardware.files()) {
            Tool.write(folder, file.path(), file.bytes());
        }
        ProgramImage first =
                image(
                        platform,
                        "cpu",
                        """
                        static volatile uint32_t *const mailbox = (volatile uint32_t *)MAILBOX;
                        int main(void)
                        {
                            mailbox[0] = 6u;
                            mailbox[1] = 7u;
                            while (mailbox[2] == 0u) {
                            }
                            print("product ");
                            print_hex(mailbox[2]);
                            print(" of hart ");
                            print_hex(mailbox[3]);
                            print(" end.");
                            for (;;) {
                            }
                        }
                        """
                                .replace("MAILBOX", MAILBOX.formatted("0")));
        ProgramImage second =
                image(
                        platform,
                        "second",
                        """
                        static volatile uint32_t *const mailbox = (volatile uint32_t *)MAILBOX;
                        int main(void)
                        {
                            uint32_t hart;
                            while (mailbox[1] == 0u) {
                            }
                            __asm__ volatile("csrr %0, mhartid" : "=r"(hart));
                            mailbox[3] = hart;
                            mailbox[2] = mailbox[0] * mailbox[1];
                            for (;;) {
                            }
                        }
                        """
                                .replace("MAILBOX", MAILBOX.formatted("4")));
        Machine machine = new Machine(first.view());
        machine.load(first, List.of(second));
        assertThat(BuiltProgram.saysUntil(machine, "end.", 0.01))
                .isEqualTo("product 0000002a of hart 00000001 end.");
        for (String simulator : List.of("iverilog", "verilator")) {
            String said =
                    Tool.run(
                            folder,
                            "make -s -C sim run SIM=%s IMAGE=cpu.hex IMAGE_second=second.hex UNTIL=end. CYCLES=200000"
                                    .formatted(simulator)
                                    .split(" "));
            assertThat(said).contains("product 0000002a of hart 00000001 end.");
        }
        assertThat(
                        Tool.tryRun(
                                        folder,
                                        "make -s -C sim run IMAGE=cpu.hex IMAGE_second=none.hex"
                                                .split(" "))
                                .output())
                .contains("there is no image none.hex");
    }

    private ProgramImage image(ElaboratedPlatform platform, String program, String body) {
        ProgramImage image =
                BuiltProgram.of(
                        Programs.of(platform).named(program).orElseThrow(),
                        folder.resolve(program),
                        body);
        Tool.write(folder, program + ".hex", ImageFiles.of(image, program).getFirst().bytes());
        return image;
    }
}
