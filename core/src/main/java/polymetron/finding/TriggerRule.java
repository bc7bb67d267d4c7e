package polymetron.finding;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import polymetron.edit.Edit;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterruptLink;
import polymetron.interrupt.Sinks;
import polymetron.library.Trigger;

/** A source signals otherwise than its input takes. */
final class TriggerRule extends PlainRule {
    TriggerRule() {
        super(
                "interrupt-trigger",
                Grade.ERROR,
                "Interrupt signal that the input does not take",
                "The input would see an interrupt all the time, or never.");
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        for (InterruptLink link : platform.interrupts()) {
            Trigger signal = link.source().type().signal();
            if (link.isConnected() && !link.sink().type().accepts(signal)) {
                report.accept(
                        finding(
                                link.ref(),
                                "%s signals by %s, which %s.%s does not take"
                                        .formatted(
                                                link.ref(),
                                                signal == Trigger.EDGE
                                                        ? "an edge"
                                                        : "a " + signal + " level",
                                                link.wire().block(),
                                                link.wire().sink()),
                                fixes(platform, link)));
            }
        }
    }

    private static List<Fix> fixes(ElaboratedPlatform platform, InterruptLink link) {
        List<Fix> fixes = new ArrayList<>(ConnectFixes.of(platform, new Sinks(platform), link));
        fixes.add(
                new Fix(
                        "Disconnect %s".formatted(link.ref()),
                        new Edit.DisconnectInterrupt(link.block().name(), link.source().name())));
        return fixes;
    }
}
