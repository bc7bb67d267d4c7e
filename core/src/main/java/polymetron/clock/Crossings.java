package polymetron.clock;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Objects;
import polymetron.bus.Adapter;
import polymetron.elaborate.Domain;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedBus;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterfaceRef;
import polymetron.elaborate.InterruptLink;
import polymetron.elaborate.StreamLink;
import polymetron.library.StreamPartType;
import polymetron.library.Trigger;
import polymetron.stream.StreamEnd;

/**
 * Every crossing between clock domains. Bus interfaces cross by adapters, streams by a block for it, level interrupts
 * by two flip-flops in the domain of the controller (common practice, no source); an edge that is shorter than the
 * receiving clock's cycle is lost, so edges into a slower domain are not safe.
 */
public final class Crossings {
    private static final String TWO_FLIP_FLOPS = "two flip-flops";

    private Crossings() {}

    public static List<Crossing> of(ElaboratedPlatform platform) {
        List<Crossing> all = new ArrayList<>();
        platform.buses().forEach(bus -> ofBus(bus, all));
        platform.streams().forEach(link -> ofStream(link, all));
        platform.blocks().stream()
                .sorted(Comparator.comparing(ElaboratedBlock::name))
                .forEach(block -> ofPart(block, all));
        platform.interrupts().forEach(link -> ofInterrupt(platform, link, all));
        platform.domains().forEach(domain -> ofReset(domain, all));
        for (ForeignReset each : ForeignReset.of(platform)) {
            String input = each.block().name() + "." + each.reset().name();
            all.add(
                    new Crossing(
                            Crossing.Sort.RESET,
                            input,
                            "reset of " + each.from().name() + " into " + input,
                            each.from().name(),
                            each.to().name(),
                            null));
        }
        return all;
    }

    private static void ofBus(ElaboratedBus bus, List<Crossing> all) {
        for (InterfaceRef ref : bus.adapters().keySet()) {
            for (Adapter adapter : bus.adaptersOf(ref)) {
                if (adapter.sort() == Adapter.Sort.CLOCK) {
                    all.add(
                            new Crossing(
                                    Crossing.Sort.BUS,
                                    ref.toString(),
                                    "%s on bus %s".formatted(ref, bus.name()),
                                    adapter.from(),
                                    adapter.to(),
                                    "request and answer, each through two flip-flops"));
                }
            }
        }
    }

    private static void ofStream(StreamLink link, List<Crossing> all) {
        if (link.sink() == null) {
            return;
        }
        String from = new StreamEnd(link.block(), link.source()).domain();
        String to = new StreamEnd(link.sinkBlock(), link.sink()).domain();
        if (from != null && to != null && !from.equals(to)) {
            all.add(
                    new Crossing(
                            Crossing.Sort.STREAM,
                            link.ref().toString(),
                            "%s to %s".formatted(link.ref(), link.sinkRef()),
                            from,
                            to,
                            null));
        }
    }

    private static void ofPart(ElaboratedBlock block, List<Crossing> all) {
        StreamPartType part = block.type().streamPart();
        if (part == null || part.sort() != StreamPartType.Sort.CLOCK) {
            return;
        }
        String from = block.domain(null);
        String to = block.domain(part.sourceClock());
        if (from != null && to != null && !from.equals(to)) {
            all.add(
                    new Crossing(
                            Crossing.Sort.STREAM,
                            block.name(),
                            "through " + block.name(),
                            from,
                            to,
                            "FIFO with counters that change one bit at a time"));
        }
    }

    private static void ofInterrupt(
            ElaboratedPlatform platform, InterruptLink link, List<Crossing> all) {
        if (!link.isConnected()) {
            return;
        }
        String from = link.block().domain(null);
        String to = link.sinkBlock().domain(null);
        if (from == null || to == null || Objects.equals(from, to)) {
            return;
        }
        Domain source = platform.domainIndex().get(from);
        Domain sink = platform.domainIndex().get(to);
        boolean isEdge = link.source().type().trigger() == Trigger.EDGE;
        boolean isLost =
                isEdge
                        && source != null
                        && sink != null
                        && source.frequencyHz() > sink.frequencyHz();
        all.add(
                new Crossing(
                        Crossing.Sort.INTERRUPT,
                        link.ref().toString(),
                        "%s to %s.%s"
                                .formatted(link.ref(), link.sinkBlock().name(), link.sink().name()),
                        from,
                        to,
                        isLost ? null : TWO_FLIP_FLOPS));
    }

    private static void ofReset(Domain domain, List<Crossing> all) {
        if (domain.reset() != null) {
            all.add(
                    new Crossing(
                            Crossing.Sort.RESET,
                            domain.reset().name(),
                            domain.reset().name() + " resets " + domain.name(),
                            null,
                            domain.name(),
                            "comes at once, leaves after two cycles of the clock"));
        }
    }
}
