package polymetron.finding;

import java.util.List;
import java.util.function.Consumer;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.software.Hart;
import polymetron.software.MachineTimer;
import polymetron.software.SoftwareView;

/** Harts of one program count time at different rates. */
final class TimersDifferRule extends PlainRule {
    TimersDifferRule() {
        super(
                "timers-differ",
                Grade.WARNING,
                "One program, two rates of time",
                "Software takes the time of all harts to pass alike: one timebase, one number of"
                        + " ticks in a second. With two of them delays are wrong on one hart.");
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        for (SoftwareView view : SoftwareView.all(platform)) {
            MachineTimer first = null;
            for (Hart hart : view.harts()) {
                MachineTimer timer = MachineTimer.serving(platform, hart).orElse(null);
                if (timer == null || timer.tickHz() == 0) {
                    continue;
                }
                if (first != null && first.tickHz() != timer.tickHz()) {
                    report.accept(
                            finding(
                                    timer.block().name(),
                                    "%s counts %s ticks a second and %s %s, for harts of one program"
                                            .formatted(
                                                    first.block().name(),
                                                    first.tickHz(),
                                                    timer.block().name(),
                                                    timer.tickHz()),
                                    List.of()));
                }
                first = first == null ? timer : first;
            }
        }
    }
}
