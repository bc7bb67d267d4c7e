package polymetron.finding;

import java.util.List;
import java.util.function.Consumer;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.fit.Amount;
import polymetron.fit.DeviceFit;
import polymetron.fit.MemoryFit;
import polymetron.fit.MemoryUse;

/** The platform needs more of something than its device has. */
final class FitRule implements Rule {
    @Override
    public String id() {
        return "does-not-fit";
    }

    @Override
    public Grade grade() {
        return Grade.ERROR;
    }

    @Override
    public String title() {
        return "More than the device has";
    }

    @Override
    public String explanation() {
        return "What the device does not have cannot be built into it. Fit shows who needs how"
                + " much, and which device of the family would do.";
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        DeviceFit.of(platform)
                .filter(fit -> !fit.fits())
                .ifPresent(
                        fit ->
                                check(
                                        fit,
                                        OtherBoardFixes.with(
                                                platform,
                                                other ->
                                                        DeviceFit.of(platform.on(other))
                                                                .orElseThrow()
                                                                .fits()),
                                        report));
    }

    private void check(DeviceFit fit, List<Fix> fixes, Consumer<Finding> report) {
        MemoryFit memory = fit.memory();
        if (memory.unitsUsed() > memory.units()) {
            String unit = memory.sort().halves() ? "halves of memory blocks" : "memory blocks";
            report.accept(
                    finding(
                            "memory blocks",
                            "the memories need %s %s, %s has %s"
                                    .formatted(
                                            memory.unitsUsed(),
                                            unit,
                                            fit.device().name(),
                                            memory.units()),
                            fixes));
        }
        for (MemoryUse use : memory.uses()) {
            if (use.place() == MemoryUse.Place.NOWHERE) {
                report.accept(
                        finding(
                                use.block(),
                                "memory %s needs %s ports; no memory block of %s has as many"
                                        .formatted(
                                                use.label(),
                                                use.memory().ports(),
                                                fit.device().name()),
                                fixes));
            }
        }
        for (Amount amount : fit.amounts()) {
            if (!amount.fits()) {
                report.accept(
                        finding(
                                amount.name(),
                                "%s%s %s are needed, %s has %s"
                                        .formatted(
                                                amount.uncertaintyPercent() > 0 ? "about " : "",
                                                amount.used(),
                                                amount.name(),
                                                fit.device().name(),
                                                amount.available()),
                                fixes));
            }
        }
    }
}
