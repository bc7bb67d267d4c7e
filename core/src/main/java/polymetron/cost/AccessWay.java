package polymetron.cost;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedList;
import java.util.List;
import java.util.Map;
import polymetron.bus.Adapter;
import polymetron.bus.Protocol;
import polymetron.elaborate.AddressSpace;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedBus;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterfaceRef;
import polymetron.elaborate.SizedInterface;
import polymetron.elaborate.TargetRange;

/**
 * The way of an access, walked from its end: what a part costs depends on how long what is behind it takes, where a clock is
 * crossed or a wide access is made of several.
 */
final class AccessWay {
    /** Registers on the way through a bridge: one for the request. */
    private static final int BRIDGE_CYCLES = 1;

    /** A choice between initiators is registered. */
    private static final int ARBITRATION_CYCLES = 1;

    private final ElaboratedPlatform platform;
    private final AddressSpace space;
    private final LinkedList<AccessCost.Step> steps = new LinkedList<>();
    private final LinkedHashMap<String, Span> onBuses = new LinkedHashMap<>();

    /** Cycles of what is behind the place that the walk is at, in the clock there. */
    private Span behind;

    AccessWay(ElaboratedPlatform platform, AddressSpace space) {
        this.platform = platform;
        this.space = space;
    }

    private record Bridged(ElaboratedBus above, ElaboratedBlock bridge, ElaboratedBus below) {}

    AccessCost to(TargetRange target) {
        List<Bridged> bridges = new ArrayList<>();
        ElaboratedBus bus = space.bus();
        for (String name : target.via()) {
            ElaboratedBlock bridge = platform.blockIndex().get(name);
            ElaboratedBus below = below(bridge);
            bridges.add(new Bridged(bus, bridge, below));
            bus = below;
        }
        arrive(bus, target);
        for (Bridged each : bridges.reversed()) {
            String window = each.bridge().shape().bridge().upstream();
            pass(each.below(), new InterfaceRef(each.bridge().name(), behindOf(each.bridge())));
            bridge(each);
            adapters(each.above(), new InterfaceRef(each.bridge().name(), window), true);
        }
        if (space.bus() != null) {
            pass(space.bus(), space.initiator().ref());
        }
        return cost();
    }

    private ElaboratedBus below(ElaboratedBlock bridge) {
        return platform.busIndex().get(bridge.block().attachments().get(behindOf(bridge)).bus());
    }

    private static String behindOf(ElaboratedBlock bridge) {
        return bridge.shape().bridge().downstream();
    }

    private long hz(ElaboratedBus bus) {
        return bus == null ? 0 : platform.frequencyHz(bus);
    }

    private long hz(ElaboratedBlock block, SizedInterface form) {
        return form.type().clock() == null
                ? platform.frequencyHz(block)
                : platform.frequencyHz(block, form.type().clock());
    }

    private void arrive(ElaboratedBus bus, TargetRange target) {
        SizedInterface form = target.form();
        long hertz = hz(target.block(), form);
        if (form.waits() > 0) {
            steps.addFirst(
                    new AccessCost.Step(
                            target.label(), Span.of(form.waits()), form.nextWaits(), hertz));
        }
        List<Protocol> spoken = form.type().protocols();
        boolean joins = bus == null || spoken.isEmpty() || spoken.contains(bus.bus().protocol());
        int own = bus == null ? 0 : (joins ? bus.bus().protocol() : spoken.getFirst()).readCycles();
        behind = Span.of(own + form.waits());
        if (bus != null) {
            adapters(bus, target.ref(), true);
        }
    }

    /** The bus that an initiator is on, and what is between them. */
    private void pass(ElaboratedBus bus, InterfaceRef initiator) {
        Protocol protocol = bus.bus().protocol();
        boolean bursts = protocol.longestBurst() > 1;
        steps.addFirst(
                new AccessCost.Step(
                        "%s, %s".formatted(bus.name(), protocol.title()),
                        Span.of(protocol.readCycles()),
                        bursts ? 1 : protocol.readCycles(),
                        hz(bus)));
        if (bus.initiators().size() > 1) {
            behind = behind.plus(ARBITRATION_CYCLES);
            steps.addFirst(
                    new AccessCost.Step(
                            "arbitration on " + bus.name(),
                            Span.of(ARBITRATION_CYCLES),
                            0,
                            hz(bus)));
        }
        onBuses.put(bus.name(), behind);
        adapters(bus, initiator, false);
    }

    private void bridge(Bridged each) {
        behind = behind.plus(each.above().bus().protocol().readCycles() + BRIDGE_CYCLES);
        steps.addFirst(
                new AccessCost.Step(
                        "bridge " + each.bridge().name(),
                        Span.of(BRIDGE_CYCLES),
                        0,
                        hz(each.above())));
    }

    /** Between an interface and its bus: width in the clock of the block, then the clock, then what registers the answer. */
    private void adapters(ElaboratedBus bus, InterfaceRef ref, boolean isTarget) {
        List<Adapter> all = bus.adaptersOf(ref);
        ElaboratedBlock block = platform.blockIndex().get(ref.block());
        SizedInterface form = block.shape().busInterface(ref.name()).orElseThrow();
        long busHz = hz(bus);
        long ownHz = hz(block, form);
        long nearHz = isTarget ? busHz : ownHz;
        for (Adapter adapter : isTarget ? all : all.reversed()) {
            Span before = behind;
            double scale = 1;
            if (adapter.sort() == Adapter.Sort.CLOCK) {
                long farHz = isTarget ? ownHz : busHz;
                scale = nearHz == 0 || farHz == 0 ? 1 : (double) nearHz / farHz;
                behind = behind.crossed(scale);
            }
            behind = behind.times(adapter.parts());
            steps.addFirst(
                    new AccessCost.Step(
                            "%s adapter of %s, %s to %s"
                                    .formatted(adapter.sort(), ref, adapter.from(), adapter.to()),
                            behind.minus(before.times(scale)).plus(adapter.cycles()),
                            adapter.parts() > 1 ? adapter.parts() : 0,
                            adapter.sort() == Adapter.Sort.CLOCK || isTarget ? nearHz : ownHz));
        }
        // What registers the answer is where the access comes from.
        behind = behind.plus(all.stream().mapToInt(Adapter::cycles).sum());
    }

    private AccessCost cost() {
        long own = hz(space.bus());
        double next = 1;
        for (AccessCost.Step step : steps) {
            double scale = own == 0 || step.clockHz() == 0 ? 1 : (double) own / step.clockHz();
            next = Math.max(next, step.nextCycles() * scale);
        }
        Map<String, Span> buses = new LinkedHashMap<>();
        onBuses.sequencedEntrySet()
                .reversed()
                .forEach(each -> buses.put(each.getKey(), each.getValue()));
        return new AccessCost(
                List.copyOf(steps),
                behind,
                (long) Math.ceil(next - 1e-9),
                space.initiator().form().burst(),
                buses);
    }
}
