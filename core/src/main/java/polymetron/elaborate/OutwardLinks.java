package polymetron.elaborate;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import polymetron.library.Board;
import polymetron.platform.Outward;

/** Every outward interface, and what is on the other side of it. */
final class OutwardLinks {
    private OutwardLinks() {}

    /**
     * @param board null when the library does not have it
     */
    static List<OutwardLink> of(
            Board board, Map<String, ElaboratedBlock> blocks, Dangling dangling) {
        List<OutwardLink> links = new ArrayList<>();
        for (ElaboratedBlock block : blocks.values()) {
            for (SizedOutward form : block.shape().outward()) {
                Outward binding = block.block().outward().get(form.name());
                Board.Part part = null;
                if (binding != null && binding.part() != null && board != null) {
                    part = board.part(binding.part()).orElse(null);
                    if (part == null) {
                        dangling.missing(
                                block.name(),
                                DanglingReference.Sort.PART,
                                form.name(),
                                "%s has no part %s".formatted(board.title(), binding.part()));
                    }
                }
                links.add(new OutwardLink(block, form, binding, part));
            }
        }
        return List.copyOf(links);
    }
}
