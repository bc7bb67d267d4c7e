package polymetron.wiring;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import polymetron.address.Address;
import polymetron.bus.Adapter;
import polymetron.bus.Adapters;
import polymetron.edit.Edit;
import polymetron.elaborate.Bridge;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedBus;
import polymetron.elaborate.InitiatorPort;
import polymetron.elaborate.InterfaceRef;
import polymetron.elaborate.SizedInterface;
import polymetron.elaborate.TargetRange;
import polymetron.library.Role;
import polymetron.placement.Placement;

/** Bus interfaces onto the buses that need the least between, targets at free places. */
final class AttachmentLines {
    private final Draft draft;

    AttachmentLines(Draft draft) {
        this.draft = draft;
    }

    /**
     * @param bridges whether bridges are attached, upstream, or everything else
     */
    void attachLoose(boolean bridges) {
        for (Role role : Role.values()) {
            for (ElaboratedBlock block : draft.blocksByName()) {
                for (SizedInterface form : block.shape().busInterfaces()) {
                    boolean unconnected = !block.block().attachments().containsKey(form.name());
                    Bridge bridge = block.shape().bridge();
                    boolean isOwnDownstream = bridge != null && bridge.passesOn(form);
                    if (form.type().role() == role
                            && form.isForBus()
                            && unconnected
                            && bridges == (bridge != null)
                            && !isOwnDownstream) {
                        attach(block, form);
                    }
                }
            }
        }
    }

    void attach(ElaboratedBlock block, SizedInterface form) {
        InterfaceRef ref = new InterfaceRef(block.name(), form.name());
        List<ElaboratedBus> fitting = fitting(form);
        if (fitting.isEmpty()) {
            return;
        }
        String key = "attach:" + ref;
        if (fitting.size() == 1) {
            Edit edit = attachEdit(fitting.getFirst(), ref, form);
            if (edit != null) {
                draft.propose(
                        key,
                        Proposal.Kind.ATTACHMENT,
                        attachWords(edit, ref, form),
                        attachReason(edit, form),
                        edit);
            }
            return;
        }
        List<Proposal.Choice> choices = new ArrayList<>();
        for (ElaboratedBus bus : fitting) {
            Edit edit = attachEdit(bus, ref, form);
            if (edit != null) {
                choices.add(new Proposal.Choice(bus.name(), List.of(edit)));
            }
        }
        draft.offer(
                key,
                Proposal.Kind.ATTACHMENT,
                "%s on one of %s buses".formatted(ref, choices.size()),
                "several buses are as good for it; choose one",
                choices);
    }

    /** Buses that need the least between: memory stays on the processors' buses where it can. */
    List<ElaboratedBus> fitting(SizedInterface form) {
        if (form.isTarget()
                && draft.decisions().bus() != null
                && draft.now().bus(draft.decisions().bus()).isPresent()) {
            return List.of(draft.now().bus(draft.decisions().bus()).get());
        }
        List<ElaboratedBus> possible =
                draft.now().buses().stream()
                        .filter(
                                bus ->
                                        Adapters.canJoin(
                                                form.type().protocols(), bus.bus().protocol()))
                        .filter(bus -> form.isTarget() || !bus.isBehindBridge())
                        .filter(bus -> !isPrivate(bus))
                        .filter(bus -> form.isTarget() || takesMore(bus) && seesAll(form, bus))
                        .toList();
        List<ElaboratedBus> near = possible.stream().filter(bus -> !bus.isBehindBridge()).toList();
        if (form.isMemory() && !near.isEmpty()) {
            possible = near;
        }
        return cheapest(possible, form);
    }

    private static boolean takesMore(ElaboratedBus bus) {
        return !bus.bus().protocol().hasOneInitiator() || bus.initiators().isEmpty();
    }

    /** An initiator that passes on some addresses only is no good where others are in use already. */
    private static boolean seesAll(SizedInterface form, ElaboratedBus bus) {
        return form.place() == null
                || bus.placed().stream().allMatch(target -> form.place().contains(target.range()));
    }

