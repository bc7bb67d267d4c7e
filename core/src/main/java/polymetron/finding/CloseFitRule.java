package polymetron.finding;

import java.util.List;
import java.util.function.Consumer;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.fit.Amount;
import polymetron.fit.DeviceFit;

/** An estimate is so near to what the device has that it may turn out not to fit. */
final class CloseFitRule implements Rule {
    @Override
    public String id() {
        return "fit-close";
    }

    @Override
    public Grade grade() {
        return Grade.WARNING;
    }

    @Override
    public String title() {
        return "May not fit";
    }

    @Override
    public String explanation() {
        return "Logic is estimated from formulas. If they are as far off as they may be, it does"
                + " not fit any more.";
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        DeviceFit.of(platform).stream()
                .flatMap(fit -> fit.amounts().stream())
                .filter(amount -> amount.fits() && !amount.surelyFits())
                .forEach(amount -> report.accept(finding(amount.name(), words(amount), List.of())));
    }

    private static String words(Amount amount) {
        return "about %s of %s %s are needed, give or take %s %%"
                .formatted(
                        amount.used(),
                        amount.available(),
                        amount.name(),
                        amount.uncertaintyPercent());
    }
}
