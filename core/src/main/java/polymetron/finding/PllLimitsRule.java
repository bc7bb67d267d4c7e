package polymetron.finding;

import java.util.List;
import java.util.function.Consumer;
import polymetron.clock.PllBlock;
import polymetron.clock.PllSearch;
import polymetron.edit.Edit;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.library.Device;

/** A PLL is set to what the device's PLLs cannot do. */
final class PllLimitsRule implements Rule {
    private static final int OFFERED = 3;

    @Override
    public String id() {
        return "pll-limits";
    }

    @Override
    public Grade grade() {
        return Grade.ERROR;
    }

    @Override
    public String title() {
        return "PLL outside its limits";
    }

    @Override
    public String explanation() {
        return "A PLL outside its limits does not lock, or not always: the clocks behind it are not"
                + " there.";
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        Device.Plls limits = platform.device() == null ? null : platform.device().plls();
        if (limits == null) {
            return;
        }
        for (ElaboratedBlock block : platform.blocks()) {
            PllBlock.of(platform, block)
                    .ifPresent(
                            pll -> {
                                List<String> violations = pll.violations(limits);
                                if (!violations.isEmpty()) {
                                    report.accept(
                                            finding(
                                                    block.name(),
                                                    "%s: %s"
                                                            .formatted(
                                                                    block.name(),
                                                                    String.join("; ", violations)),
                                                    fixes(pll, limits)));
                                }
                            });
        }
    }

    /** The settings within the limits that come nearest to the frequencies it would make. */
    private static List<Fix> fixes(PllBlock pll, Device.Plls limits) {
        return new PllSearch(limits, pll.inputHz(), pll.wishes())
                .candidates(OFFERED).stream()
                        .map(
                                setting -> {
                                    String label =
                                            "Set it to × %s / %s, at most %.3g ppm off"
                                                    .formatted(
                                                            setting.multiplier(),
                                                            setting.divider() * setting.steps(),
                                                            setting.worstPpm());
                                    return new Fix(
                                            label,
                                            new Edit.Several(
                                                    label,
                                                    PllBlock.edits(
                                                            pll.block().name(),
                                                            pll.role(),
                                                            setting)));
                                })
                        .toList();
    }
}
