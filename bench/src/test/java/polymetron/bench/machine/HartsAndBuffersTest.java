package polymetron.bench.machine;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import polymetron.Shipped;
import polymetron.address.Address;
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
     * interrupt; that goes on in hart_main with a stack of its own, and they hand a number to and fro.
     */
    @Test
    void hartsOfOneProgramRunTogether() {
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
                        static volatile unsigned ball;
                        static volatile unsigned stack;
                        int main(void)
                        {
                            print(value == 5 ? "first" : "bad");
                            print_hex((uint32_t)__builtin_frame_address(0));
                            for (unsigned turn = 0; turn < 100; turn++) {
                                ball = 2 * turn + 1;
                                while (ball != 2 * turn + 2) {
                                }
                            }
                            print("other");
                            print_hex(ball);
                            print_hex(stack);
                            for (;;) {
                            }
                        }
                        void hart_main(unsigned index)
                        {
                            stack = (uint32_t)__builtin_frame_address(0);
                            for (;;) {
                                if (ball % 2 == index) {
                                    ball = ball + 1;
                                }
                            }
                        }
                        """);
        Machine machine = new Machine(view);
        machine.load(image);
        String said = BuiltProgram.says(machine, 0.01);
        assertThat(said).startsWith("first").contains("other000000c8");
        long stack = Long.parseLong(said.substring(5, 13), 16);
        long otherStack = Long.parseLong(said.substring(said.length() - 8), 16);
        assertThat(stack - otherStack).as("apart by the size of a stack").isBetween(0x3C0L, 0x440L);
        // However the run is cut, the same happens at the same cycle.
        long retired = machine.hart().csrs().read(0xB02);
        Machine cut = new Machine(view);
        cut.load(image);
        while (cut.cycles() < machine.cycles()) {
            cut.run(Math.min(997, machine.cycles() - cut.cycles()));
        }
        assertThat(cut.cycles()).isEqualTo(machine.cycles());
        assertThat(cut.hart().csrs().read(0xB02)).isEqualTo(retired);
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
