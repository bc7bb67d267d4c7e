package polymetron.cost;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedList;
import java.util.List;
import java.util.Map;
import java.util.function.UnaryOperator;
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

    /** Whether it writes words as wide as itself: what moves data does, a processor writes a word of 32 bits. */
    private boolean writesAll;

    private final LinkedList<AccessCost.Step> steps = new LinkedList<>();
    private final LinkedHashMap<String, Span> onBuses = new LinkedHashMap<>();

    /** What is behind the place that the walk is at, in the clock there. */
    private Course course;

    /** The same for each further transfer of a burst: a memory may have it sooner than the first. */
    private Course next;

    AccessWay(ElaboratedPlatform platform, BusWaits waits) {
        this.platform = platform;
        this.waits = waits;
    }

    private record Bridged(ElaboratedBus above, ElaboratedBlock bridge, ElaboratedBus below) {}

    AccessCost to(AddressSpace space, TargetRange target) {
        writesAll = Boolean.TRUE.equals(space.initiator().form().type().memoryOnly());
        List<Bridged> bridges = new ArrayList<>();
        ElaboratedBus bus = space.bus();
        for (String name : target.via()) {
            ElaboratedBlock bridge = platform.blockIndex().get(name);
            ElaboratedBus below = below(bridge);
            bridges.add(new Bridged(bus, bridge, below));
            bus = below;
        }
        boolean isBurst =
                bus != null && bridges.isEmpty() && Bursts.onBus(bus, space.initiator()) > 1;
        arrive(bus, target, isBurst);
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
            begin(Course.of(1, 0), 0);
        } else {
            begin(nowhere(space.bus()), 0);
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

    /**
     * @param isBurst whether bursts go over the bus
     */
    void arrive(ElaboratedBus bus, TargetRange target, boolean isBurst) {
        SizedInterface form = target.form();
        long hertz = hz(target.block(), form);
        if (form.waits() > 0) {
            steps.addFirst(new AccessCost.Step(target.label(), Span.of(form.waits()), hertz));
        }
        if (bus == null) {
            begin(Course.of(form.waits(), 0), 0);
            return;
        }
        Protocol own = Adapters.spoken(form.type().protocols(), bus.bus().protocol());
        begin(
                Course.of(own.readCycles() + form.waits(), own.answerCycles()),
                isBurst && Bursts.arrive(bus, target) ? form.waits() - form.nextWaits() : 0);
        adapters(bus, target.ref(), true);
    }

    /** A walk that begins with what takes so many cycles at the most. */
    void arriveAfter(double cycles) {
        begin(Course.of(cycles, 0), 0);
    }

    /**
     * @param sooner by how much each further transfer of a burst is sooner
     */
    private void begin(Course target, long sooner) {
        course = target;
        next = target.requested(-sooner);
    }

    private void then(UnaryOperator<Course> step) {
        course = step.apply(course);
        next = step.apply(next);
    }

    /** The bus that an initiator is on, and what is between them. */
    private void pass(ElaboratedBus bus, InterfaceRef initiator) {
        Protocol protocol = bus.bus().protocol();
        steps.addFirst(
                new AccessCost.Step(
                        "%s, %s".formatted(bus.name(), protocol.title()),
                        Span.of(protocol.readCycles()),
                        hz(bus)));
        if (bus.initiators().size() > 1) {
            double others = waits.before(bus, initiator);
            then(each -> each.contended(others).requested(ARBITRATION_CYCLES));
            steps.addFirst(
                    new AccessCost.Step(
                            "arbitration on " + bus.name(), Span.of(ARBITRATION_CYCLES), hz(bus)));
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
        then(
                each ->
                        each.requested(protocol.readCycles() + BRIDGE_CYCLES - answered)
                                .answered(answered));
        steps.addFirst(
                new AccessCost.Step("bridge " + bridge.name(), Span.of(BRIDGE_CYCLES), hz(above)));
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
            long farHz = isTarget ? ownHz : busHz;
            boolean crosses = adapter.sort() == Adapter.Sort.CLOCK;
            double scale = !crosses || nearHz == 0 || farHz == 0 ? 1 : (double) nearHz / farHz;
            if (crosses) {
                then(each -> each.crossed(scale));
            }
            then(each -> each.inParts(adapter.parts(), writesAll));
            steps.addFirst(
                    new AccessCost.Step(
                            "%s adapter of %s, %s to %s"
                                    .formatted(adapter.sort(), ref, adapter.from(), adapter.to()),
                            course.read().minus(before.times(scale)).plus(adapter.cycles()),
                            adapter.sort() == Adapter.Sort.CLOCK || isTarget ? nearHz : ownHz));
        }
        // An end that registers the answer does so where the access comes from.
        int cycles = all.stream().mapToInt(Adapter::cycles).sum();
        Protocol spoken = bus.bus().protocol();
        Protocol upper = isTarget ? spoken : Adapters.spoken(form.type().protocols(), spoken);
        int answered = Math.min(cycles, upper.answerCycles());
        then(each -> each.requested(cycles - answered).answered(answered));
    }

    /**
     * Cycles of a single access that a burst of an initiator has once: its answer, and where the burst goes over the bus as it is,
     * the choice of whose turn it is. 0 where it makes no bursts.
     */
    private long once(AddressSpace space) {
        ElaboratedBus bus = space.bus();
        if (bus == null || Bursts.longest(bus, space.initiator()) == 1) {
            return 0;
        }
        boolean isShared = bus.initiators().size() > 1 && Bursts.onBus(bus, space.initiator()) > 1;
        return Protocol.AXI4.answerCycles() + (isShared ? ARBITRATION_CYCLES : 0);
    }

    /** Cycles of a bus with bursts for each further transfer of one to a target on it, at worst. */
    double worstNext() {
        return next.worst().most() - Protocol.AXI4.answerCycles();
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
                next.read().minus(Span.of(once(space))),
                next.write().minus(Span.of(once(space))),
                once(space),
                space.initiator().form().burst(),
                buses);
    }
}
