package polymetron.cost;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import polymetron.bus.Protocol;
import polymetron.elaborate.AddressSpace;
import polymetron.elaborate.Bridge;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedBus;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterfaceRef;
import polymetron.elaborate.TargetRange;
import polymetron.platform.Attachment;

/**
 * What a bus can carry, and what the initiators that said how much they move take of it. An initiator's traffic goes to
 * the memory that costs it most, over every bus on the way. Processors say nothing about their traffic, so what is left is
 * what they have.
 *
 * @param clockHz clock of the bus; 0 when it is not known
 * @param singlesPerSecond bytes a second with single transfers
 * @param burstsPerSecond bytes a second with bursts as long as the initiators' and the protocol's longest
 * @param shares who takes which part of the bus's time
 */
public record BusLoad(
        ElaboratedBus bus,
        long clockHz,
        double singlesPerSecond,
        double burstsPerSecond,
        List<Share> shares) {
    /**
     * The time that one initiator takes of a bus.
     *
     * @param traffic bytes a second that it has to move
     * @param part part of the bus's time; 1 for all of it
     */
    public record Share(InterfaceRef initiator, String label, long traffic, double part) {}

    /** Part of the bus's time that is taken; above 1 it does not add up. */
    public double busy() {
        return shares.stream().mapToDouble(Share::part).sum();
    }

    /** The load of every bus, in the order of the document. */
    public static List<BusLoad> of(ElaboratedPlatform platform) {
        Map<String, List<Share>> shares = new LinkedHashMap<>();
        platform.buses().forEach(bus -> shares.put(bus.name(), new ArrayList<>()));
        for (AddressSpace space : platform.spaces()) {
            long traffic = traffic(space);
            if (traffic > 0 && space.bus() != null) {
                for (String name : way(platform, space)) {
                    ElaboratedBus bus = platform.busIndex().get(name);
                    double capacity = capacity(platform, bus, space.initiator().form().burst());
                    shares.get(name)
                            .add(
                                    new Share(
                                            space.initiator().ref(),
                                            space.initiator().label(),
                                            traffic,
                                            capacity == 0 ? 0 : traffic / capacity));
                }
            }
        }
        List<BusLoad> loads = new ArrayList<>();
        for (ElaboratedBus bus : platform.buses()) {
            int longest =
                    bus.initiators().stream()
                            .mapToInt(initiator -> initiator.form().burst())
                            .max()
                            .orElse(1);
            loads.add(
                    new BusLoad(
                            bus,
                            platform.frequencyHz(bus),
                            capacity(platform, bus, 1),
                            capacity(platform, bus, longest),
                            List.copyOf(shares.get(bus.name()))));
        }
        return List.copyOf(loads);
    }

    /** Bytes a second that an initiator has to move; 0 when nobody said. */
    private static long traffic(AddressSpace space) {
        Attachment at = space.initiator().attachment();
        return at == null || at.traffic() == null ? 0 : at.traffic();
    }

    /** The buses between an initiator and the memory that costs it most; its own when it reaches none. */
    private static Set<String> way(ElaboratedPlatform platform, AddressSpace space) {
        TargetRange furthest = null;
        long most = -1;
        for (TargetRange target : space.ranges()) {
            if (target.form().isMemory()) {
                long cycles = AccessCost.of(platform, space, target).cycles();
                if (cycles > most) {
                    most = cycles;
                    furthest = target;
                }
            }
        }
        Set<String> buses = new LinkedHashSet<>(List.of(space.bus().name()));
        for (String name : furthest == null ? List.<String>of() : furthest.via()) {
            ElaboratedBlock block = platform.blockIndex().get(name);
            Bridge bridge = block.shape().bridge();
            buses.add(block.block().attachments().get(bridge.downstream()).bus());
        }
        return buses;
    }

    /** Bytes a second of a bus with bursts of a length, one after the other. */
    static double capacity(ElaboratedPlatform platform, ElaboratedBus bus, int burst) {
        Protocol protocol = bus.bus().protocol();
        int transfers = Math.max(1, Math.min(burst, protocol.longestBurst()));
        double cycles = protocol.readCycles() + transfers - 1;
        return (double) transfers * bus.bus().dataWidth() / 8 * platform.frequencyHz(bus) / cycles;
    }
}
