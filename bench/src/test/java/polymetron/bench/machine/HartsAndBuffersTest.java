package polymetron.bench.machine;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import polymetron.Shipped;
import polymetron.address.Address;
import polymetron.bench.block.BlockModel;
import polymetron.bench.block.UartModel;
import polymetron.edit.Edit;
import polymetron.edit.Editor;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterfaceRef;
import polymetron.library.Vlnv;
import polymetron.output.image.ProgramImage;
import polymetron.platform.Platform;
import polymetron.software.SoftwareView;

/** Several harts in one program, memory that hardware writes, and clocks that are not the processor's. */
final class HartsAndBuffersTest {
    private static final Editor EDITOR = new Editor(Shipped.LIBRARY);

    @TempDir private Path folder;

    /**
     * Both harts of the complex start at one place. The first one prepares memory and releases the other by its software
     * interrupt; that goes on in hart_main with a stack of its own. The bench runs one hart at a time.
     */
    @Test
    void hartsOfOneProgramBranchOnTheirNumbers() {
        ElaboratedPlatform platform = Shipped.elaborate(Shipped.recipe("lock"));
        SoftwareView view = SoftwareView.of(platform);
        assertThat(view.harts()).hasSize(2);
        ProgramImage image =
                BuiltProgram.of(
                        view,
                        folder,
                        """
                        void hart_main(unsigned index);
                        static volatile int value = 5;
                        int main(void)
                        {
                            print(value == 5 ? "first" : "bad");
                            print_hex((uint32_t)__builtin_frame_address(0));
                            for (;;) {
                            }
                        }
                        void hart_main(unsigned index)
                        {
                            print("other");
                            print_hex(index);
                            print_hex((uint32_t)__builtin_frame_address(0));
                            for (;;) {
                            }
                        }
                        """);
        Machine first = new Machine(view);
        first.load(image);
        String said = BuiltProgram.says(first, 0.01);
        assertThat(said).startsWith("first");
        InterfaceRef timer = new InterfaceRef("complex", "timer");
        BlockModel released = first.model(timer).orElseThrow();
        assertThat(released.peek(4)).as("MSIP of hart 1").isEqualTo(1);

        Machine second = new Machine(view, 1);
        second.load(image);
        assertThat(BuiltProgram.says(second, 0.01)).as("before it is released").isEmpty();
        assertThat(second.hart().isWaiting()).isTrue();
        second.model(timer).orElseThrow().write(4, 1, -1);
        second.settle();
        String other = BuiltProgram.says(second, 0.01);
        assertThat(other).startsWith("other00000001");
        long stack = Long.parseLong(said.substring(5), 16);
        long otherStack = Long.parseLong(other.substring(13), 16);
        assertThat(stack - otherStack).as("apart by the size of a stack").isBetween(0x3C0L, 0x440L);
    }

    /** A UART inside the complex has a clock of its own: 50 MHz, whatever the port of the logic runs with. */
    @Test
    void charactersTakeTheTimeOfTheirOwnClock() {
        for (String port : List.of("100000000", "25000000")) {
            Platform platform =
                    EDITOR.apply(
                            Shipped.recipe("lock"),
                            new Edit.SetParameter("complex", "CLOCK0", port));
            Machine machine = new Machine(Shipped.elaborate(platform));
            UartModel uart =
                    (UartModel) machine.model(new InterfaceRef("complex", "uart")).orElseThrow();
            uart.write(0, 'x', 0xFF);
            machine.settle();
            long from = machine.cycles();
            while ((uart.peek(20) & 0x40) == 0) {
                machine.run(100);
            }
            // Ten bits of 16 times 27 cycles at 50 MHz are 86.4 us (PC16550D: divisor 27 for 115200
            // Bd).
            double seconds = (double) (machine.cycles() - from) / machine.clockHz();
            assertThat(seconds).isBetween(86.3e-6, 87.0e-6);
        }
    }

    /** What a recorder writes by itself is neither heap nor stack, and the program is told where it is. */
    @Test
    void theBufferOfAnotherBlockIsNotTheProgramsMemory() {
        Platform platform =
                EDITOR.apply(
                        Shipped.demo(),
                        new Edit.Several(
                                null,
                                List.of(
                                        new Edit.AddBlock(
                                                "recorder",
                                                Vlnv.parse(
                                                        "polymetron:data-movement:ring-writer:1.0"),
                                                Map.of(
                                                        "RUN", "1",
                                                        "BASE", "0x2000",
                                                        "SIZE", "4096")),
                                        new Edit.SetDomain("recorder", "clk", "main"),
                                        new Edit.SetDomain("recorder", "rst", "main"),
                                        new Edit.Attach("recorder", "writes", "system", null, null),
                                        new Edit.Attach(
                                                "recorder",
                                                "registers",
                                                "system",
                                                new Address(0x1006_0000),
                                                null))));
        ElaboratedPlatform elaborated = Shipped.elaborate(platform);
        ProgramImage image =
                BuiltProgram.of(
                        elaborated,
                        folder,
                        """
                        extern char __heap_end[], __stack_top[];
                        int main(void)
                        {
                            print((uintptr_t)__heap_end <= RECORDER_BUFFER_ADDRESS ? "heap " : "bad ");
                            print((uintptr_t)__stack_top <= RECORDER_BUFFER_ADDRESS ? "stack " : "bad ");
                            print_hex(RECORDER_BUFFER_ADDRESS);
                            for (;;) {
                            }
                        }
                        """);
        Machine machine = new Machine(elaborated);
        machine.load(image);
        assertThat(BuiltProgram.says(machine, 0.01)).isEqualTo("heap stack 00002000");
    }
}
