package polymetron.finding;

import java.util.List;
import java.util.Locale;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import polymetron.cost.BusLoad;
import polymetron.elaborate.ElaboratedPlatform;

/** What initiators have to move takes too much of a bus's time. */
final class BusLoadRule extends PlainRule {
    private final double above;
    private final double upTo;

    private BusLoadRule(
            String id, Grade grade, String title, String explanation, double above, double upTo) {
        super(id, grade, title, explanation);
        this.above = above;
        this.upTo = upTo;
    }

    /** More is to be moved than there is time for. */
    static BusLoadRule overloaded() {
        return new BusLoadRule(
                "bus-overloaded",
                Grade.ERROR,
                "Bus that cannot carry what is to be moved",
                "Buffers fill up and data is lost, or the processor gets no turn. Move less, use"
                        + " longer bursts, a wider bus or a faster clock, or another bus.",
                1,
                Double.POSITIVE_INFINITY);
    }

    /** There is time, but little is left. */
    static BusLoadRule busy() {
        return new BusLoadRule(
                "bus-busy",
                Grade.WARNING,
                "Bus with little time left",
                "What is said to be moved leaves less than a fifth of the time for processors, and"
                        + " every access waits for others.",
                0.8,
                1);
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        for (BusLoad load : BusLoad.of(platform)) {
            if (load.busy() > above && load.busy() <= upTo) {
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
