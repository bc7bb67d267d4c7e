package polymetron.elaborate;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import polymetron.address.AddressRange;
import polymetron.address.FreeSpace;
import polymetron.bus.Adapter;
import polymetron.platform.Attachment;
import polymetron.platform.Bus;

/**
 * A bus with everything attached to it.
 *
 * @param placed targets that have a place, in address order
 * @param unplaced targets that have none yet
 * @param window addresses that can be used: all of them, or behind a bridge what its window shows
 * @param adapters what stands between an interface and the bus, for those that differ
 */
public record ElaboratedBus(
        Bus bus,
        List<InitiatorPort> initiators,
        List<TargetRange> placed,
        List<TargetRange> unplaced,
        AddressRange window,
        Map<InterfaceRef, List<Adapter>> adapters) {
    public ElaboratedBus {
        initiators = List.copyOf(initiators);
        placed = List.copyOf(placed);
        unplaced = List.copyOf(unplaced);
        adapters = Ordered.copyOf(adapters);
    }

    public String name() {
        return bus.name();
    }

    /** The initiators in the order of their priorities where these decide: 0 goes first, one without a priority last. */
    public List<InitiatorPort> inOrder() {
        return bus.goesByPriority()
                ? initiators.stream()
                        .sorted(Comparator.comparingInt(ElaboratedBus::priority))
                        .toList()
                : initiators;
    }

    private static int priority(InitiatorPort initiator) {
        Integer priority =
                initiator.attachment() == null ? null : initiator.attachment().priority();
        return priority == null ? Attachment.LAST_PRIORITY : priority;
    }

    /** All addresses that the bus has. */
    public AddressRange addresses() {
        return AddressRange.ofWidth(bus.addressWidth());
    }

    /** Those of the usable addresses that every initiator on the bus has lines for. */
    public AddressRange reachable() {
        AddressRange all = window;
        for (InitiatorPort initiator : initiators) {
            all = all.part(AddressRange.ofWidth(initiator.form().addressWidth())).orElse(all);
        }
        return all;
    }

    /** Whether only a bridge leads here, so that addresses count from its window. */
    public boolean isBehindBridge() {
        return !initiators.isEmpty() && initiators.stream().allMatch(InitiatorPort::isBehindBridge);
    }

    /** What stands between an interface and the bus, from the interface on. */
    public List<Adapter> adaptersOf(InterfaceRef ref) {
        return adapters.getOrDefault(ref, List.of());
    }

    public FreeSpace freeSpace() {
        return freeSpaceWithout(null);
    }

    /** The free space if one of the targets were not there. */
    public FreeSpace freeSpaceWithout(InterfaceRef target) {
        return free(window(), target);
    }

    /** The part of it that every initiator on the bus has lines for: where something new is put. */
    public FreeSpace reachableSpaceWithout(InterfaceRef target) {
        return free(reachable(), target);
    }

    private FreeSpace free(AddressRange within, InterfaceRef target) {
        List<AddressRange> taken = new ArrayList<>();
        kept().forEach(each -> taken.add(each.range()));
        for (TargetRange other : placed) {
            if (!other.ref().equals(target)) {
                taken.add(other.range());
            }
        }
        return new FreeSpace(within, taken);
    }

    /**
     * Addresses that nothing new is put at.
     *
     * @param what what is there, in words
     */
    public record Kept(AddressRange range, String what) {}

    /** What is reserved, and where an initiator sees something inside its own block. */
    public List<Kept> kept() {
        List<Kept> kept = new ArrayList<>();
        bus.reserved()
                .forEach(each -> kept.add(new Kept(each.range(), "reserved for " + each.name())));
        for (InitiatorPort initiator : initiators) {
            for (SizedInterface form : initiator.block().shape().busInterfaces()) {
                if (initiator.form().name().equals(form.type().seenBy())
                        && form.place() != null
                        && passesOn(initiator, form.place())) {
                    kept.add(
                            new Kept(
                                    form.place(),
                                    "%s inside %s"
                                            .formatted(form.name(), initiator.block().name())));
                }
            }
        }
        return kept;
    }

    private static boolean passesOn(InitiatorPort initiator, AddressRange range) {
        return initiator.form().place() == null || initiator.form().place().overlaps(range);
    }
}
