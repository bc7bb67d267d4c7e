package polymetron.finding;

import java.util.List;
import java.util.function.Consumer;
import polymetron.edit.Edit;
import polymetron.elaborate.Domain;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.quantity.Frequency;

/** A clock domain runs at another frequency than requested. */
final class ClockWishRule extends PlainRule {
    /** Crystals themselves are off by up to a tenth of this (common practice, no source). */
    private static final double MOST_PARTS = 1e-3;

    ClockWishRule() {
        super(
                "clock-off-wish",
                Grade.WARNING,
                "Clock off the requested frequency",
                "A frequency was requested, and what makes it was changed since, or cannot"
                        + " make it.");
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        for (Domain domain : platform.domains()) {
            Long wanted = domain.domain().wantedHz();
            if (wanted != null
                    && domain.frequencyHz() > 0
                    && Math.abs(domain.frequencyHz() - wanted) > MOST_PARTS * wanted) {
                report.accept(
                        finding(
                                domain.name(),
                                "%s runs at %s; requested %s"
                                        .formatted(
                                                domain.name(),
                                                Frequency.format(domain.frequencyHz()),
                                                Frequency.format(wanted)),
                                List.of(
                                        new Fix(
                                                "Request %s"
                                                        .formatted(
                                                                Frequency.format(
                                                                        domain.frequencyHz())),
                                                new Edit.ChangeDomain(
                                                        domain.domain()
                                                                .withWantedHz(
                                                                        domain.frequencyHz()))))));
            }
        }
    }
}
