package polymetron.server.platform;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import polymetron.address.Address;
import polymetron.cost.AccessCost;
import polymetron.cost.Span;
import polymetron.elaborate.AddressSpace;
import polymetron.elaborate.ElaboratedBus;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterfaceRef;
import polymetron.elaborate.TargetRange;
import polymetron.lookup.Elsewhere;
import polymetron.platform.Attachment;

/** Writes down what one initiator sees as a {@link SpaceView}. */
final class SpaceViews {
    private final ElaboratedPlatform platform;
    private final AddressSpace space;
    private final Map<InterfaceRef, TargetRange> own = new HashMap<>();
    private final Elsewhere elsewhere;

    private SpaceViews(ElaboratedPlatform platform, AddressSpace space) {
        this.platform = platform;
        this.space = space;
        this.elsewhere = new Elsewhere(platform);
        for (ElaboratedBus bus : platform.buses()) {
            bus.placed().forEach(target -> own.put(target.ref(), target));
        }
    }

    static SpaceView of(long revision, ElaboratedPlatform platform, AddressSpace space) {
        SpaceViews views = new SpaceViews(platform, space);
        Attachment at = space.initiator().attachment();
        return new SpaceView(
                revision,
                space.initiator().ref().toString(),
                space.initiator().label(),
                space.bus() == null ? null : space.bus().name(),
                space.initiator().form().burst(),
                at == null ? null : at.traffic(),
                space.ranges().stream().map(views::seen).toList());
    }

    private SpaceView.SeenView seen(TargetRange target) {
        AccessCost cost = AccessCost.of(platform, space, target);
        TargetRange there = own.get(target.ref());
        boolean same = there == null || there.range().equals(target.range());
        return new SpaceView.SeenView(
                target.label(),
                target.block().name(),
                target.form().name(),
                Address.format(target.range().base()),
                Address.format(target.range().last()),
                SizeTexts.gap(target.range()),
                target.form().isMemory(),
                target.held(),
                same ? null : Address.format(there.range().base()),
                path(target),
                cost.leastCycles(),
                cost.cycles(),
                cost.worstCycles().isPresent() ? cost.worstCycles().getAsLong() : null,
                cost.burst() > 1 ? cost.burstCycles() : null,
                cost.steps().stream()
                        .map(step -> "%s: %s".formatted(step.what(), cycles(step.cycles())))
                        .toList(),
                elsewhere.than(target).stream()
                        .map(
                                other ->
                                        "%s at %s"
                                                .formatted(
                                                        other.space().initiator().label(),
                                                        Address.format(
                                                                other.target().range().base())))
                        .toList());
    }

    private static String cycles(Span span) {
        return span.leastCycles() == span.mostCycles()
                ? Long.toString(span.mostCycles())
                : "%s to %s".formatted(span.leastCycles(), span.mostCycles());
    }

    private List<String> path(TargetRange target) {
        if (space.bus() == null) {
            return List.of("inside");
        }
        List<String> path = new ArrayList<>(List.of(space.bus().name()));
        for (String bridge : target.via()) {
            var block = platform.blockIndex().get(bridge);
            path.add(bridge);
            path.add(block.block().attachments().get(block.shape().bridge().downstream()).bus());
        }
        return path;
    }
}
