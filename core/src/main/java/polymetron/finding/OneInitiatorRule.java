package polymetron.finding;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import polymetron.bus.Protocol;
import polymetron.edit.Edit;
import polymetron.elaborate.ElaboratedBus;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InitiatorPort;
import polymetron.platform.Bus;

/** A protocol for one initiator has several. */
final class OneInitiatorRule implements Rule {
    @Override
    public String id() {
        return "one-initiator";
    }

    @Override
    public Grade grade() {
        return Grade.ERROR;
    }

    @Override
    public String title() {
        return "Several initiators on a bus for one";
    }

    @Override
    public String explanation() {
        return "The protocol has no signals by which initiators could take turns (Arm IHI 0024 for"
                + " APB, IHI 0033 for AHB-Lite).";
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        for (ElaboratedBus bus : platform.buses()) {
            Protocol protocol = bus.bus().protocol();
            if (!protocol.hasOneInitiator() || bus.initiators().size() < 2) {
                continue;
            }
            report.accept(
                    finding(
                            bus.name(),
                            "%s speaks %s, which has one initiator, but %s are on it"
                                    .formatted(
                                            bus.name(),
                                            protocol.title(),
                                            bus.initiators().stream()
                                                    .map(InitiatorPort::label)
                                                    .collect(Collectors.joining(", "))),
                            fixes(bus)));
        }
    }

    private static List<Fix> fixes(ElaboratedBus bus) {
        Bus old = bus.bus();
        List<Fix> fixes = new ArrayList<>();
        for (Protocol protocol : Protocol.values()) {
            if (!protocol.hasOneInitiator() && protocol.dataWidths().contains(old.dataWidth())) {
                fixes.add(
                        new Fix(
                                "Make %s an %s bus".formatted(old.name(), protocol.title()),
                                new Edit.ChangeBus(old.withProtocol(protocol))));
            }
        }
        return fixes;
    }
}
