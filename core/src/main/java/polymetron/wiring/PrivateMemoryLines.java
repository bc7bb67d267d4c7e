package polymetron.wiring;

import java.util.ArrayList;
import java.util.List;
import polymetron.edit.Edit;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedBus;
import polymetron.elaborate.InitiatorPort;
import polymetron.elaborate.InterfaceRef;
import polymetron.elaborate.SizedInterface;
import polymetron.platform.Attachment;
import polymetron.platform.Bus;
import polymetron.platform.Names;

/** A memory with two ports between an instruction side and everybody else: one memory, at one address. */
final class PrivateMemoryLines {
    private final Draft draft;
    private final AttachmentLines attachments;

    PrivateMemoryLines(Draft draft, AttachmentLines attachments) {
        this.draft = draft;
        this.attachments = attachments;
    }

    /** The second port of a memory for the only unconnected instruction side: both then see one memory. */
    void plan() {
        for (ElaboratedBlock memory : draft.blocksByName()) {
            List<SizedInterface> ports =
                    memory.shape().busInterfaces().stream()
                            .filter(form -> form.isTarget() && form.isMemory())
                            .filter(form -> form.isForBus() && form.type().executable())
                            .filter(form -> !memory.block().attachments().containsKey(form.name()))
                            .toList();
            if (ports.size() == 2 && !draft.now().buses().isEmpty()) {
                List<InitiatorPort> fetching = looseFetching();
                if (fetching.size() == 1) {
                    between(memory, ports, fetching.getFirst());
                }
            }
        }
    }

    private List<InitiatorPort> looseFetching() {
        List<InitiatorPort> unconnected = new ArrayList<>();
        for (ElaboratedBlock block : draft.blocksByName()) {
            for (SizedInterface form : block.shape().busInterfaces()) {
                if (!form.isTarget()
                        && form.onlyFetches()
                        && !block.block().attachments().containsKey(form.name())) {
                    unconnected.add(new InitiatorPort(block, form));
                }
            }
        }
        return unconnected;
    }

    private void between(ElaboratedBlock memory, List<SizedInterface> ports, InitiatorPort side) {
        InterfaceRef common = new InterfaceRef(memory.name(), ports.getFirst().name());
        if (attachments.fitting(ports.getFirst()).size() == 1) {
            attachments.attach(memory, ports.getFirst());
        }
        Attachment at =
                draft.now()
                        .block(memory.name())
                        .orElseThrow()
                        .block()
                        .attachments()
                        .get(common.name());
        if (at == null || at.base() == null) {
            return;
        }
        String name =
                Names.free(
                        memory.name() + "_private",
                        draft.now().buses().stream().map(ElaboratedBus::name).toList());
        draft.propose(
                "private:" + memory.name(),
                Proposal.Kind.BUS,
                "bus %s between %s and %s.%s, at %s"
                        .formatted(name, side.ref(), memory.name(), ports.get(1).name(), at.base()),
                "the only unconnected instruction side fetches through the second port; at"
                        + " the same address on both, because it is one memory",
                new Edit.Several(
                        null,
                        List.of(
                                new Edit.AddBus(
                                        new Bus(
                                                name,
                                                side.form().type().protocols().getFirst(),
                                                side.form().dataWidth(),
                                                32,
                                                side.block().domain(null))),
                                new Edit.Attach(
                                        side.block().name(), side.form().name(), name, null, null),
                                new Edit.Attach(
                                        memory.name(),
                                        ports.get(1).name(),
                                        name,
                                        at.base(),
                                        null))));
    }
}
