package polymetron.elaborate;

import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Set;
import polymetron.library.Board;
import polymetron.library.ClockOutput;
import polymetron.platform.ClockDomain;
import polymetron.platform.Platform;

/** Where the clock and the reset of each domain come from, and how fast it is. */
final class DomainIndex {
    private final Platform platform;
    private final Board board;
    private final Map<String, ElaboratedBlock> blocks;
    private final Dangling dangling;
    private final Map<String, Domain> domains = new LinkedHashMap<>();

    private DomainIndex(
            Platform platform,
            Board board,
            Map<String, ElaboratedBlock> blocks,
            Dangling dangling) {
        this.platform = platform;
        this.board = board;
        this.blocks = blocks;
        this.dangling = dangling;
        platform.domains().forEach(this::resolveDomain);
    }

    /**
     * Domains by name, in the order of the document.
     *
     * @param board null when the library does not have it
     * @param blocks those that make clocks among them
     */
    static Map<String, Domain> of(
            Platform platform,
            Board board,
            Map<String, ElaboratedBlock> blocks,
            Dangling dangling) {
        return Ordered.copyOf(new DomainIndex(platform, board, blocks, dangling).domains);
    }

    private void resolveDomain(ClockDomain domain) {
        Board.Clock clock = board == null ? null : board.clock(domain.clock()).orElse(null);
        Board.Reset reset =
                board == null || domain.reset() == null
                        ? null
                        : board.reset(domain.reset()).orElse(null);
        long frequency =
                clock == null ? madeHz(domain.clock(), new HashSet<>()) : clock.frequencyHz();
        boolean resetMade = reset != null || isResetMade(domain.reset());
        if (board != null && clock == null && output(domain.clock()) == null) {
            dangling.missing(
                    domain.name(),
                    DanglingReference.Sort.CLOCK,
                    null,
                    "%s has no clock %s, and no block makes it"
                            .formatted(board.title(), domain.clock()));
        }
        if (board != null && domain.reset() != null && !resetMade) {
            dangling.missing(
                    domain.name(),
                    DanglingReference.Sort.RESET,
                    null,
                    "%s has no reset %s, and no block makes it"
                            .formatted(board.title(), domain.reset()));
        }
        domains.put(domain.name(), new Domain(domain, clock, reset, frequency, resetMade));
    }

    private record Output(ElaboratedBlock block, ClockOutput output) {}

    /** The clock output of that name, {@code block.output}; null when there is none. */
    private Output output(String ref) {
        int dot = ref == null ? -1 : ref.indexOf('.');
        ElaboratedBlock block = dot < 0 ? null : blocks.get(ref.substring(0, dot));
        if (block == null) {
            return null;
        }
        return block.shape().clockOutputs().stream()
                .filter(each -> each.name().equals(ref.substring(dot + 1)))
                .findFirst()
                .map(each -> new Output(block, each))
                .orElse(null);
    }

    /** Frequency of a clock that a block makes; 0 when it is made from itself. */
    private long madeHz(String ref, Set<String> passed) {
        Output made = output(ref);
        if (made == null || !passed.add(ref)) {
            return 0;
        }
        String from = made.output().from();
        String input = from == null ? null : made.block().block().domains().get(from);
        long inputHz = 0;
        if (input != null) {
            String source = platform.domain(input).map(ClockDomain::clock).orElse(null);
            Board.Clock clock = board == null ? null : board.clock(source).orElse(null);
            inputHz = clock == null ? madeHz(source, passed) : clock.frequencyHz();
        }
        return made.block().shape().outputHz(made.output(), inputHz);
    }

    private boolean isResetMade(String ref) {
        int dot = ref == null ? -1 : ref.indexOf('.');
        ElaboratedBlock block = dot < 0 ? null : blocks.get(ref.substring(0, dot));
        return block != null
                && block.type().resetOutputs().stream()
                        .anyMatch(each -> each.name().equals(ref.substring(dot + 1)));
    }
}
