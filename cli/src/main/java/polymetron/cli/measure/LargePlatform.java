package polymetron.cli.measure;

import java.util.ArrayList;
import java.util.List;
import polymetron.platform.Block;
import polymetron.platform.InterruptWire;
import polymetron.platform.Platform;

/** A wired platform of any number of blocks: one processor, the rest memories, UARTs, GPIOs and timers. */
final class LargePlatform {
    private static final long MEMORY_SIZE = 16_384;
    private static final long PERIPHERALS = 0x1000_0000L;
    private static final long TIMERS = 0x4000_0000L;
    private static final long CONTROLLER = 0x0C00_0000L;

    private static final int MOST_SOURCES = 1023;

    private LargePlatform() {}

    static Platform of(int blocks) {
        return of(blocks, 1);
    }

    /**
     * @param processors processors on the bus, each with a data and an instruction side
     */
    static Platform of(int blocks, int processors) {
        List<Block> all = new ArrayList<>();
        all.add(Blocks.processor("cpu"));
        for (int number = 1; number < processors; number++) {
            all.add(Blocks.processor("cpu" + number));
        }
        all.add(
                Blocks.at(
                                Blocks.block("interrupts", "interrupt:interrupt-controller"),
                                "registers",
                                CONTROLLER)
                        .withParameter("SOURCES", "1023")
                        .withInterrupt("external", new InterruptWire("cpu", "external", 0)));
        int sources = 0;
        for (int number = 0; number < blocks - 1 - processors; number++) {
            long page = PERIPHERALS + number * 0x1000L;
            Block block =
                    switch (number % 4) {
                        case 0 ->
                                Blocks.memory(
                                        "memory" + number, number / 4 * MEMORY_SIZE, MEMORY_SIZE);
                        case 1 -> console(number, page, ++sources);
                        case 2 ->
                                Blocks.at(
                                        Blocks.block("lamps" + number, "io:gpio"),
                                        "registers",
                                        page);
                        default ->
                                Blocks.at(
                                        Blocks.block("timer" + number, "timer:machine-timer"),
                                        "registers",
                                        TIMERS + number * 0x1_0000L);
                    };
            all.add(block);
        }
        return Blocks.platform("Large", all);
    }

    /** A console; a controller has no more inputs than so many. */
    private static Block console(int number, long page, int source) {
        Block console =
                Blocks.at(Blocks.block("console" + number, "serial:uart"), "registers", page);
        return source > MOST_SOURCES
                ? console
                : console.withInterrupt("irq", new InterruptWire("interrupts", "inputs", source));
    }
}
