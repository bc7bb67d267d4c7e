package polymetron.interrupt;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import polymetron.Shipped;
import polymetron.edit.Edit;
import polymetron.edit.Editor;
import polymetron.interrupt.InterruptMap.Port;
import polymetron.platform.Platform;

/** Numbers on both sides, and where software sets them: RISC-V PLIC 1.0.0, memory map; Privileged ISA, mcause. */
final class InterruptMapTest {
    private static Port port(Platform platform, String ref) {
        return InterruptMap.of(Shipped.elaborate(platform)).ports().stream()
                .filter(port -> port.ref().toString().equals(ref))
                .findFirst()
                .orElseThrow();
    }

    @Test
    void sourcesOfTheControllerCountFromOneAndItsWiresFromZero() {
        Port inputs = port(Shipped.demo(), "interrupts.inputs");
        assertThat(inputs.port().first()).isEqualTo(1);
        assertThat(inputs.hardwareLine(1)).isZero();
        assertThat(inputs.softwareNumber(1)).isEqualTo(1);
        assertThat(inputs.controllerBase()).hasToString("0x1400_0000");
        assertThat(inputs.priorityAddress(5)).hasToString("0x1400_0014");
        assertThat(inputs.enableAddress(5)).hasToString("0x1400_2000");
        assertThat(inputs.enableAddress(33)).hasToString("0x1400_2004");
        assertThat(inputs.thresholdAddress()).hasToString("0x1420_0000");
        assertThat(inputs.unused()).isEqualTo(inputs.port().count() - inputs.inputs().size());
    }

    @Test
    void linesOfTheHartHaveTheCausesOfTheSpecification() {
        Platform demo = Shipped.demo();
        assertThat(port(demo, "cpu.software").softwareNumber(0)).isEqualTo(3);
        assertThat(port(demo, "cpu.timer").softwareNumber(0)).isEqualTo(7);
        assertThat(port(demo, "cpu.external").softwareNumber(0)).isEqualTo(11);
    }

    @Test
    void sharedAndOpenSourcesAreTold() {
        Platform shared =
                new Editor(Shipped.LIBRARY)
                        .apply(
                                Shipped.recipe("acquisition"),
                                new Edit.ConnectInterrupt(
                                        "console", "irq", "interrupts", "inputs", 1));
        assertThat(port(shared, "interrupts.inputs").inputs().get(1)).hasSize(2);
        Platform open =
                new Editor(Shipped.LIBRARY)
                        .apply(Shipped.demo(), new Edit.DisconnectInterrupt("console", "irq"));
        assertThat(InterruptMap.of(Shipped.elaborate(open)).open())
                .extracting(link -> link.ref().toString())
                .containsExactly("console.irq");
    }

    /** The hard complex has lines of its own: its first input from the logic is number 32 for software. */
    @Test
    void theHardComplexNumbersItsLinesItself() {
        Port logic = port(Shipped.recipe("lock"), "complex.logic");
        assertThat(logic.softwareNumber(logic.port().first())).isEqualTo(32);
        assertThat(logic.hardwareLine(logic.port().first())).isZero();
        assertThat(logic.priorityAddress(32)).isNull();
    }
}
