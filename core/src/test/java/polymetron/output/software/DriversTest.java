package polymetron.output.software;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import polymetron.Shipped;
import polymetron.edit.Edit;
import polymetron.edit.Editor;
import polymetron.library.Vlnv;
import polymetron.output.handoff.Handoff;
import polymetron.outside.Tool;
import polymetron.platform.Platform;

/** Drivers of the hand-off, compiled and run. */
final class DriversTest {
    /**
     * The addresses that the driver writes are those of the memory map of the RISC-V PLIC specification 1.0.0: priority
     * of source n at 4n, enables of context c from 0x2000 + 0x80c, its threshold at 0x20_0000 + 0x1000c, its claim
     * behind that. Beside an older controller the newer driver is handed off, wherever it stands in the platform.
     */
    @Test
    void everyContextOfTheInterruptControllerHasItsRegisters(@TempDir Path folder) {
        Platform platform =
                new Editor(Shipped.LIBRARY)
                        .apply(
                                Shipped.demo(),
                                new Edit.AddBlock(
                                        "a_second",
                                        Vlnv.parse("polymetron:interrupt:interrupt-controller:1.1"),
                                        Map.of()));
        Handoff.of(Shipped.elaborate(platform)).files().stream()
                .filter(file -> file.path().startsWith("drivers/"))
                .forEach(file -> Tool.write(folder, file.path(), file.text()));
        Tool.write(
                folder,
                "try.c",
                """
                #include <stdio.h>
                #include "drivers/interrupt_controller.h"
                static uint32_t words[0x204000 / 4];
                int main(void)
                {
                    uintptr_t base = (uintptr_t)words;
                    interrupt_controller_enable(base, 3u, 7u);
                    interrupt_controller_threshold(base, 1u);
                    interrupt_controller_priority(base, 33u, 5u);
                    interrupt_controller_enable_for(base, 2u, 33u);
                    interrupt_controller_enable_for(base, 2u, 34u);
                    interrupt_controller_disable_for(base, 2u, 34u);
                    interrupt_controller_threshold_for(base, 3u, 6u);
                    interrupt_controller_complete(base, 3u);
                    interrupt_controller_complete_for(base, 1u, 9u);
                    for (unsigned at = 0; at < sizeof words / sizeof *words; at++)
                        if (words[at])
                            printf("%06x=%x ", 4 * at, (unsigned)words[at]);
                    return interrupt_controller_claim_for(base, 1u) != 9u;
                }
                """);
        Tool.run(folder, "gcc", "-std=c11", "-Wall", "-Wextra", "-Werror", "-o", "try", "try.c");
        assertThat(Tool.run(folder, "./try").strip())
                .isEqualTo(
                        "00000c=7 000084=5 002000=8 002104=2 200000=1 200004=3 201004=9 203000=6");
    }

    /**
     * After a byte without an acknowledgement the controller generates a stop (UM10204, 3.1.6), unless the step had one or
     * another controller has won the bus. The registers are words of memory here: the last command stays in its own.
     */
    @Test
    void aTransferThatIsRefusedEndsWithAStop(@TempDir Path folder) {
        Tool.write(
                folder,
                "i2c_controller.h",
                Shipped.LIBRARY
                        .driverFiles(Vlnv.parse("polymetron:serial:i2c-controller:1.0"))
                        .get("i2c_controller.h"));
        Tool.write(
                folder,
                "try.c",
                """
                #include <stdio.h>
                #include "i2c_controller.h"
                static uint32_t words[8];
                static void show(const char *what, bool answered)
                {
                    printf("%s %d %x\\n", what, answered, (unsigned)words[2]);
                }
                int main(void)
                {
                    uintptr_t base = (uintptr_t)words;
                    uint8_t bytes[2] = {1, 2};
                    show("write", i2c_write(base, 0x48u, bytes, 2u));
                    words[1] = 2u;
                    show("refused", i2c_write(base, 0x48u, bytes, 2u));
                    show("refused read", i2c_read(base, 0x48u, bytes, 2u));
                    show("refused with stop", i2c_write(base, 0x48u, bytes, 0u));
                    words[1] = 4u;
                    show("lost", i2c_write(base, 0x48u, bytes, 2u));
                    return 0;
                }
                """);
        Tool.run(folder, "gcc", "-std=c11", "-Wall", "-Wextra", "-Werror", "-o", "try", "try.c");
        assertThat(Tool.run(folder, "./try"))
                .isEqualTo(
                        """
                        write 1 12
                        refused 0 10
                        refused read 0 10
                        refused with stop 0 13
                        lost 0 3
                        """);
    }

    /** What a 32-bit register cannot hold of an address is refused, not cut off. */
    @Test
    void buffersBeyondTheAddressBitsAreRefused(@TempDir Path folder) {
        for (String type : new String[] {"dma", "ring-writer"}) {
            Shipped.LIBRARY
                    .driverFiles(Vlnv.parse("polymetron:data-movement:" + type + ":1.0"))
                    .forEach((name, text) -> Tool.write(folder, name, text));
        }
        Tool.write(
                folder,
                "try.c",
                """
                #include <stdio.h>
                #include "dma.h"
                #include "ring_writer.h"
                static uint32_t words[32];
                int main(void)
                {
                    uintptr_t base = (uintptr_t)words;
                    uintptr_t far = (uintptr_t)0x100000000u;
                    printf("%d%d%d", dma_send(base, far, 4u, false), dma_receive(base, far - 2u, 4u, false),
                           ring_writer_start(base, far, 64u, 0u));
                    printf("%d%d%d", dma_send(base, far - 4u, 4u, false), dma_receive(base, 0u, 4u, false),
                           ring_writer_start(base, far - 64u, 64u, 0u));
                    return 0;
                }
                """);
        Tool.run(folder, "gcc", "-std=c11", "-Wall", "-Wextra", "-Werror", "-o", "try", "try.c");
        assertThat(Tool.run(folder, "./try")).isEqualTo("000111");
    }
}
