package polymetron.server.clock;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import polymetron.clock.ClockWishes;
import polymetron.clock.Crossings;
import polymetron.clock.DerivedRates;
import polymetron.clock.PllBlock;
import polymetron.clock.Rate;
import polymetron.clock.ResetStep;
import polymetron.elaborate.Domain;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.library.Board;
import polymetron.library.ClockInput;
import polymetron.library.ClockOutput;
import polymetron.library.Device;
import polymetron.quantity.Quantity;

/** Makes the view of clocks. */
final class ClocksViews {
    private final ElaboratedPlatform platform;
    private final List<ClocksView.ClockNodeView> tree = new ArrayList<>();
    private final Set<String> shown = new HashSet<>();

    private ClocksViews(ElaboratedPlatform platform) {
        this.platform = platform;
    }

    static ClocksView of(long revision, ElaboratedPlatform platform) {
        ClocksViews views = new ClocksViews(platform);
        views.grow();
        return new ClocksView(
                revision,
                views.tree,
                DerivedRates.of(platform).stream().map(ClocksViews::rate).toList(),
                Crossings.of(platform).stream()
                        .map(
                                each ->
                                        new ClocksView.ClockCrossingView(
                                                each.sort().toString(),
                                                each.what(),
                                                each.from(),
                                                each.to(),
                                                each.by()))
                        .toList(),
                ResetStep.of(platform).stream().map(views::reset).toList(),
                views.plls());
    }

    private void grow() {
        if (platform.board() != null) {
            for (Board.Clock clock : platform.board().clocks()) {
                node(
                        0,
                        "oscillator",
                        clock.name(),
                        null,
                        clock.frequencyHz(),
                        null,
                        "%s, pin %s".formatted(clock.title(), clock.pin()),
                        -1);
                domainsOf(clock.name(), 1);
            }
        }
        // Blocks with an oscillator of their own, and what runs on a clock that is not there.
        for (ElaboratedBlock block : platform.blocks()) {
            for (ClockOutput output : block.shape().clockOutputs()) {
                if (output.from() == null) {
                    String name = block.name() + "." + output.name();
                    long hertz = block.shape().outputHz(output, 0);
                    node(0, "block", name, block.name(), hertz, null, block.type().title(), -1);
                    domainsOf(name, 1);
                }
            }
        }
        for (Domain domain : platform.domains()) {
            if (!shown.contains(domain.name())) {
                domain(domain, 0);
            }
        }
    }

    private void domainsOf(String clock, int depth) {
        for (Domain domain : platform.domains()) {
            if (clock.equals(domain.domain().clock()) && !shown.contains(domain.name())) {
                domain(domain, depth);
            }
        }
    }

    private void domain(Domain domain, int depth) {
        shown.add(domain.name());
        int blocks = blocksIn(domain);
        node(
                depth,
                "domain",
                domain.name(),
                null,
                domain.frequencyHz(),
                domain.domain().wantedHz(),
                "%s %s".formatted(blocks, blocks == 1 ? "block" : "blocks"),
                List.copyOf(platform.domains()).indexOf(domain));
        for (ElaboratedBlock block : platform.blocks()) {
            for (ClockOutput output : block.shape().clockOutputs()) {
                String into = output.from() == null ? null : block.domain(output.from());
                if (domain.name().equals(into)) {
                    made(block, output, domain, depth + 1);
                }
            }
        }
    }

    private void made(ElaboratedBlock block, ClockOutput output, Domain domain, int depth) {
        boolean isPll = PllBlock.of(platform, block).isPresent();
        String name = block.name() + "." + output.name();
        node(
                depth,
                isPll ? "PLL" : "block",
                name,
                block.name(),
                block.shape().outputHz(output, domain.frequencyHz()),
                null,
                block.type().title(),
                -1);
        domainsOf(name, depth + 1);
    }

    private void node(
            int depth,
            String sort,
            String name,
            String block,
            long hertz,
            Long wanted,
            String detail,
            int index) {
        tree.add(
                new ClocksView.ClockNodeView(
                        depth,
                        sort,
                        name,
                        block,
                        hertz == 0 ? "no clock" : Quantity.format(hertz, "Hz"),
                        wanted == null ? null : Quantity.format(wanted, "Hz"),
                        wanted == null || hertz == 0
                                ? null
                                : Quantity.error((hertz - wanted) * 1e6 / wanted),
                        detail,
                        index));
    }

    private int blocksIn(Domain domain) {
        return (int)
                platform.blocks().stream()
                        .filter(
                                block ->
                                        block.type().clocks().stream()
                                                .map(ClockInput::name)
                                                .anyMatch(
                                                        clock ->
                                                                domain.name()
                                                                        .equals(
                                                                                block.domain(
                                                                                        clock))))
                        .count();
    }

    private static ClocksView.RateView rate(Rate rate) {
        String unit = rate.type().unit();
        boolean asked = !Double.isNaN(rate.wanted());
        return new ClocksView.RateView(
                rate.block(),
                rate.type().name(),
                asked ? Quantity.format(rate.wanted(), unit) : null,
                Quantity.format(rate.actual(), unit),
                asked && !Double.isNaN(rate.actual())
                        ? Quantity.error(rate.errorPercent() * 10_000)
                        : null,
                rate.isGood());
    }

    private ClocksView.ResetView reset(ResetStep step) {
        return new ClocksView.ResetView(
                step.order(),
                step.domain().domain().reset(),
                step.activeLow() == null ? null : step.activeLow() ? "low" : "high",
                step.domain().name(),
                blocksIn(step.domain()));
    }

    private ClocksView.PllsView plls() {
        Device device = platform.device();
        if (device == null || device.plls() == null) {
            return null;
        }
        Device.Plls limits = device.plls();
        return new ClocksView.PllsView(
                limits.count(),
                ClockWishes.freePlls(platform),
                limits.outputs(),
                between(limits.inputMinimumHz(), limits.inputMaximumHz()),
                between(limits.detectorMinimumHz(), limits.detectorMaximumHz()),
                between(limits.vcoMinimumHz(), limits.vcoMaximumHz()),
                limits.multiplierSteps() == 1
                        ? "whole"
                        : "in steps of 1/%s".formatted(limits.multiplierSteps()));
    }

    private static String between(long low, long high) {
        return Quantity.format(low, "Hz") + " to " + Quantity.format(high, "Hz");
    }
}
