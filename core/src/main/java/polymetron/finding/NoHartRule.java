package polymetron.finding;

import java.util.List;
import java.util.function.Consumer;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterruptLink;
import polymetron.interrupt.InterruptWays;
import polymetron.interrupt.Sinks;
import polymetron.library.Kind;

/** A source goes into a controller that interrupts no hart. */
final class NoHartRule extends PlainRule {
    NoHartRule() {
        super(
                "interrupt-without-hart",
                Grade.WARNING,
                "Interrupt that reaches no hart",
                "The source is connected to a controller whose own line goes nowhere, so no"
                        + " processor is ever interrupted.");
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        InterruptWays ways = InterruptWays.of(platform);
        for (InterruptLink link : platform.interrupts()) {
            if (!link.isConnected() || !link.sink().type().line().equals("device")) {
                continue;
            }
            InterruptLink last = ways.from(link).getLast();
            boolean lost =
                    last.sink().type().line().equals("device")
                            && last.sinkBlock().kind() != Kind.PROCESSOR;
            if (lost && !ways.isCircle(link)) {
                report.accept(
                        finding(
                                        link.ref(),
                                        "%s goes to %s, which interrupts no hart"
                                                .formatted(link.ref(), last.sinkBlock().name()),
                                        fixes(platform, last.sinkBlock()))
                                .because(
                                        "%s interrupts no hart"
                                                .formatted(last.sinkBlock().name())));
            }
        }
    }

    /** The controller's own line into a processor, or into a controller that interrupts one. */
    private static List<Fix> fixes(ElaboratedPlatform platform, ElaboratedBlock controller) {
        return platform.interrupts().stream()
                .filter(link -> link.block() == controller && link.wire() == null)
                .flatMap(link -> ConnectFixes.of(platform, new Sinks(platform), link).stream())
                .toList();
    }
}
