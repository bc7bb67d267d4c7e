package polymetron.handoff;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import polymetron.Shipped;
import polymetron.edit.Edit;
import polymetron.edit.Editor;
import polymetron.library.Vlnv;
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
}
