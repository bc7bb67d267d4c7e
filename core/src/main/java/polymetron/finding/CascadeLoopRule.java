package polymetron.finding;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import polymetron.edit.Edit;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterruptLink;
import polymetron.interrupt.InterruptWays;
import polymetron.interrupt.Sinks;

/** Controllers in cascade lead back to one that was passed. */
final class CascadeLoopRule extends PlainRule {
    CascadeLoopRule() {
        super(
                "interrupt-circle",
                Grade.ERROR,
                "Loop of interrupt controllers",
                "An interrupt would go round and reach no hart.");
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        InterruptWays ways = InterruptWays.of(platform);
        for (InterruptLink link : platform.interrupts()) {
            if (link.source().type().line().equals("external")
                    && link.isConnected()
                    && ways.isCircle(link)) {
                report.accept(
                        finding(
                                link.ref(),
                                "%s leads through controllers back to %s"
                                        .formatted(link.ref(), link.block().name()),
                                fixes(platform, link)));
            }
        }
    }

    /** Into a processor instead, or nowhere. */
    private static List<Fix> fixes(ElaboratedPlatform platform, InterruptLink link) {
        List<Fix> fixes = new ArrayList<>(ConnectFixes.of(platform, new Sinks(platform), link));
        fixes.add(
                new Fix(
                        "Disconnect %s".formatted(link.ref()),
                        new Edit.DisconnectInterrupt(link.block().name(), link.source().name())));
        return fixes;
    }
}
