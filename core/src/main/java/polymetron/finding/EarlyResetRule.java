package polymetron.finding;

import java.util.List;
import java.util.function.Consumer;
import polymetron.clock.PllBlock;
import polymetron.edit.Edit;
import polymetron.elaborate.Domain;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.library.ResetOutput;

/** A domain whose clock a block makes is reset by the board alone. */
final class EarlyResetRule extends PlainRule {
    EarlyResetRule() {
        super(
                "reset-before-clock",
                Grade.WARNING,
                "Reset that ends before the clock is there",
                "The clock is made in the device and takes time to settle. Blocks that leave their"
                        + " reset before it has may start in any state.");
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        for (Domain domain : platform.domains()) {
            String clock = domain.domain().clock();
            boolean made = domain.clock() == null && clock != null && clock.indexOf('.') > 0;
            if (!made || domain.reset() == null || domain.frequencyHz() == 0) {
                continue;
            }
            String maker = clock.substring(0, clock.indexOf('.'));
            boolean waits =
                    platform.block(maker)
                            .filter(block -> PllBlock.of(platform, block).isPresent())
                            .isPresent();
            if (waits) {
                // The top level keeps the reset as long as a PLL on the way is not locked.
                continue;
            }
            List<Fix> fixes =
                    platform.block(maker).stream()
                            .flatMap(block -> block.type().resetOutputs().stream())
                            .map(ResetOutput::name)
                            .map(name -> by(domain, maker + "." + name))
                            .toList();
            report.accept(
                    finding(
                            domain.name(),
                            "%s runs on %s, but leaves its reset with %s of the board"
                                    .formatted(domain.name(), clock, domain.reset().name()),
                            fixes));
        }
    }

    private static Fix by(Domain domain, String reset) {
        return new Fix(
                "Reset %s by %s".formatted(domain.name(), reset),
                new Edit.ChangeDomain(domain.domain().withReset(reset)));
    }
}
