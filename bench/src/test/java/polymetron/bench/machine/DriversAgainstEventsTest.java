package polymetron.bench.machine;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import polymetron.Shipped;
import polymetron.address.Address;
import polymetron.bench.block.BankModel;
import polymetron.edit.Edit;
import polymetron.edit.Editor;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterfaceRef;
import polymetron.library.Vlnv;
import polymetron.platform.Platform;

/**
 * Drivers that poll for events lose none, whenever they come: between the read of a status register and the write that
 * clears it as well. An event that comes while the same one is still pending is no event of its own: a register has one bit
 * for it.
 */
final class DriversAgainstEventsTest {
    private static final Editor EDITOR = new Editor(Shipped.LIBRARY);
    private static final int EVENTS = 300;

    /**
     * A block with a register in which ones that are written clear.
     *
     * @param offset of the register
     * @param bits events in it
     * @param take expression that takes events, and gives those that came
     */
    private record Polled(String type, int offset, int bits, String take) {
        String name() {
            return type.substring(type.indexOf(':') + 1).replace('-', '_');
        }
    }

    private static final List<Polled> POLLED =
            List.of(
                    new Polled("timer:general-timer", 16, 1, "general_timer_take_end(BASE)"),
                    new Polled("data-movement:ring-writer", 4, 15, "ring_writer_take(BASE, 15u)"),
                    new Polled(
                            "stream:threshold-trigger", 16, 3, "threshold_trigger_take(BASE, 3u)"),
                    new Polled("timer:pps-timestamp", 4, 7, "pps_timestamp_take(BASE, 7u)"),
                    new Polled(
                            "io:analog-monitor", 8, 15, "analog_monitor_take_changed(BASE, 15u)"),
                    new Polled("serial:spi-controller", 28, 7, "spi_take(BASE, 7u)"),
                    new Polled("serial:i2c-controller", 28, 1, "i2c_take_done(BASE)"),
                    new Polled(
                            "memory:flash-controller", 12, 1, "flash_controller_take_done(BASE)"),
                    new Polled("timer:watchdog", 16, 1, "watchdog_take_cause(BASE)"),
                    new Polled("data-movement:dma", 4, 1, "dma_take_sent(BASE)"),
                    new Polled("data-movement:dma", 68, 1, "dma_take_received(BASE)"),
                    new Polled("stream:fir-filter", 4, 1, "fir_filter_take_clipped(BASE)"),
                    new Polled(
                            "stream:converter-reader", 8, 1, "converter_reader_take_lost(BASE)"));

    @TempDir private Path folder;

    @Test
    void noEventIsLost() {
        List<Edit> edits = new ArrayList<>();
        List<String> added = new ArrayList<>();
        for (Polled each : POLLED) {
            if (added.contains(each.name())) {
                continue;
            }
            long base = 0x1010_0000L + 0x1_0000L * added.size();
            added.add(each.name());
            edits.add(
                    new Edit.AddBlock(
                            each.name(),
                            Vlnv.parse("polymetron:" + each.type() + ":1.0"),
                            Map.of()));
            edits.add(new Edit.SetDomain(each.name(), "clk", "main"));
            edits.add(new Edit.SetDomain(each.name(), "rst", "main"));
            edits.add(new Edit.Attach(each.name(), "registers", "system", new Address(base), null));
        }
        Platform platform = EDITOR.apply(Shipped.demo(), new Edit.Several("all", edits));
        ElaboratedPlatform elaborated = Shipped.elaborate(platform);
        Machine machine = new Machine(elaborated);
        machine.load(BuiltProgram.of(elaborated, folder, program()));
        int[] raised = raise(machine, new Random(7));
        machine.console().orElseThrow().arrive("s".getBytes(StandardCharsets.US_ASCII));
        machine.settle();
        StringBuilder expected = new StringBuilder();
        for (int index = 0; index < POLLED.size(); index++) {
            expected.append("%08x\n".formatted(raised[index]));
        }
        assertThat(BuiltProgram.says(machine, 0.1)).isEqualTo(expected.toString());
        assertThat(java.util.Arrays.stream(raised).min().orElse(0)).isGreaterThanOrEqualTo(EVENTS);
    }

    /** Counts what each of the functions gives until a character comes. */
    private static String program() {
        StringBuilder text = new StringBuilder();
        POLLED.stream()
                .map(each -> each.type().substring(each.type().indexOf(':') + 1).replace('-', '_'))
                .distinct()
                .forEach(driver -> text.append("#include \"drivers/%s.h\"\n".formatted(driver)));
        text.append(
                """
                static uint32_t count[%s];
                static uint32_t ones(uint32_t bits)
                {
                    uint32_t sum = 0u;
                    for (; bits != 0u; bits &= bits - 1u)
                        sum++;
                    return sum;
                }
                int main(void)
                {
                    while (!uart_has_received(PLATFORM_CONSOLE_BASE)) {
                """
                        .formatted(POLLED.size()));
        for (int index = 0; index < POLLED.size(); index++) {
            // The flash is memory as well, so its registers are named after their interface.
            String target =
                    POLLED.get(index)
                            .name()
                            .replace("flash_controller", "flash_controller_registers");
            String base = target.toUpperCase(java.util.Locale.ROOT) + "_BASE";
            text.append(
                    "        count[%s] += ones(%s);\n"
                            .formatted(index, POLLED.get(index).take().replace("BASE", base)));
        }
        return text.append(
                        """
                            }
                            for (unsigned at = 0u; at < sizeof count / sizeof *count; at++) {
                                print_hex(count[at]);
                                print("\\n");
                            }
                            for (;;) {
                            }
                        }
                        """)
                .toString();
    }

    /** Raises events at any instruction; returns how many of each block. */
    private static int[] raise(Machine machine, Random random) {
        machine.run(2_000);
        int[] raised = new int[POLLED.size()];
        for (int round = 0; java.util.Arrays.stream(raised).min().orElse(0) < EVENTS; round++) {
            assertThat(round).as("the program takes what comes").isLessThan(10_000_000);
            machine.run(1 + random.nextInt(9));
            int index = random.nextInt(POLLED.size());
            Polled each = POLLED.get(index);
            int bit = 1 << random.nextInt(Integer.bitCount(each.bits()));
            // Rarely, so that events come at any place of the program's loop, not only behind the
            // last take.
            if (random.nextInt(20) == 0 && raise(machine, each, bit)) {
                raised[index]++;
            }
        }
        // What is still pending is taken before the count is read.
        machine.run(5_000);
        return raised;
    }

    private static boolean raise(Machine machine, Polled each, int bit) {
        var model = machine.model(new InterfaceRef(each.name(), "registers")).orElseThrow();
        boolean isTimer = each.type().endsWith("general-timer");
        if (!isTimer && model instanceof BankModel registers) {
            boolean isNew = (registers.peek(each.offset()) & bit) == 0;
            registers.raise(each.offset(), isNew ? bit : 0);
            return isNew;
        }
        // A timer of one count: its end comes some cycles later, so the next one is not started
        // before it was taken.
        if (model.peek(0) != 0 || model.peek(each.offset()) != 0) {
            return false;
        }
        model.write(4, 3, -1);
        model.write(0, 1, -1);
        machine.settle();
        return true;
    }
}
