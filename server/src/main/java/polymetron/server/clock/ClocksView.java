package polymetron.server.clock;

import java.util.List;
import org.jspecify.annotations.Nullable;
import polymetron.clock.PllSetting;
import polymetron.edit.Edit;
import polymetron.quantity.Quantity;

/** Clocks and resets of a platform, from oscillators to blocks. */
public record ClocksView(
        long revision,
        List<ClockNodeView> tree,
        List<RateView> rates,
        List<ClockCrossingView> crossings,
        List<ResetView> resets,
        @Nullable PllsView plls) {

    /**
     * A line of the tree.
     *
     * @param depth how far below its oscillator
     * @param sort {@code oscillator}, {@code PLL}, {@code block} or {@code domain}
     * @param block block to select; missing for an oscillator or domain
     * @param error difference from the requested value; missing when there is none
     */
    public record ClockNodeView(
            int depth,
            String sort,
            String name,
            @Nullable String block,
            String actual,
            @Nullable String wanted,
            @Nullable String error,
            String detail,
            int index) {}

    public record RateView(
            String block,
            String name,
            @Nullable String wanted,
            String actual,
            @Nullable String error,
            boolean good) {}

    public record ClockCrossingView(
            String sort, String what, @Nullable String from, String to, @Nullable String by) {}

    /**
     * @param order turn in which it is released, from 1
     * @param polarity level of the board's reset that resets; missing for one that a block makes
     */
    public record ResetView(
            int order, String source, @Nullable String polarity, String domain, int blocks) {}

    /** What the PLLs of the device can do. */
    public record PllsView(
            int count,
            int free,
            int outputs,
            String input,
            String detector,
            String vco,
            String multiplier) {}

    /** Candidates for wanted clocks. */
    public record WishPlanView(
            long revision,
            @Nullable String obstacle,
            boolean severalPlls,
            List<CandidateView> candidates) {}

    /** One way to make all wanted clocks. */
    public record CandidateView(
            boolean within, String worst, List<PllSettingView> plls, Edit edit) {}

    public record PllSettingView(
            int divider,
            String multiplier,
            String detector,
            String vco,
            List<MadeClockView> outputs) {}

    public record MadeClockView(
            String name, String wanted, String actual, String error, int divider, boolean within) {}

    /** A way to make clocks, as it is shown. */
    static CandidateView candidate(List<PllSetting> plls, Edit edit) {
        double worst = plls.stream().mapToDouble(PllSetting::worstPpm).max().orElse(0);
        return new CandidateView(
                plls.stream().allMatch(PllSetting::isWithinTolerance),
                worst == 0 ? "exact" : Quantity.error(worst).replace("+", ""),
                plls.stream().map(ClocksView::view).toList(),
                edit);
    }

    private static ClocksView.PllSettingView view(PllSetting setting) {
        String multiplier =
                setting.multiplier() % setting.steps() == 0
                        ? Integer.toString(setting.multiplier() / setting.steps())
                        : Double.toString((double) setting.multiplier() / setting.steps());
        return new ClocksView.PllSettingView(
                setting.divider(),
                multiplier,
                Quantity.format(setting.detectorHz(), "Hz"),
                Quantity.format(setting.vcoHz(), "Hz"),
                setting.outputs().stream()
                        .map(
                                output ->
                                        new ClocksView.MadeClockView(
                                                output.wish().name(),
                                                Quantity.format(output.wish().hertz(), "Hz"),
                                                Quantity.format(setting.outputHz(output), "Hz"),
                                                Quantity.error(output.errorPpm()),
                                                output.divider(),
                                                output.isWithinTolerance()))
                        .toList());
    }
}
