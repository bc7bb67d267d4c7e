package polymetron.finding;

import java.util.Collections;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Consumer;
import polymetron.edit.Edit;
import polymetron.elaborate.AddressSpace;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterfaceRef;
import polymetron.elaborate.TargetRange;

/** An initiator sees the same target at two addresses. */
final class AliasRule extends PlainRule {
    AliasRule() {
        super(
                "target-seen-twice",
                Grade.WARNING,
                "Target at two addresses",
                "Two ways lead to it. Caches and drivers take the two addresses for two things, and"
                        + " what one writes the other may not see.");
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        Set<List<TargetRange>> clean = Collections.newSetFromMap(new IdentityHashMap<>());
        for (AddressSpace space : platform.spaces()) {
            // Initiators of one bus that see the same share the list of it.
            if (clean.contains(space.ranges())) {
                continue;
            }
            boolean twice = false;
            Map<Object, TargetRange> seen = new HashMap<>();
            // Without a bridge only the ports of a memory lead to one thing.
            boolean oneWay = space.windows().isEmpty();
            for (TargetRange target : space.ranges()) {
                if (oneWay && !target.form().isMemory()) {
                    continue;
                }
                // A memory is one, however many ports it has.
                Object what = target.form().isMemory() ? target.block().name() : target.ref();
                TargetRange before = seen.putIfAbsent(what, target);
                if (before != null && !before.range().equals(target.range())) {
                    twice = true;
                    report.accept(
                            finding(
                                    target.ref(),
                                    "%s sees %s at %s and at %s"
                                            .formatted(
                                                    space.initiator().ref(),
                                                    target.isSameMemoryAs(before)
                                                            ? target.block().name()
                                                            : target.label(),
                                                    before.range(),
                                                    target.range()),
                                    fixes(platform, before, target)));
                }
            }
            if (!twice) {
                clean.add(space.ranges());
            }
        }
    }

    /** Take one of the two ways off its bus: the second port, or the first bridge of the second way. */
    private static List<Fix> fixes(
            ElaboratedPlatform platform, TargetRange before, TargetRange target) {
        if (!target.ref().equals(before.ref())) {
            return List.of(off(target.ref()));
        }
        for (String bridge : target.via()) {
            ElaboratedBlock block = platform.block(bridge).orElse(null);
            if (!before.via().contains(bridge) && block != null && block.shape().bridge() != null) {
                return List.of(off(new InterfaceRef(bridge, block.shape().bridge().upstream())));
            }
        }
        return List.of();
    }

    private static Fix off(InterfaceRef ref) {
        return new Fix(
                "Take %s off its bus".formatted(ref), new Edit.Detach(ref.block(), ref.name()));
    }
}
