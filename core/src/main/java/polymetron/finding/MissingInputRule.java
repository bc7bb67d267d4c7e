package polymetron.finding;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterruptLink;
import polymetron.interrupt.Sinks;

/** An interrupt source leads to an input that the sink does not have. */
final class MissingInputRule implements Rule {
    @Override
    public String id() {
        return "interrupt-input-missing";
    }

    @Override
    public Grade grade() {
        return Grade.ERROR;
    }

    @Override
    public String title() {
        return "Interrupt input that is not there";
    }

    @Override
    public String explanation() {
        return "The line would end at no input, and software would enable a number that never"
                + " comes.";
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        for (InterruptLink link : platform.interrupts()) {
            if (link.isConnected() && !link.sink().hasInput(link.wire().input())) {
                int last = link.sink().first() + link.sink().count() - 1;
                report.accept(
                        finding(
                                link.ref(),
                                "%s goes to input %s of %s.%s, which has inputs %s to %s"
                                        .formatted(
                                                link.ref(),
                                                link.wire().input(),
                                                link.wire().block(),
                                                link.wire().sink(),
                                                link.sink().first(),
                                                last),
                                fixes(platform, link)));
            }
        }
    }

    /** Another input, or as many as it takes to have this one. */
    private static List<Fix> fixes(ElaboratedPlatform platform, InterruptLink link) {
        List<Fix> fixes = new ArrayList<>(ConnectFixes.of(platform, new Sinks(platform), link));
        if (link.wire().input() >= link.sink().first()) {
            fixes.addAll(
                    InterruptInputFixes.upTo(
                            platform,
                            new Sinks.Sink(link.sinkBlock(), link.sink()),
                            link.wire().input()));
        }
        return fixes;
    }
}
