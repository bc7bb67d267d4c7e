package polymetron.finding;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;
import polymetron.Shipped;
import polymetron.edit.Edit;

final class ConsequencesTest {
    private static List<String> of(Edit edit) {
        return Consequences.of(Shipped.LIBRARY, Shipped.demo(), edit).stream()
                .map(finding -> finding.rule() + " " + finding.subject())
                .toList();
    }

    @Test
    void aRemovalSaysWhatDependsOnTheBlock() {
        assertThat(of(new Edit.RemoveBlock("lamps"))).isEmpty();
        assertThat(of(new Edit.RemoveBlock("interrupts")))
                .containsExactlyInAnyOrder(
                        "interrupt-open console.irq", "interrupt-open service.irq");
        assertThat(of(new Edit.RemoveBlock("code")))
                .contains(
                        "initiator-without-memory cpu.data",
                        "initiator-without-memory cpu.instruction");
        assertThat(of(new Edit.RemoveBlock("cpu"))).contains("target-unreached lamps.registers");
    }
}