    /** The buses that need the least logic between; several where they need the same. */
    private static List<ElaboratedBus> cheapest(List<ElaboratedBus> buses, SizedInterface form) {
        int least = buses.stream().mapToInt(bus -> between(bus, form)).min().orElse(0);
        return buses.stream().filter(bus -> between(bus, form) == least).toList();
    }

    private static int between(ElaboratedBus bus, SizedInterface form) {
        int bits = form.addressBits();
        Adapters.Side own =
                new Adapters.Side(form.type().protocols(), form.dataWidth(), bits, null);
        Adapters.Side its =
                new Adapters.Side(List.of(bus.bus().protocol()), bus.bus().dataWidth(), bits, null);
        return Adapters.between(own, its, form.isTarget()).stream()
                .mapToInt(Adapter::lookupTables)
                .sum();
    }

    /** Whether a bus is there for an instruction side and a port of its memory only, and better stays so. */
    private static boolean isPrivate(ElaboratedBus bus) {
        return !bus.placed().isEmpty()
                && bus.initiators().stream().allMatch(InitiatorPort::fetches)
                && bus.placed().stream().allMatch(AttachmentLines::isSecondPort);
    }

    private static boolean isSecondPort(TargetRange target) {
        return target.form().isMemory()
                && target.block().shape().busInterfaces().stream()
                        .filter(SizedInterface::isMemory)
                        .findFirst()
                        .filter(first -> !first.name().equals(target.form().name()))
                        .isPresent();
    }

    private Edit attachEdit(ElaboratedBus bus, InterfaceRef ref, SizedInterface form) {
        if (!form.isTarget()) {
            return new Edit.Attach(ref.block(), ref.name(), bus.name(), null, null);
        }
        Optional<Address> place =
                draft.decisions().near() == null
                        ? Placement.baseFor(bus, ref, form)
                        : Placement.baseNear(bus, ref, form, draft.decisions().near());
        return place.<Edit>map(
                        base -> new Edit.Attach(ref.block(), ref.name(), bus.name(), base, null))
                .orElse(null);
    }

    private static String attachWords(Edit edit, InterfaceRef ref, SizedInterface form) {
        Edit.Attach attach = (Edit.Attach) edit;
        return form.isTarget()
                ? "%s on %s at %s, %s"
                        .formatted(
                                ref,
                                attach.bus(),
                                attach.base(),
                                Address.formatSize(form.sizeBytes()))
                : "%s on %s".formatted(ref, attach.bus());
    }

    private String attachReason(Edit edit, SizedInterface form) {
        String only =
                draft.now().buses().size() == 1
                        ? "the only bus"
                        : draft.decisions().bus() != null && form.isTarget()
                                ? "the bus that you chose"
                                : "the bus that needs the fewest adapters";
        if (!form.isTarget()) {
            if (form.onlyFetches()) {
                return only + "; reaches executable memory only";
            }
            return Boolean.TRUE.equals(form.type().memoryOnly())
                    ? only + "; reaches memory only, because it moves data"
                    : only;
        }
        boolean reached =
                draft.now().bus(((Edit.Attach) edit).bus()).stream()
                        .anyMatch(bus -> !bus.initiators().isEmpty());
        String place =
                draft.decisions().near() != null
                        ? "first place from the chosen gap on, aligned to its size"
                        : form.isMemory()
                                ? "lowest free place for memory, aligned to its size"
                                : "lowest free place for registers, aligned to its size";
        return only + (reached ? "; " : ", though no initiator is on it yet; ") + place;
    }

    void placeUnplaced() {
        for (ElaboratedBus bus : draft.now().buses()) {
            for (var target : List.copyOf(bus.unplaced())) {
                Placement.baseFor(
                                draft.now().bus(bus.name()).orElseThrow(),
                                target.ref(),
                                target.form())
                        .ifPresent(
                                base ->
                                        draft.propose(
                                                "place:" + target.ref(),
                                                Proposal.Kind.ATTACHMENT,
                                                "%s at %s".formatted(target.ref(), base),
                                                "lowest free place, aligned to its size",
                                                new Edit.Attach(
                                                        target.block().name(),
                                                        target.form().name(),
                                                        bus.name(),
                                                        base,
                                                        target.held())));
            }
        }
    }
}
