package polymetron.finding;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import polymetron.edit.Edit;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.serial.TwoWireTimes;

/** The clock line of an I2C bus is low or high for a shorter time than the bus specification allows. */
final class BusTimesRule extends PlainRule {
    BusTimesRule() {
        super(
                "two-wire-times",
                Grade.ERROR,
                "I2C clock with too short a time",
                "Devices of a mode may need each of its times in full (UM10204, table 10): a"
                        + " shorter low or high time makes some of them miss bits.");
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        for (ElaboratedBlock block : platform.blocks()) {
            TwoWireTimes.of(platform, block)
                    .filter(times -> !times.violations().isEmpty())
                    .ifPresent(
                            times ->
                                    report.accept(
                                            finding(
                                                    block.name(),
                                                    "%s: %s"
                                                            .formatted(
                                                                    block.name(),
                                                                    String.join(
                                                                            "; ",
                                                                            times.violations())),
                                                    fixes(block, times))));
        }
    }

    private static List<Fix> fixes(ElaboratedBlock block, TwoWireTimes times) {
        List<Fix> fixes = new ArrayList<>();
        for (TwoWireTimes.Mode mode : TwoWireTimes.Mode.values()) {
            if (mode.highestHz() <= times.mode().highestHz()) {
                TwoWireTimes.Counts counts = times.countsFor(mode);
                String label =
                        "%s: low %s, high %s cycles"
                                .formatted(mode.title(), counts.low(), counts.high());
                fixes.add(
                        0,
                        new Fix(
                                label,
                                new Edit.Several(
                                        label,
                                        List.of(
                                                new Edit.SetParameter(
                                                        block.name(),
                                                        times.role().low(),
                                                        "" + counts.low()),
                                                new Edit.SetParameter(
                                                        block.name(),
                                                        times.role().high(),
                                                        "" + counts.high())))));
            }
        }
        return fixes;
    }
}
