package polymetron.finding;

import java.util.List;
import java.util.Locale;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import polymetron.cost.BusLoad;
import polymetron.elaborate.ElaboratedPlatform;

/** Bus with little time left. */
final class BusBusyRule extends PlainRule {
    BusBusyRule() {
        super(
                "bus-busy",
                Grade.WARNING,
                "Bus with little time left",
                "What is said to be moved leaves less than a fifth of the time for processors, and"
                        + " every access waits for others.");
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        for (BusLoad load : BusLoad.of(platform)) {
            if (load.busy() > 0.8 && load.busy() <= 1) {
                String who =
                        load.shares().stream()
                                .map(BusLoad.Share::label)
                                .collect(Collectors.joining(", "));
                report.accept(
                        finding(
                                load.bus().name(),
                                String.format(
                                        Locale.ROOT,
                                        "%.0f %% of the time of %s is taken by %s",
                                        100 * load.busy(),
                                        load.bus().name(),
                                        who),
                                List.of()));
            }
        }
    }
}
