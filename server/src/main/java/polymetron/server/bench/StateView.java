package polymetron.server.bench;

import jakarta.annotation.Nullable;
import java.util.List;
import polymetron.address.Address;
import polymetron.bench.live.BenchState;
import polymetron.bench.live.Outside;

/** What a bench shows at one moment. */
record StateView(
        String mode,
        long cycles,
        double seconds,
        double speed,
        String pc,
        List<HartView> harts,
        boolean waiting,
        long traps,
        @Nullable String lastTrap,
        @Nullable String stopped,
        long consoleTotal,
        List<LevelView> parts,
        @Nullable List<String> notices,
        List<VoltageView> voltages,
        List<SignalView> signals,
        List<ReceptionView> receptions,
        List<AroundView> around) {
    /**
     * Where a hart is.
     *
     * @param place symbol and source line of the program; null where they are not known
     */
    record HartView(String label, String pc, @Nullable String place, boolean waiting) {}

    record VoltageView(String part, String block, int channel, double volts, double fullScale) {}

    record SignalView(
            String part, String block, String shape, List<String> shapes, int channels, int bits) {}

    record ReceptionView(String part, String block, boolean on) {}

    /**
     * Something around the board that moves parts of it while it acts.
     *
     * @param parts those parts
     */
    record AroundView(
            String kind,
            String title,
            String summary,
            boolean acts,
            List<String> parts,
            List<ReadingView> readings) {}

    record ReadingView(String name, double value, double most, String unit) {}

    private static AroundView around(Outside.Around around) {
        return new AroundView(
                around.kind(),
                around.title(),
                around.summary(),
                around.acts(),
                around.parts(),
                around.readings().stream()
                        .map(
                                each ->
                                        new ReadingView(
                                                each.name(),
                                                each.value(),
                                                each.most(),
                                                each.unit()))
                        .toList());
    }

    record LevelView(String part, String block, int width, long levels, List<Double> pulses) {}

    static StateView of(BenchState state) {
        return new StateView(
                state.mode().toString(),
                state.cycles(),
                state.seconds(),
                state.speed(),
                Address.format(state.pc()),
                state.harts().stream()
                        .map(
                                each ->
                                        new HartView(
                                                each.label(),
                                                Address.format(each.pc()),
                                                each.place(),
                                                each.waiting()))
                        .toList(),
                state.waiting(),
                state.traps(),
                state.lastTrap(),
                state.stopped(),
                state.consoleTotal(),
                state.parts().stream()
                        .map(
                                part ->
                                        new LevelView(
                                                part.part(),
                                                part.block(),
                                                part.width(),
                                                part.levels(),
                                                part.pulses()))
                        .toList(),
                state.notices(),
                state.outside().voltages().stream()
                        .map(
                                each ->
                                        new VoltageView(
                                                each.part(),
                                                each.block(),
                                                each.channel(),
                                                each.volts(),
                                                each.fullScale()))
                        .toList(),
                state.outside().signals().stream()
                        .map(
                                each ->
                                        new SignalView(
                                                each.part(),
                                                each.block(),
                                                each.shape(),
                                                each.shapes(),
                                                each.channels(),
                                                each.bits()))
                        .toList(),
                state.outside().receptions().stream()
                        .map(each -> new ReceptionView(each.part(), each.block(), each.on()))
                        .toList(),
                state.outside().around().stream().map(StateView::around).toList());
    }
}
