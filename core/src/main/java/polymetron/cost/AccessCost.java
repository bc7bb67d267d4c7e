package polymetron.cost;

import java.util.ArrayList;
import java.util.List;
import polymetron.bus.Adapter;
import polymetron.bus.Protocol;
import polymetron.elaborate.AddressSpace;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedBus;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterfaceRef;
import polymetron.elaborate.TargetRange;

/**
 * What it costs an initiator to read from a target when nobody else is on the way: the cycles of every bus that is
 * crossed, of arbitration where several initiators share a bus, of adapters, of bridges, and those that the target
 * takes. The cycles of the adapters and bridges are estimates of ours, like the adapters themselves.
 *
 * <p>A burst keeps the way busy for as long as its slowest part needs for each further transfer: one cycle on a bus with
 * bursts, several where a wide transfer goes out on a narrow bus, and a whole access where a protocol has no bursts.
 *
 * @param steps parts of the way, from the initiator on
 * @param cycles cycles of the initiator's bus for a single read
 * @param nextCycles the same for each further transfer of a burst
 * @param burst transfers of the initiator's longest burst; 1 where it has none
 */
public record AccessCost(List<Step> steps, long cycles, long nextCycles, int burst) {
    /** Registers on the way through a bridge: one for the request. */
    private static final int BRIDGE_CYCLES = 1;

    /** A choice between initiators is registered. */
    private static final int ARBITRATION_CYCLES = 1;

    /**
     * A part of the way.
     *
     * @param cycles cycles of the clock that it runs on
     * @param nextCycles the same for each further transfer of a burst
     * @param clockHz that clock; 0 when it is not known
     */
    public record Step(String what, long cycles, long nextCycles, long clockHz) {}

    /** Cycles of the longest burst, from the request to the last transfer. */
    public long burstCycles() {
        return cycles + (burst - 1) * nextCycles;
    }

    /**
     * @param target a target that the initiator sees
     */
    public static AccessCost of(
            ElaboratedPlatform platform, AddressSpace space, TargetRange target) {
        Way way = new Way(platform, space);
        way.cross(space.bus(), space.initiator().ref());
        ElaboratedBus bus = space.bus();
        for (String name : target.via()) {
            bus = way.passBridge(bus, platform.blockIndex().get(name));
        }
        way.arrive(bus, target);
        return way.cost();
    }

    /** The parts of a way while it is walked. */
    private static final class Way {
        private final ElaboratedPlatform platform;
        private final AddressSpace space;
        private final List<Step> steps = new ArrayList<>();

        private Way(ElaboratedPlatform platform, AddressSpace space) {
            this.platform = platform;
            this.space = space;
        }

        private long hz(ElaboratedBus bus) {
            return bus == null ? 0 : platform.frequencyHz(bus);
        }

        private void adapters(ElaboratedBus bus, InterfaceRef ref) {
            for (Adapter adapter : bus.adaptersOf(ref)) {
                boolean narrows = adapter.sort() == Adapter.Sort.WIDTH && adapter.cycles() > 0;
                steps.add(
                        new Step(
                                "%s adapter of %s, %s to %s"
                                        .formatted(
                                                adapter.sort(), ref, adapter.from(), adapter.to()),
                                adapter.cycles(),
                                narrows ? adapter.cycles() + 1 : 0,
                                hz(bus)));
            }
        }

        private void cross(ElaboratedBus bus, InterfaceRef from) {
            if (bus == null) {
                return;
            }
            adapters(bus, from);
            if (bus.initiators().size() > 1) {
                steps.add(new Step("arbitration on " + bus.name(), ARBITRATION_CYCLES, 0, hz(bus)));
            }
            Protocol protocol = bus.bus().protocol();
            boolean bursts = protocol.longestBurst() > 1;
            steps.add(
                    new Step(
                            "%s, %s".formatted(bus.name(), protocol.title()),
                            protocol.readCycles(),
                            bursts ? 1 : protocol.readCycles(),
                            hz(bus)));
        }

        private ElaboratedBus passBridge(ElaboratedBus bus, ElaboratedBlock bridge) {
            String upstream = bridge.shape().bridge().upstream();
            String downstream = bridge.shape().bridge().downstream();
            adapters(bus, new InterfaceRef(bridge.name(), upstream));
            ElaboratedBus below =
                    platform.busIndex().get(bridge.block().attachments().get(downstream).bus());
            steps.add(new Step("bridge " + bridge.name(), BRIDGE_CYCLES, 0, hz(bus)));
            cross(below, new InterfaceRef(bridge.name(), downstream));
            return below;
        }

        private void arrive(ElaboratedBus bus, TargetRange target) {
            if (bus != null) {
                adapters(bus, target.ref());
            }
            if (target.form().waits() > 0) {
                long hz =
                        target.form().type().clock() == null
                                ? platform.frequencyHz(target.block())
                                : platform.frequencyHz(
                                        target.block(), target.form().type().clock());
                steps.add(
                        new Step(
                                target.label(),
                                target.form().waits(),
                                target.form().nextWaits(),
                                hz));
            }
        }

        private AccessCost cost() {
            long own = hz(space.bus());
            double cycles = 0;
            double next = 1;
            for (Step step : steps) {
                double scale = own == 0 || step.clockHz() == 0 ? 1 : (double) own / step.clockHz();
                cycles += step.cycles() * scale;
                next = Math.max(next, step.nextCycles() * scale);
            }
            return new AccessCost(
                    List.copyOf(steps),
                    (long) Math.ceil(cycles - 1e-9),
                    (long) Math.ceil(next - 1e-9),
                    space.initiator().form().burst());
        }
    }
}
