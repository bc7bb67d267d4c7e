package polymetron.finding;

import java.util.List;
import java.util.function.Consumer;
import polymetron.bus.Protocol;
import polymetron.edit.Edit;
import polymetron.elaborate.ElaboratedBus;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.Field;
import polymetron.elaborate.Register;
import polymetron.elaborate.TargetRange;
import polymetron.library.OnRead;

/**
 * Registers that reading changes, on a wider bus whose reads name no bytes: AXI4-Lite reads its full width (Arm IHI 0022, B1.1.1),
 * so the width adapter reads the neighbour as well.
 */
final class WideReadRule extends PlainRule {
    WideReadRule() {
        super(
                "wide-read",
                Grade.ERROR,
                "A read that reaches other registers",
                "A read on this bus does not name its bytes, so it reads every register in the"
                        + " width of the bus, and those change that reading changes. Use a protocol"
                        + " whose reads have a size, or a bus as wide as the registers.");
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        for (ElaboratedBus bus : platform.buses()) {
            if (bus.bus().protocol() != Protocol.AXI4_LITE) {
                continue;
            }
            for (TargetRange target : bus.placed()) {
                if (bus.bus().dataWidth() <= target.form().dataWidth()) {
                    continue;
                }
                target.registers().stream()
                        .filter(WideReadRule::changesWhenRead)
                        .findFirst()
                        .ifPresent(register -> report.accept(found(bus, target, register)));
            }
        }
    }

    private static boolean changesWhenRead(Register register) {
        return register.fields().stream()
                .map(Field::type)
                .anyMatch(field -> field.onRead() != null && field.onRead() != OnRead.NONE);
    }

    private Finding found(ElaboratedBus bus, TargetRange target, Register register) {
        return finding(
                target.ref(),
                "%s has %s bits and %s has %s: a read beside %s changes it"
                        .formatted(
                                bus.name(),
                                bus.bus().dataWidth(),
                                target.label(),
                                target.form().dataWidth(),
                                register.name()),
                List.of(
                        new Fix(
                                "Make %s an AXI4 bus".formatted(bus.name()),
                                new Edit.ChangeBus(bus.bus().withProtocol(Protocol.AXI4)))));
    }
}
