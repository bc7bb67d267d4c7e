package polymetron.finding;

import java.util.List;
import java.util.Locale;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import polymetron.cost.BusLoad;
import polymetron.elaborate.ElaboratedPlatform;

/** Bus that cannot carry what is to be moved. */
final class BusOverloadedRule extends PlainRule {
    BusOverloadedRule() {
        super(
                "bus-overloaded",
                Grade.ERROR,
                "Bus that cannot carry what is to be moved",
                "Buffers fill up and data is lost, or the processor gets no turn. Move less, use"
                        + " longer bursts, a wider bus or a faster clock, or another bus.");
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        for (BusLoad load : BusLoad.of(platform)) {
            if (load.busy() > 1) {
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
