package polymetron.finding;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.function.Consumer;
import polymetron.edit.Edit;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.library.Capability;
import polymetron.serial.BaudRate;
import polymetron.software.Consoles;

/** The rate of a console is too far from the requested one. */
final class BaudRule implements Rule {
    private static final long[] USUAL = {
        1_000_000, 921_600, 460_800, 230_400, 115_200, 57_600, 38_400, 19_200, 9_600, 4_800, 2_400,
        1_200
    };
    private static final int MOST_FIXES = 3;

    @Override
    public String id() {
        return "baud-error";
    }

    @Override
    public Grade grade() {
        return Grade.WARNING;
    }

    @Override
    public String title() {
        return "Baud rate error over 2 %";
    }

    @Override
    public String explanation() {
        return "Both ends together may be off by about 4 % before the last bit of a character is"
                + " read wrongly; more than half of that leaves the other end no room.";
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        for (ElaboratedBlock block : platform.blocks()) {
            for (Capability.Console console : block.type().provides(Capability.Console.class)) {
                Consoles.rate(platform, block, console)
                        .filter(rate -> !rate.isWithinLimit())
                        .ifPresent(rate -> report.accept(tooFar(block, console, rate)));
            }
        }
    }

    private Finding tooFar(ElaboratedBlock block, Capability.Console console, BaudRate rate) {
        List<Fix> fixes = new ArrayList<>();
        String parameter = console.baud().parameter().orElse(null);
        for (long usual : USUAL) {
            boolean good = new BaudRate(usual, rate.clockHz()).isWithinLimit();
            if (parameter != null
                    && good
                    && usual <= 2 * rate.wanted()
                    && fixes.size() < MOST_FIXES) {
                fixes.add(
                        new Fix(
                                "Use %s Bd".formatted(usual),
                                new Edit.SetParameter(
                                        block.name(), parameter, Long.toString(usual))));
            }
        }
        return finding(
                block.name() + "." + console.baud(),
                String.format(
                        Locale.ROOT,
                        "%s asks for %s Bd and gets %.0f Bd, %+.1f %%: divisor %s at a clock of %s",
                        block.name(),
                        rate.wanted(),
                        rate.actual(),
                        rate.errorPercent(),
                        rate.divisor(),
                        polymetron.quantity.Frequency.format(rate.clockHz())),
                fixes);
    }
}
