package polymetron.bench.foreign;

import java.util.Map;
import polymetron.edit.Edit;
import polymetron.edit.Editor;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.Elaborator;
import polymetron.library.Library;
import polymetron.ownblock.OwnBlock;
import polymetron.platform.Platform;
import polymetron.wiring.WiringPlan;

/** A platform that has nothing but a block, with a clock and a reset where the board gives them. */
final class AloneOnBoard {
    /** The name of the block on it. */
    static final String NAME = "under_test";

    private AloneOnBoard() {}

    /**
     * @param library without the block, or with an earlier state of it
     */
    static ElaboratedPlatform of(OwnBlock block, Library library) {
        Library with = library.with(block.type(), block.hardware(), block.drivers());
        Editor editor = new Editor(with);
        Platform platform = Platform.empty("Self-test", with.boards().iterator().next().identity());
        platform =
                editor.apply(platform, new Edit.AddBlock(NAME, block.type().identity(), Map.of()));
        platform =
                editor.apply(
                        platform,
                        WiringPlan.propose(platform, with, WiringPlan.Decisions.NONE)
                                .asEdit("wire"));
        return new Elaborator(with).elaborate(platform);
    }
}
