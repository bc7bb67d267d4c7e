package polymetron.finding;

import java.util.List;
import java.util.function.Consumer;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.software.Hart;
import polymetron.software.MachineTimer;
import polymetron.software.SoftwareView;

/** A hart that shares a program waits for ever. */
final class HartReleaseRule extends PlainRule {
    HartReleaseRule() {
        super(
                "hart-never-released",
                Grade.WARNING,
                "Hart that nothing releases",
                "The first hart of a program sets up memory and releases the others by their"
                        + " software interrupts. Without one a hart stays in the start-up code.");
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        for (SoftwareView view : SoftwareView.all(platform)) {
            for (Hart hart : view.harts()) {
                boolean waits =
                        hart != view.harts().getFirst()
                                && MachineTimer.of(platform).stream()
                                        .filter(timer -> timer.signalled().contains(hart))
                                        .noneMatch(timer -> isSeen(view, timer));
                if (waits) {
                    report.accept(
                            finding(
                                    hart.block().name(),
                                    "no software interrupt that %s reaches releases %s"
                                            .formatted(
                                                    view.harts().getFirst().label(), hart.label()),
                                    List.of()));
                }
            }
        }
    }

    private static boolean isSeen(SoftwareView view, MachineTimer timer) {
        return view.targets().stream().anyMatch(target -> target.ref().equals(timer.registers()));
    }
}
