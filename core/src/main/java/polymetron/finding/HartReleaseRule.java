package polymetron.finding;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
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
        Map<String, List<Fix>> bySink = null;
        for (SoftwareView view : SoftwareView.all(platform)) {
            for (Hart hart : view.harts()) {
                boolean waits =
                        hart != view.harts().getFirst()
                                && MachineTimer.of(platform).stream()
                                        .filter(timer -> timer.signalled().contains(hart))
                                        .noneMatch(timer -> isSeen(view, timer));
                if (waits) {
                    bySink = bySink == null ? fixes(platform) : bySink;
                    report.accept(
                            finding(
                                    hart.block().name(),
                                    "no software interrupt that %s reaches releases %s"
                                            .formatted(
                                                    view.harts().getFirst().label(), hart.label()),
                                    fixes(bySink, hart)));
                }
            }
        }
    }

    private static boolean isSeen(SoftwareView view, MachineTimer timer) {
        return view.targets().stream().anyMatch(target -> target.ref().equals(timer.registers()));
    }

    /** Any software interrupt that leads nowhere yet can release it. */
    private static List<Fix> fixes(Map<String, List<Fix>> bySink, Hart hart) {
        String sink = hart.role().lines() == null ? null : hart.role().lines().software();
        return bySink.getOrDefault(hart.block().name() + "." + sink, List.of());
    }

    /** Connections that could be made, by the input that they lead to: worked out once for all harts. */
    private static Map<String, List<Fix>> fixes(ElaboratedPlatform platform) {
        Map<String, List<Fix>> bySink = new HashMap<>();
        Sinks sinks = new Sinks(platform);
        platform.interrupts().stream()
                .filter(link -> link.wire() == null)
                .flatMap(link -> ConnectFixes.of(platform, sinks, link).stream())
                .forEach(
                        fix -> {
                            if (fix.edit() instanceof Edit.ConnectInterrupt connect) {
                                bySink.computeIfAbsent(
                                                connect.sinkBlock() + "." + connect.sink(),
                                                each -> new ArrayList<>())
                                        .add(fix);
                            }
                        });
        return bySink;
    }
}
