package polymetron.cost;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedList;
import java.util.List;
import java.util.Map;
import polymetron.bus.Adapter;
import polymetron.bus.Adapters;
import polymetron.bus.Protocol;
import polymetron.elaborate.AddressSpace;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedBus;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterfaceRef;
import polymetron.elaborate.SizedInterface;
import polymetron.elaborate.TargetRange;
import polymetron.platform.Attachment;

/**
 * The way of an access, walked from its end: what a part costs depends on how long what is behind it takes, where a clock is
 * crossed or a wide access is made of several.
 */
final class AccessWay {
    /** Registers on the way through a bridge: one for the request. */
    private static final int BRIDGE_CYCLES = 1;

    /** A choice between initiators is registered. */
    static final int ARBITRATION_CYCLES = 1;

    private final ElaboratedPlatform platform;
    private final BusWaits waits;
    private final LinkedList<AccessCost.Step> steps = new LinkedList<>();
    private final LinkedHashMap<String, Span> onBuses = new LinkedHashMap<>();

    /** What is behind the place that the walk is at, in the clock there. */
    private Course course;

    AccessWay(ElaboratedPlatform platform, BusWaits waits) {
        this.platform = platform;
        this.waits = waits;
    }

    private record Bridged(ElaboratedBus above, ElaboratedBlock bridge, ElaboratedBus below) {}

    AccessCost to(AddressSpace space, TargetRange target) {
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
            pass(each.below(), behind(each.bridge()));
            bridge(each.above(), each.bridge());
        }
        if (space.bus() != null) {
            pass(space.bus(), space.initiator().ref());
        }
        return cost(space);
    }

    /** An address where there is nothing: the bus itself answers. */
    AccessCost toNowhere(AddressSpace space) {
        if (space.bus() == null) {
            course = Course.of(1, 0);
        } else {
            course = nowhere(space.bus());
            pass(space.bus(), space.initiator().ref());
        }
        return cost(space);
    }

    static Course nowhere(ElaboratedBus bus) {
        return Course.of(bus.bus().protocol().readCycles(), bus.bus().protocol().answerCycles());
    }

    Course course() {
        return course;
    }

    ElaboratedBus below(ElaboratedBlock bridge) {
        Attachment behind = bridge.block().attachments().get(bridge.shape().bridge().downstream());
        return behind == null ? null : platform.busIndex().get(behind.bus());
    }

    /** The side of a bridge that is the initiator. */
    static InterfaceRef behind(ElaboratedBlock bridge) {
        return new InterfaceRef(bridge.name(), bridge.shape().bridge().downstream());
    }

    private long hz(ElaboratedBus bus) {
        return bus == null ? 0 : platform.frequencyHz(bus);
    }

    private long hz(ElaboratedBlock block, SizedInterface form) {
        return form.type().clock() == null
                ? platform.frequencyHz(block)
                : platform.frequencyHz(block, form.type().clock());
    }

    void arrive(ElaboratedBus bus, TargetRange target) {
        SizedInterface form = target.form();
        long hertz = hz(target.block(), form);
        if (form.waits() > 0) {
            steps.addFirst(
                    new AccessCost.Step(
                            target.label(), Span.of(form.waits()), form.nextWaits(), hertz));
        }
        if (bus == null) {
            course = Course.of(form.waits(), 0);
            return;
        }
        Protocol own = Adapters.spoken(form.type().protocols(), bus.bus().protocol());
        course = Course.of(own.readCycles() + form.waits(), own.answerCycles());
        adapters(bus, target.ref(), true);
    }

    /** A walk that begins with what takes so many cycles at the most. */
    void arriveAfter(double cycles) {
        course = Course.of(cycles, 0);
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
            course = course.contended(waits.before(bus, initiator)).requested(ARBITRATION_CYCLES);
            steps.addFirst(
                    new AccessCost.Step(
                            "arbitration on " + bus.name(),
                            Span.of(ARBITRATION_CYCLES),
                            0,
                            hz(bus)));
        }
        onBuses.put(bus.name(), course.read());
        leave(bus, initiator);
    }

    /** From a bus to the initiator on it. */
    void leave(ElaboratedBus bus, InterfaceRef initiator) {
        adapters(bus, initiator, false);
    }

    /** Through a bridge to the bus above it, where it is a target. */
    void bridge(ElaboratedBus above, ElaboratedBlock bridge) {
        Protocol protocol = above.bus().protocol();
        // The answer is kept in a register of the bridge, and goes to the bus in a cycle of its
        // own.
        int answered = BRIDGE_CYCLES + protocol.answerCycles();
        course =
                course.requested(protocol.readCycles() + BRIDGE_CYCLES - answered)
                        .answered(answered);
        steps.addFirst(
                new AccessCost.Step(
                        "bridge " + bridge.name(), Span.of(BRIDGE_CYCLES), 0, hz(above)));
        adapters(above, new InterfaceRef(bridge.name(), bridge.shape().bridge().upstream()), true);
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
            Span before = course.read();
            double scale = 1;
            if (adapter.sort() == Adapter.Sort.CLOCK) {
                long farHz = isTarget ? ownHz : busHz;
                scale = nearHz == 0 || farHz == 0 ? 1 : (double) nearHz / farHz;
                course = course.crossed(scale);
            }
            course = course.inParts(adapter.parts());
            steps.addFirst(
                    new AccessCost.Step(
                            "%s adapter of %s, %s to %s"
                                    .formatted(adapter.sort(), ref, adapter.from(), adapter.to()),
                            course.read().minus(before.times(scale)).plus(adapter.cycles()),
                            adapter.parts() > 1 ? adapter.parts() : 0,
                            adapter.sort() == Adapter.Sort.CLOCK || isTarget ? nearHz : ownHz));
        }
        // An end that registers the answer does so where the access comes from.
        int cycles = all.stream().mapToInt(Adapter::cycles).sum();
        Protocol spoken = bus.bus().protocol();
        Protocol upper = isTarget ? spoken : Adapters.spoken(form.type().protocols(), spoken);
        int answered = Math.min(cycles, upper.answerCycles());
        course = course.requested(cycles - answered).answered(answered);
    }

    /** Cycles of a bus for each further transfer of a burst: those of the slowest part of the way. */
    double next(ElaboratedBus bus) {
        long own = hz(bus);
        double next = 1;
        for (AccessCost.Step step : steps) {
            double scale = own == 0 || step.clockHz() == 0 ? 1 : (double) own / step.clockHz();
            next = Math.max(next, step.nextCycles() * scale);
        }
        return next;
    }

    private AccessCost cost(AddressSpace space) {
        Map<String, Span> buses = new LinkedHashMap<>();
        onBuses.sequencedEntrySet()
                .reversed()
                .forEach(each -> buses.put(each.getKey(), each.getValue()));
        return new AccessCost(
                List.copyOf(steps),
                course.read(),
                course.write(),
                course.answer(),
                course.worst(),
                (long) Math.ceil(next(space.bus()) - 1e-9),
                space.initiator().form().burst(),
                buses);
    }
}
