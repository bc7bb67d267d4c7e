package polymetron.finding;

import java.util.List;
import java.util.function.Consumer;
import polymetron.edit.Edit;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.interrupt.Sinks;
import polymetron.software.Hart;
import polymetron.software.MachineTimer;
import polymetron.software.SoftwareView;

/** A hart that shares a program never starts. */
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
                                    fixes(platform, hart)));
                }
            }
        }
    }

    private static boolean isSeen(SoftwareView view, MachineTimer timer) {
        return view.targets().stream().anyMatch(target -> target.ref().equals(timer.registers()));
    }

    /** Any software interrupt that leads nowhere yet can release it. */
    private static List<Fix> fixes(ElaboratedPlatform platform, Hart hart) {
        String sink = hart.role().lines() == null ? null : hart.role().lines().software();
        Sinks sinks = new Sinks(platform);
        return sink == null
                ? List.of()
                : platform.interrupts().stream()
                        .filter(link -> link.wire() == null)
                        .flatMap(link -> ConnectFixes.of(platform, sinks, link).stream())
                        .filter(
                                fix ->
                                        fix.edit() instanceof Edit.ConnectInterrupt connect
                                                && connect.sinkBlock().equals(hart.block().name())
                                                && connect.sink().equals(sink))
                        .toList();
    }
}
