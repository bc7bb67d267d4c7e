package polymetron.finding;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import polymetron.cost.BusLoad;
import polymetron.edit.Edit;
import polymetron.elaborate.ElaboratedBus;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.platform.Bus;
import polymetron.whatif.WhatIf;

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
                                fixes(platform, load.bus())));
            }
        }
    }

    /** The next wider data path that the protocol has, if the initiators are wide enough to make use of it. */
    private List<Fix> fixes(ElaboratedPlatform platform, ElaboratedBus bus) {
        Bus now = bus.bus();
        return now.protocol().dataWidths().stream()
                .filter(width -> width > now.dataWidth())
                .min(Comparator.naturalOrder())
                .filter(width -> isLess(platform, bus, width))
                .map(
                        width ->
                                new Fix(
                                        "Make %s %s bits wide".formatted(now.name(), width),
                                        new Edit.ChangeBus(now.withDataWidth(width))))
                .stream()
                .toList();
    }

    private boolean isLess(ElaboratedPlatform platform, ElaboratedBus bus, int width) {
        Edit wider = new Edit.ChangeBus(bus.bus().withDataWidth(width));
        ElaboratedPlatform after = WhatIf.after(platform, wider);
        return wideReads(after) <= wideReads(platform)
                && BusLoad.of(after).stream()
                        .filter(load -> load.bus().name().equals(bus.name()))
                        .allMatch(load -> load.busy() <= above);
    }

    private static int wideReads(ElaboratedPlatform platform) {
        List<Finding> found = new ArrayList<>();
        new WideReadRule().check(platform, found::add);
        return found.size();
    }
}
