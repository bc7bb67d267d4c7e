package polymetron.finding;

import java.util.List;
import java.util.function.Consumer;
import polymetron.clock.DerivedRates;
import polymetron.clock.Rate;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.library.Capability;
import polymetron.quantity.Quantity;

/** A derived rate is further off than its block allows; baud rates have a rule with fixes of their own. */
final class RateOffRule extends PlainRule {
    RateOffRule() {
        super(
                "rate-off",
                Grade.WARNING,
                "Rate off the requested value",
                "What the block derives from its clock is further off than it may be, so that what"
                        + " listens at the other end, or software that counts on it, goes wrong.");
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        for (Rate rate : DerivedRates.of(platform)) {
            boolean ownRule =
                    platform.block(rate.block())
                            .filter(
                                    block ->
                                            !block.type()
                                                    .provides(Capability.Console.class)
                                                    .isEmpty())
                            .isPresent();
            if (!rate.isGood() && !ownRule) {
                report.accept(
                        finding(
                                rate.block(),
                                "%s of %s is %s, %s off"
                                        .formatted(
                                                rate.type().name(),
                                                rate.block(),
                                                Quantity.format(rate.actual(), rate.type().unit()),
                                                Quantity.error(rate.errorPercent() * 10_000)),
                                List.of()));
            }
        }
    }
}
