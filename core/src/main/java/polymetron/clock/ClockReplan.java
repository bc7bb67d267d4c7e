package polymetron.clock;

import java.util.ArrayList;
import java.util.List;
import polymetron.edit.Edit;
import polymetron.elaborate.Domain;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.library.Device;

/**
 * Another frequency for a clock domain that a PLL makes: settings of that PLL, with its other clocks as they are requested,
 * or as they are where nothing is requested.
 *
 * @param obstacle why there is none; null when there are settings
 * @param settings the best first
 */
public record ClockReplan(String obstacle, PllBlock pll, List<PllSetting> settings) {
    private static final int MOST = 6;

    public static ClockReplan of(
            ElaboratedPlatform platform, Domain domain, long hertz, double tolerancePpm) {
        PllBlock pll = maker(platform, domain);
        Device device = platform.device();
        if (pll == null) {
            return none(
                    "%s does not come from a PLL; plan a new clock from it instead"
                            .formatted(domain.name()));
        }
        if (device == null || device.plls() == null || pll.inputHz() == 0) {
            return none("%s has no clock, or the device has no PLL".formatted(pll.block().name()));
        }
        List<PllWish> wishes = new ArrayList<>();
        for (PllWish now : pll.wishes()) {
            Domain made = madeBy(platform, pll.block().name() + "." + now.name());
            if (made != null && made.name().equals(domain.name())) {
                wishes.add(new PllWish(domain.name(), hertz, tolerancePpm));
            } else if (made != null && made.domain().wantedHz() != null) {
                wishes.add(new PllWish(made.name(), made.domain().wantedHz(), tolerancePpm));
            } else {
                wishes.add(
                        new PllWish(
                                made == null ? now.name() : made.name(),
                                now.hertz(),
                                tolerancePpm));
            }
        }
        PllSearch search = new PllSearch(device.plls(), pll.inputHz(), wishes);
        return search.obstacle()
                .map(ClockReplan::none)
                .orElseGet(() -> new ClockReplan(null, pll, search.candidates(MOST)));
    }

    private static ClockReplan none(String obstacle) {
        return new ClockReplan(obstacle, null, List.of());
    }

    /** The PLL that makes the clock of a domain; null when none does. */
    public static PllBlock maker(ElaboratedPlatform platform, Domain domain) {
        return ClockMaker.of(platform, domain)
                .flatMap(maker -> PllBlock.of(platform, maker.block()))
                .orElse(null);
    }

    private static Domain madeBy(ElaboratedPlatform platform, String output) {
        return platform.domains().stream()
                .filter(domain -> output.equals(domain.domain().clock()))
                .findFirst()
                .orElse(null);
    }

    /** A setting and the frequency that is requested with it, as one edit. */
    public Edit edit(Domain domain, long hertz, PllSetting setting) {
        List<Edit> edits = new ArrayList<>(PllBlock.edits(pll.block().name(), pll.role(), setting));
        edits.add(new Edit.ChangeDomain(domain.domain().withWantedHz(hertz)));
        return new Edit.Several("set %s to another frequency".formatted(domain.name()), edits);
    }
}
