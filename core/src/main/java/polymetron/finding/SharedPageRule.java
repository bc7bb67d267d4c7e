package polymetron.finding;

import java.util.function.Consumer;
import polymetron.address.Address;
import polymetron.bus.Protocol;
import polymetron.elaborate.ElaboratedBus;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.TargetRange;

/** Two targets that a burst could run across without noticing. */
final class SharedPageRule implements Rule {
    @Override
    public String id() {
        return "targets-share-boundary";
    }

    @Override
    public Grade grade() {
        return Grade.ERROR;
    }

    @Override
    public String title() {
        return "Two targets within one burst boundary";
    }

    @Override
    public String explanation() {
        return "A burst may run on to the next boundary without looking at the address again: it"
                + " would begin in one target and end in the other. Each target needs boundaries"
                + " of its own (Arm IHI 0022, A3.4.1; Arm IHI 0033, 4.1).";
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        for (ElaboratedBus bus : platform.buses()) {
            Protocol protocol = bus.bus().protocol();
            boolean bursts = bus.initiators().stream().anyMatch(each -> each.form().burst() > 1);
            if (protocol.burstBoundaryBytes() == 0 || !bursts) {
                continue;
            }
            long page = -protocol.burstBoundaryBytes();
            TargetRange before = null;
            for (TargetRange target : bus.placed()) {
                boolean overlap = before != null && before.range().overlaps(target.range());
                if (before != null
                        && !overlap
                        && (before.range().last() & page) == (target.range().base() & page)) {
                    report.accept(
                            finding(
                                    target.ref(),
                                    "%s begins in the same %s as %s ends in"
                                            .formatted(
                                                    target.label(),
                                                    Address.formatSize(
                                                            protocol.burstBoundaryBytes()),
                                                    before.label()),
                                    PlaceFix.of(platform, bus, target).stream().toList()));
                }
                before = target;
            }
        }
    }
}
