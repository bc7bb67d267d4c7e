package polymetron.boardchange;

import java.util.List;
import java.util.stream.Collectors;
import polymetron.boardchange.BoardChange.Outcome;
import polymetron.clock.PllBlock;
import polymetron.clock.PllSearch;
import polymetron.clock.PllSetting;
import polymetron.clock.PllWish;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.library.Device;
import polymetron.quantity.Quantity;

/** PLLs keep making the frequencies that they made, as near as the other device and its clock allow. */
final class PllSettings {
    private final Draft draft;

    PllSettings(Draft draft) {
        this.draft = draft;
    }

    void plan() {
        Device device = draft.now().device();
        for (ElaboratedBlock block : draft.before().blocks()) {
            PllBlock before = PllBlock.of(draft.before(), block).orElse(null);
            if (before != null && before.inputHz() > 0) {
                plan(before, device);
            }
        }
    }

    private void plan(PllBlock before, Device device) {
        String name = before.block().name();
        if (device == null || device.plls() == null) {
            draft.say(Outcome.LOST, name, "the device has no PLL");
            return;
        }
        PllBlock now =
                draft.now()
                        .block(name)
                        .flatMap(block -> PllBlock.of(draft.now(), block))
                        .orElseThrow();
        if (now.inputHz() == before.inputHz() && now.violations(device.plls()).isEmpty()) {
            draft.say(Outcome.STAYS, name, words(before.wishes()));
            return;
        }
        List<PllSetting> settings =
                now.inputHz() == 0
                        ? List.of()
                        : new PllSearch(device.plls(), now.inputHz(), before.wishes())
                                .candidates(1);
        if (settings.isEmpty()) {
            draft.say(Outcome.LOST, name, "cannot make " + words(before.wishes()));
            return;
        }
        PllSetting setting = settings.getFirst();
        draft.apply(PllBlock.edits(name, now.role(), setting));
        draft.say(
                Outcome.CHANGES,
                name,
                "set again for %s, %s off"
                        .formatted(
                                words(before.wishes()),
                                setting.worstPpm() == 0
                                        ? "nothing"
                                        : Quantity.error(setting.worstPpm()).replace("+", "")));
    }

    private static String words(List<PllWish> wishes) {
        return wishes.stream()
                .map(wish -> Quantity.format(wish.hertz(), "Hz"))
                .collect(Collectors.joining(", "));
    }
}
