package polymetron.elaborate;

import java.util.List;
import java.util.Map;
import polymetron.library.Board;
import polymetron.library.Library;
import polymetron.platform.Platform;

/**
 * Works a platform out, in time n log n (the sorting of ranges). Never fails: what is wrong is left out or kept as a {@link
 * DanglingReference}, and the rest is worked out all the same. Each part is made once, from the parts before it that it
 * names; what follows from the whole is left to a {@link Pass}, for whoever asks.
 */
public final class Elaborator {
    private final Library library;

    public Elaborator(Library library) {
        this.library = library;
    }

    public ElaboratedPlatform elaborate(Platform platform) {
        Dangling dangling = new Dangling();
        Board board = library.board(platform.board()).orElse(null);
        if (board == null) {
            dangling.missing(
                    "platform",
                    DanglingReference.Sort.BOARD,
                    null,
                    "board %s is not in the library".formatted(platform.board()));
        }
        Map<String, ElaboratedBlock> blocks = BlockIndex.of(library, platform, dangling);
        Map<String, Domain> domains = DomainIndex.of(platform, board, blocks, dangling);
        Map<String, ElaboratedBus> buses = BusIndex.of(platform, domains, blocks, dangling);
        List<AddressSpace> spaces = AddressSpaces.of(blocks, buses);
        List<StreamLink> streams = StreamLinks.of(blocks, dangling);
        List<InterruptLink> interrupts = InterruptLinks.of(blocks, dangling);
        List<OutwardLink> outward = OutwardLinks.of(board, blocks, dangling);
        return new ElaboratedPlatform(
                platform,
                library,
                board,
                board == null ? null : library.deviceOf(board).orElse(null),
                domains,
                blocks,
                buses,
                spaces,
                streams,
                interrupts,
                outward,
                dangling.all(),
                new Results());
    }
}
