package polymetron.wiring;

import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import polymetron.bus.Protocol;
import polymetron.edit.Edit;
import polymetron.elaborate.Bridge;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.InitiatorPort;
import polymetron.elaborate.SizedInterface;
import polymetron.library.Kind;
import polymetron.platform.Bus;

/** The first bus, and a bus behind every bridge. */
final class BusLines {
    private final Draft draft;

    BusLines(Draft draft) {
        this.draft = draft;
    }

    /** The first bus speaks what the processor likes best, or whoever else wants to reach something. */
    void firstBus() {
        Optional<InitiatorPort> first =
                draft.blocksByName().stream()
                        .sorted(Comparator.comparing(block -> block.kind() != Kind.PROCESSOR))
                        .flatMap(
                                block ->
                                        block.shape().busInterfaces().stream()
                                                .filter(form -> !form.isTarget())
                                                .filter(SizedInterface::isForBus)
                                                .map(form -> new InitiatorPort(block, form)))
                        .filter(port -> !port.isBehindBridge())
                        .findFirst();
        if (!draft.now().buses().isEmpty() || first.isEmpty()) {
            return;
        }
        InitiatorPort port = first.get();
        Protocol protocol = port.form().type().protocols().getFirst();
        int width =
                protocol.dataWidths().contains(port.form().dataWidth())
                        ? port.form().dataWidth()
                        : 32;
        draft.propose(
                "bus",
                Proposal.Kind.BUS,
                "bus system, %s, %s-bit data, 32-bit addresses".formatted(protocol.title(), width),
                "%s is an initiator and there is no bus yet".formatted(port.ref()),
                new Edit.AddBus(
                        new Bus(
                                "system",
                                protocol,
                                width,
                                32,
                                port.block().domain(port.form().type().clock()))));
    }

    /** A bus behind every bridge that is on one itself. */
    void behindBridges() {
        for (ElaboratedBlock block : draft.blocksByName()) {
            Bridge bridge = block.shape().bridge();
            if (bridge == null
                    || block.block().attachments().containsKey(bridge.downstream())
                    || !block.block().attachments().containsKey(bridge.upstream())) {
                continue;
            }
            Edit.AddBus bus = NewBus.behind(draft.now(), block);
            draft.propose(
                    "bus:" + block.name(),
                    Proposal.Kind.BUS,
                    "bus %s behind %s, %s"
                            .formatted(
                                    bus.bus().name(), block.name(), bus.bus().protocol().title()),
                    "%s leads nowhere yet".formatted(block.name()),
                    new Edit.Several(
                            null,
                            List.of(
                                    bus,
                                    new Edit.Attach(
                                            block.name(),
                                            bridge.downstream(),
                                            bus.bus().name(),
                                            null,
                                            null))));
        }
    }
}
