package polymetron.cost;

import java.util.HashMap;
import java.util.HashSet;
import java.util.Map;
import java.util.Set;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedBus;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterfaceRef;
import polymetron.elaborate.Pass;
import polymetron.elaborate.TargetRange;

/**
 * How long an access may wait for its turn on a bus. In turn, each of the others has one access before, and it may be to the
 * slowest target; the first by priority waits for one that has begun, and the others without an end.
 */
final class BusWaits {
    /** Of every bus the longest access. */
    static final Pass<BusWaits> PASS = Pass.named("waits on buses", BusWaits::new);

    private final ElaboratedPlatform platform;

    /** By bus, in its clock: the longest that one access keeps it, with the choice of whose turn it is. */
    private final Map<String, Double> longest = new HashMap<>();

    private final Set<String> open = new HashSet<>();

    private BusWaits(ElaboratedPlatform platform) {
        this.platform = platform;
        platform.buses().forEach(this::longest);
    }

    /** Most cycles of the bus before an initiator has its turn; infinite where there is no limit. */
    double before(ElaboratedBus bus, InterfaceRef initiator) {
        int others = bus.initiators().size() - 1;
        if (others == 0) {
            return 0;
        }
        // Of a bus that leads back to itself it is not known.
        double one = longest.getOrDefault(bus.name(), 0.0);
        if (!bus.bus().goesByPriority()) {
            return others * one;
        }
        boolean isFirst = bus.inOrder().getFirst().ref().equals(initiator);
        return isFirst ? one : Double.POSITIVE_INFINITY;
    }

    private static int longestBurst(ElaboratedBus bus) {
        return bus.initiators().stream().mapToInt(each -> Bursts.onBus(bus, each)).max().orElse(1);
    }

    private double longest(ElaboratedBus bus) {
        Double known = longest.get(bus.name());
        if (known != null) {
            return known;
        }
        // Loops of bridges are an error elsewhere.
        if (!open.add(bus.name())) {
            return 0;
        }
        double most = AccessWay.nowhere(bus).worst().most();
        for (TargetRange target : bus.placed()) {
            AccessWay way = new AccessWay(platform, this);
            if (target.isWindow()) {
                ElaboratedBlock bridge = target.block();
                ElaboratedBus below = way.below(bridge);
                if (below == null) {
                    continue;
                }
                // On the bus below the bridge is one initiator, with the slowest target there.
                InterfaceRef behind = AccessWay.behind(bridge);
                way.arriveAfter(longest(below) + before(below, behind));
                way.leave(below, behind);
                way.bridge(bus, bridge);
            } else {
                way.arrive(bus, target, longestBurst(bus) > 1);
            }
            most =
                    Math.max(
                            most,
                            way.course().worst().most()
                                    + (longestBurst(bus) - 1) * way.worstNext());
        }
        boolean isShared = bus.initiators().size() > 1;
        double all = isShared ? 2 * most + AccessWay.ARBITRATION_CYCLES : most;
        longest.put(bus.name(), all);
        return all;
    }
}
