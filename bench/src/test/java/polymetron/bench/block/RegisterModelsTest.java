package polymetron.bench.block;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import polymetron.Shipped;
import polymetron.elaborate.BlockShape;
import polymetron.elaborate.Register;
import polymetron.library.Capability;
import polymetron.library.Vlnv;

/** Interrupt controller (RISC-V PLIC 1.0.0), machine timer (RISC-V ACLINT 1.0) and GPIO. */
final class RegisterModelsTest {
    private long cycle;

    /** A level comes or goes, and the cycle in which it is seen. */
    private void input(InterruptControllerModel controller, int input, boolean high) {
        controller.setInput(input, high);
        controller.advance(++cycle);
    }

    private static final int ENABLE = 0x2000;
    private static final int THRESHOLD = 0x20_0000;
    private static final int CLAIM = 0x20_0004;

    private final InterruptControllerModel controller =
            new InterruptControllerModel(
                    bank("interrupt:interrupt-controller", Map.of("SOURCES", "40")), 40, 1);
    private final MachineTimerModel timer =
            new MachineTimerModel(bank("timer:machine-timer", Map.of("DIVIDER", "4")), 4, 1);

    private static int priority(int source) {
        return 4 * source;
    }

    @Test
    void handsOutTheMostUrgentSourceAndOfEqualOnesTheLowest() {
        int[][] priorities = {{3, 2}, {7, 5}, {9, 5}, {33, 1}};
        for (int[] each : priorities) {
            controller.write(priority(each[0]), each[1], -1);
            input(controller, each[0], true);
        }
        controller.write(ENABLE, 1 << 3 | 1 << 7 | 1 << 9, -1);
        controller.write(ENABLE + 4, 1 << 1, -1);
        assertThat(controller.interrupts(0)).isTrue();
        assertThat(controller.read(CLAIM)).isEqualTo(7);
        assertThat(controller.read(CLAIM)).isEqualTo(9);
        assertThat(controller.read(CLAIM)).isEqualTo(3);
        assertThat(controller.read(CLAIM)).isEqualTo(33);
        assertThat(controller.read(CLAIM)).isZero();
        assertThat(controller.interrupts(0)).isFalse();
    }

    @Test
    void thresholdAndPriorityZeroKeepSourcesQuiet() {
        input(controller, 5, true);
        controller.write(ENABLE, 1 << 5, -1);
        assertThat(controller.interrupts(0)).as("priority 0").isFalse();
        controller.write(priority(5), 3, -1);
        controller.write(THRESHOLD, 3, -1);
        assertThat(controller.interrupts(0)).as("not above the threshold").isFalse();
        // A claim is not affected by the threshold (chapter "Interrupt Claim Process").
        assertThat(controller.peek(CLAIM)).isEqualTo(5);
        controller.write(THRESHOLD, 2, -1);
        assertThat(controller.interrupts(0)).isTrue();
        controller.write(priority(5), 0xFF, -1);
        assertThat(controller.read(priority(5))).as("three priority bits").isEqualTo(7);
    }

    @Test
    void aLevelAsksAgainOnlyAfterCompletion() {
        controller.write(priority(1), 1, -1);
        controller.write(ENABLE, 2, -1);
        input(controller, 1, true);
        assertThat(controller.read(0x1000)).isEqualTo(2);
        assertThat(controller.read(CLAIM)).isEqualTo(1);
        input(controller, 1, true);
        assertThat(controller.interrupts(0)).isFalse();
        controller.write(CLAIM, 1, -1);
        assertThat(controller.interrupts(0)).as("still high").isTrue();
        controller.read(CLAIM);
        input(controller, 1, false);
        controller.write(CLAIM, 1, -1);
        assertThat(controller.interrupts(0)).isFalse();
    }

    @Test
    void sourceZeroAndMissingSourcesAreNothing() {
        input(controller, 0, true);
        input(controller, 41, true);
        controller.write(ENABLE, -1, -1);
        controller.write(ENABLE + 4, -1, -1);
        assertThat(controller.read(ENABLE) & 1).isZero();
        assertThat(controller.read(ENABLE + 4)).isEqualTo(0x1FF);
        assertThat(controller.read(CLAIM)).isZero();
    }

