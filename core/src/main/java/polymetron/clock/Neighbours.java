package polymetron.clock;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import polymetron.elaborate.Domain;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.StreamLink;
import polymetron.platform.Attachment;

/** What a block is connected to already, and in which clock domains that runs. */
public final class Neighbours {
    private final ElaboratedPlatform platform;

    public Neighbours(ElaboratedPlatform platform) {
        this.platform = platform;
    }

    /** The allowed domain in which most connections of the block are; the first of equals in their order. */
    public Optional<Domain> domainOf(ElaboratedBlock block, List<Domain> allowed) {
        Map<String, Integer> votes = new HashMap<>();
        for (Attachment at : block.block().attachments().values()) {
            platform.bus(at.bus()).ifPresent(bus -> vote(votes, bus.bus().domain()));
        }
        for (StreamLink link : platform.streams()) {
            if (link.sink() != null && link.block() == block) {
                vote(votes, link.sinkBlock().domain(link.sink().type().clock()));
            } else if (link.sink() != null && link.sinkBlock() == block) {
                vote(votes, link.block().domain(link.source().type().clock()));
            }
        }
        int most = votes.values().stream().mapToInt(Integer::intValue).max().orElse(0);
        return allowed.stream()
                .filter(domain -> most > 0 && votes.getOrDefault(domain.name(), 0) == most)
                .findFirst();
    }

    /** The allowed domain that a reset of a clock input is in already. */
    public static Optional<Domain> ofReset(
            ElaboratedBlock block, String clock, List<Domain> allowed) {
        return block.type().resets().stream()
                .filter(reset -> clock.equals(reset.clock()))
                .map(reset -> block.block().domains().get(reset.name()))
                .flatMap(name -> allowed.stream().filter(domain -> domain.name().equals(name)))
                .findFirst();
    }

    private static void vote(Map<String, Integer> votes, String domain) {
        if (domain != null) {
            votes.merge(domain, 1, Integer::sum);
        }
    }
}
