package polymetron.finding;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import polymetron.elaborate.AddressSpace;
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
        for (AddressSpace space : platform.spaces()) {
            // Without a bridge there is one way only.
            if (space.windows().isEmpty()) {
                continue;
            }
            Map<InterfaceRef, TargetRange> seen = new HashMap<>();
            for (TargetRange target : space.ranges()) {
                TargetRange before = seen.putIfAbsent(target.ref(), target);
                if (before != null && !before.range().equals(target.range())) {
                    report.accept(
                            finding(
                                    target.ref(),
                                    "%s sees %s at %s and at %s"
                                            .formatted(
                                                    space.initiator().ref(),
                                                    target.label(),
                                                    before.range(),
                                                    target.range()),
                                    List.of()));
                }
            }
        }
    }
}