    @Test
    void timerAsksFromItsCompareValueOn() {
        timer.write(0x4000, 10, -1);
        timer.write(0x4004, 0, -1);
        assertThat(timer.nextEvent()).isEqualTo(40);
        timer.advance(39);
        assertThat(timer.isDue(0)).isFalse();
        timer.advance(40);
        assertThat(timer.read(0xBFF8)).isEqualTo(10);
        assertThat(timer.isDue(0)).isTrue();
        timer.write(0x4000, 11, -1);
        assertThat(timer.isDue(0)).isFalse();
    }

    @Test
    void timerHas64BitsThatSoftwareCanSet() {
        timer.write(0xBFF8, -2, -1);
        timer.write(0xBFFC, 5, -1);
        timer.advance(8);
        assertThat(timer.read(0xBFF8)).isZero();
        assertThat(timer.read(0xBFFC)).isEqualTo(6);
        timer.write(0, 0xFFFF_FFFF, -1);
        assertThat(timer.read(0)).isEqualTo(1);
        assertThat(timer.isSignalled(0)).isTrue();
    }

    @Test
    void linesNoticeTheEdgesThatWereAskedFor() {
        GpioModel lines = lines(Map.of("WIDTH", "4", "DIRECTION", "in", "EDGE_INTERRUPT", "1"), 4);
        lines.write(0x0C, 0b0011, -1);
        lines.write(0x10, 0b0100, -1);
        lines.setOutside(0b1101);
        assertThat(lines.read(0)).isEqualTo(0b1101);
        assertThat(lines.read(0x14)).isEqualTo(0b0001);
        lines.setOutside(0b11_0000);
        assertThat(lines.read(0)).isZero();
        assertThat(lines.read(0x14)).isEqualTo(0b0101);
        lines.write(0x14, 0b0001, -1);
        assertThat(lines.interrupt("irq")).isTrue();
        lines.write(0x14, 0b0100, -1);
        assertThat(lines.interrupt("irq")).isFalse();
        lines.write(0x04, 0xF, -1);
        assertThat(lines.driven()).as("inputs drive nothing").isZero();
    }

    @Test
    void bidirectionalLinesDriveOnlyWhatTheyAreTold() {
        GpioModel lines =
                lines(Map.of("WIDTH", "8", "DIRECTION", "both", "OUTPUT_RESET", "160"), 8);
        assertThat(lines.driven()).isZero();
        lines.write(0x08, 0xF0, -1);
        lines.setOutside(0x0F);
        assertThat(lines.driven()).isEqualTo(0b1010_0000);
        assertThat(lines.read(0)).isEqualTo(0b1010_1111);
        lines.write(0x04, 0x5500, 0xFF00);
        assertThat(lines.driven()).as("byte enables").isEqualTo(0b1010_0000);
    }

    private static GpioModel lines(Map<String, String> parameters, int count) {
        Vlnv identity = Vlnv.parse("polymetron:io:gpio:1.0");
        Capability.Lines roles =
                Shipped.LIBRARY
                        .type(identity)
                        .orElseThrow()
                        .provides(Capability.Lines.class)
                        .getFirst();
        return new GpioModel(bank("io:gpio", parameters), roles, (1L << count) - 1);
    }

    private static RegisterBank bank(String block, Map<String, String> parameters) {
        return new RegisterBank(registers(block, parameters), 100_000_000);
    }

    private static List<Register> registers(String block, Map<String, String> parameters) {
        Vlnv identity = Vlnv.parse("polymetron:" + block + ":1.0");
        return new BlockShape(Shipped.LIBRARY.type(identity).orElseThrow(), parameters).registers();
    }

    /** What the bench has no behaviour for keeps its registers, as their access allows. */
    @Test
    void otherBlocksKeepTheirRegisters() {
        RegisterFileModel spi =
                new RegisterFileModel(
                        registers("serial:spi-controller", Map.of("MODE", "3", "DIVIDER", "100")),
                        100_000_000);
        assertThat(spi.read(0x00)).as("mode 3").isEqualTo(6);
        assertThat(spi.read(0x08)).isEqualTo(100);
        spi.write(0x08, 0x1234_0008, 0xFFFF);
        assertThat(spi.read(0x08)).isEqualTo(8);
        spi.write(0x04, 0, -1);
        assertThat(spi.read(0x04)).as("read-only").isEqualTo(4);
        spi.write(0x10, 7, -1);
        assertThat(spi.read(0x10)).as("write-only").isZero();
        assertThat(spi.read(0x800)).isZero();
        spi.reset();
        assertThat(spi.read(0x08)).isEqualTo(100);
    }
}
