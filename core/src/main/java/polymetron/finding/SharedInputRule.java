package polymetron.finding;

import java.util.HashMap;
import java.util.Map;
import java.util.function.Consumer;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterruptLink;
import polymetron.interrupt.Sinks;
import polymetron.platform.InterruptWire;

/** Two interrupt sources lead to one input. */
final class SharedInputRule implements Rule {
    @Override
    public String id() {
        return "interrupt-shared";
    }

    @Override
    public Grade grade() {
        return Grade.ERROR;
    }

    @Override
    public String title() {
        return "Two sources on one interrupt input";
    }

    @Override
    public String explanation() {
        return "Two outputs would drive one line, and software could not tell who asked.";
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        Map<InterruptWire, InterruptLink> first = new HashMap<>();
        for (InterruptLink link : platform.interrupts()) {
            if (!link.isConnected()) {
                continue;
            }
            InterruptLink other = first.putIfAbsent(link.wire(), link);
            if (other != null) {
                report.accept(
                        finding(
                                link.ref(),
                                "%s and %s both go to input %s of %s.%s"
                                        .formatted(
                                                other.ref(),
                                                link.ref(),
                                                link.wire().input(),
                                                link.wire().block(),
                                                link.wire().sink()),
                                ConnectFixes.of(platform, new Sinks(platform), link)));
            }
        }
    }
}
