package polymetron.finding;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import polymetron.address.Address;
import polymetron.edit.Edit;
import polymetron.elaborate.ElaboratedBus;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.TargetRange;
import polymetron.platform.Bus;

/** A range does not fit between the bus's first and last address. */
final class OutsideBusRule implements Rule {
    @Override
    public String id() {
        return "range-outside";
    }

    @Override
    public Grade grade() {
        return Grade.ERROR;
    }

    @Override
    public String title() {
        return "Range outside the address width";
    }

    @Override
    public String explanation() {
        return "The bus has no lines for the upper address bits, so nobody can reach that part of"
                + " the range.";
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        for (ElaboratedBus bus : platform.buses()) {
            for (TargetRange target : bus.placed()) {
                boolean cut = target.range().sizeBytes() != target.form().sizeBytes();
                if (cut || !bus.window().contains(target.range())) {
                    report.accept(outside(bus, target));
                }
            }
        }
    }

    private Finding outside(ElaboratedBus bus, TargetRange target) {
        List<Fix> fixes = new ArrayList<>();
        PlaceFix.of(bus, target).ifPresent(fixes::add);
        int needed = 64 - Long.numberOfLeadingZeros(target.range().last());
        if (needed > bus.bus().addressWidth()) {
            Bus old = bus.bus();
            fixes.add(
                    new Fix(
                            "Give %s %s address bits".formatted(bus.name(), needed),
                            new Edit.ChangeBus(
                                    new Bus(
                                            old.name(),
                                            old.protocol(),
                                            old.dataWidth(),
                                            needed,
                                            old.domain()))));
        }
        return finding(
                target.ref(),
                "%s from %s with %s passes the last address of %s, %s"
                        .formatted(
                                target.label(),
                                Address.format(target.range().base()),
                                Address.formatSize(target.form().sizeBytes()),
                                bus.name(),
                                Address.format(bus.window().last())),
                fixes);
    }
}
