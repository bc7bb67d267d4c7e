package polymetron.finding;

import java.util.function.Consumer;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.library.ClockInput;

/** A clock input is not connected. */
final class NoClockRule implements Rule {
    @Override
    public String id() {
        return "input-without-clock";
    }

    @Override
    public Grade grade() {
        return Grade.ERROR;
    }

    @Override
    public String title() {
        return "Input without a clock";
    }

    @Override
    public String explanation() {
        return "A block without a clock does nothing, and a transfer to it never ends.";
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        for (ElaboratedBlock block : platform.blocks()) {
            for (ClockInput clock : block.type().clocks()) {
                if (!platform.domainIndex()
                        .containsKey(block.block().domains().get(clock.name()))) {
                    report.accept(
                            finding(
                                    block.name() + "." + clock.name(),
                                    "clock input %s of %s is not connected"
                                            .formatted(clock.name(), block.name()),
                                    DomainFixes.of(platform, block, clock.name())));
                }
            }
        }
    }
}
