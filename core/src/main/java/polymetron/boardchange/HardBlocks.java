package polymetron.boardchange;

import polymetron.boardchange.BoardChange.Outcome;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.library.Device;

/** Blocks that are in the silicon of some devices only. They stay in the platform, and the checks say what is missing. */
final class HardBlocks {
    private final Draft draft;

    HardBlocks(Draft draft) {
        this.draft = draft;
    }

    void plan() {
        Device device = draft.now().device();
        for (ElaboratedBlock block : draft.before().blocks()) {
            String needs = block.type().needs();
            if (needs != null && device != null) {
                boolean has = device.hardBlocks(needs) > 0;
                draft.say(
                        has ? Outcome.STAYS : Outcome.LOST,
                        block.name(),
                        has
                                ? "on the %s of %s".formatted(needs, device.name())
                                : "%s has no %s".formatted(device.name(), needs));
            }
        }
    }
}
