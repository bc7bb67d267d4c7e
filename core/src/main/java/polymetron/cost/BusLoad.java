package polymetron.cost;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import polymetron.bus.Protocol;
import polymetron.elaborate.AddressSpace;
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
     * @param traffic bandwidth that it requires, in bytes a second
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
                busy(platform, space)
                        .forEach(
                                (name, perByte) ->
                                        shares.get(name)
                                                .add(
                                                        new Share(
                                                                space.initiator().ref(),
                                                                space.initiator().label(),
                                                                traffic,
                                                                traffic * perByte)));
            }
        }
        List<BusLoad> loads = new ArrayList<>();
        for (ElaboratedBus bus : platform.buses()) {
            int longest =
                    bus.initiators().stream()
                            .mapToInt(each -> Bursts.onBus(bus, each))
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

    /** Bandwidth that an initiator requires, in bytes a second; 0 when it is not specified. */
    private static long traffic(AddressSpace space) {
        Attachment at = space.initiator().attachment();
        return at == null || at.traffic() == null ? 0 : at.traffic();
    }

    /**
     * Seconds for which a byte keeps each bus busy on the way to the writable memory that costs the initiator most (traffic is
     * data that is kept somewhere): the cycles of that way. An initiator that reaches no memory keeps its own bus busy for as
     * long as the protocol takes.
     */
    private static Map<String, Double> busy(ElaboratedPlatform platform, AddressSpace space) {
        AccessCost furthest = null;
        boolean canWrite = space.ranges().stream().anyMatch(BusLoad::isWritableMemory);
        for (TargetRange target : space.ranges()) {
            if (canWrite ? isWritableMemory(target) : target.form().isMemory()) {
                AccessCost cost = AccessCost.of(platform, space, target);
                if (furthest == null || cost.cycles() > furthest.cycles()) {
                    furthest = cost;
                }
            }
        }
        Map<String, Double> busy = new LinkedHashMap<>();
        if (furthest == null) {
            double capacity =
                    capacity(platform, space.bus(), Bursts.onBus(space.bus(), space.initiator()));
            busy.put(space.bus().name(), capacity == 0 ? 0 : 1 / capacity);
            return busy;
        }
        for (Map.Entry<String, Span> each : furthest.onBuses().entrySet()) {
            ElaboratedBus bus = platform.busIndex().get(each.getKey());
            long hertz = platform.frequencyHz(bus);
            // Behind a bridge each transfer is an access of its own.
            int transfers = bus.equals(space.bus()) ? Bursts.onBus(bus, space.initiator()) : 1;
            long bytes = Math.min(space.initiator().form().dataWidth(), bus.bus().dataWidth()) / 8;
            double cycles = each.getValue().most() + (transfers - 1) * furthest.nextCycles();
            busy.put(bus.name(), hertz == 0 ? 0 : cycles / hertz / (transfers * bytes));
        }
        return busy;
    }

    private static boolean isWritableMemory(TargetRange target) {
        return target.form().isMemory() && target.form().isWritable();
    }

    /** Bytes a second of a bus with bursts of a length, one after the other. */
    static double capacity(ElaboratedPlatform platform, ElaboratedBus bus, int burst) {
        Protocol protocol = bus.bus().protocol();
        int transfers = Math.max(1, Math.min(burst, protocol.longestBurst()));
        double cycles = protocol.readCycles() + transfers - 1;
        return (double) transfers * bus.bus().dataWidth() / 8 * platform.frequencyHz(bus) / cycles;
    }
}
