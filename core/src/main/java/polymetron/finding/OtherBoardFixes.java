package polymetron.finding;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Predicate;
import polymetron.boardchange.BoardChange;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.library.Board;
import polymetron.library.Device;

/** The fixes that go to another board. What that costs beside is said before it happens, like with any fix. */
final class OtherBoardFixes {
    private static final int MOST = 3;

    private OtherBoardFixes() {}

    static List<Fix> with(ElaboratedPlatform platform, Predicate<Device> suits) {
        List<Fix> fixes = new ArrayList<>();
        for (Board board : platform.library().boards()) {
            boolean isOther = !board.identity().equals(platform.platform().board());
            Device device = platform.library().deviceOf(board).orElse(null);
            if (isOther && device != null && fixes.size() < MOST && suits.test(device)) {
                fixes.add(
                        new Fix(
                                "Change to " + board.title(),
                                BoardChange.of(platform, board.identity()).asEdit()));
            }
        }
        return fixes;
    }
}
