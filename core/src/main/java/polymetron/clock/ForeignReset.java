package polymetron.clock;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import polymetron.elaborate.Domain;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.library.ResetInput;

/**
 * A reset input in another domain than its clock. Two domains on one clock are no crossing: a reset that one of them
 * releases is in step with both.
 *
 * @param from domain that resets
 * @param to domain that clocks
 */
public record ForeignReset(ElaboratedBlock block, ResetInput reset, Domain from, Domain to) {
    public static List<ForeignReset> of(ElaboratedPlatform platform) {
        List<ForeignReset> all = new ArrayList<>();
        for (ElaboratedBlock block : platform.blocks()) {
            for (ResetInput reset : block.type().resets()) {
                Domain from = domain(platform, block, reset.name());
                Domain to = domain(platform, block, reset.clock());
                if (from != null
                        && to != null
                        && !Objects.equals(from.domain().clock(), to.domain().clock())) {
                    all.add(new ForeignReset(block, reset, from, to));
                }
            }
        }
        return all;
    }

    private static Domain domain(ElaboratedPlatform platform, ElaboratedBlock block, String input) {
        String name = input == null ? null : block.block().domains().get(input);
        return name == null ? null : platform.domainIndex().get(name);
    }
}
