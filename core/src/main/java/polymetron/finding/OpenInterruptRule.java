package polymetron.finding;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterruptLink;
import polymetron.interrupt.Sinks;

/** An interrupt source leads nowhere. */
final class OpenInterruptRule implements Rule {
    /** One controller settles them all, and each is a wiring plan of its own. */
    private static final int MOST_CONTROLLERS = 3;

    @Override
    public String id() {
        return "interrupt-open";
    }

    @Override
    public Grade grade() {
        return Grade.WARNING;
    }

    @Override
    public String title() {
        return "Interrupt source not connected";
    }

    @Override
    public String explanation() {
        return "Software that waits for the interrupt never goes on. Polling still works.";
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        Sinks sinks = null;
        int controllers = 0;
        for (InterruptLink link : platform.interrupts()) {
            if (link.wire() == null) {
                sinks = sinks == null ? new Sinks(platform) : sinks;
                List<Fix> fixes = fixes(platform, sinks, link);
                if (fixes.isEmpty() && controllers++ < MOST_CONTROLLERS) {
                    fixes = AddControllerFix.of(platform, link).stream().toList();
                }
                report.accept(
                        finding(
                                link.ref(),
                                "interrupt "
                                        + link.source().name()
                                        + " of "
                                        + link.block().name()
                                        + " is not connected",
                                fixes));
            }
        }
    }

    private static List<Fix> fixes(ElaboratedPlatform platform, Sinks sinks, InterruptLink link) {
        List<Fix> fixes = new ArrayList<>(ConnectFixes.of(platform, sinks, link));
        if (fixes.isEmpty()) {
            fixes.addAll(InterruptInputFixes.more(platform, sinks, link));
        }
        return fixes;
    }
}
