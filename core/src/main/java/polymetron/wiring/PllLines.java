package polymetron.wiring;

import java.util.List;
import polymetron.clock.PllBlock;
import polymetron.clock.PllSearch;
import polymetron.clock.PllSetting;
import polymetron.edit.Edit;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.library.Device;

/** Settings for PLLs that the clock which goes into them takes out of their limits. */
final class PllLines {
    private final Draft draft;

    PllLines(Draft draft) {
        this.draft = draft;
    }

    /** The setting within the limits that comes nearest; a PLL that the user has set stays as it is. */
    void plan() {
        Device device = draft.now().device();
        if (device == null || device.plls() == null) {
            return;
        }
        for (ElaboratedBlock block : draft.blocksByName()) {
            PllBlock pll = PllBlock.of(draft.now(), block).orElse(null);
            String key = "pll:" + block.name();
            if (pll == null
                    || draft.isSaid(key)
                    || !block.block().parameters().isEmpty()
                    || pll.violations(device.plls()).isEmpty()) {
                continue;
            }
            List<PllSetting> settings =
                    new PllSearch(device.plls(), pll.inputHz(), pll.wishes()).candidates(1);
            if (!settings.isEmpty()) {
                PllSetting setting = settings.getFirst();
                draft.propose(
                        key,
                        Proposal.Kind.PARAMETER,
                        "%s: × %s / %s"
                                .formatted(
                                        block.name(),
                                        setting.multiplier(),
                                        setting.divider() * setting.steps()),
                        "with its defaults " + String.join("; ", pll.violations(device.plls())),
                        new Edit.Several(null, PllBlock.edits(block.name(), pll.role(), setting)));
            }
        }
    }
}
