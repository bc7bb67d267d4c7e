package polymetron.finding;

import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import polymetron.clock.ClockMaker;
import polymetron.clock.Neighbours;
import polymetron.edit.Edit;
import polymetron.elaborate.Domain;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.library.Board;
import polymetron.platform.ClockDomain;

/** The fixes that put a clock or reset input into one of the platform's domains. */
final class DomainFixes {
    private DomainFixes() {}

    /** The domain that the block is connected in; all of them when it is connected in none yet. */
    static List<Fix> of(ElaboratedPlatform platform, ElaboratedBlock block, String port) {
        List<Domain> all =
                platform.domains().stream()
                        .filter(domain -> !isMadeFrom(platform, domain, block.name()))
                        .filter(domain -> !isReset(block, port) || domain.hasReset())
                        .toList();
        if (platform.domains().isEmpty()) {
            return first(platform, block, port);
        }
        List<Domain> likely =
                Neighbours.ofReset(block, port, all)
                        .or(() -> new Neighbours(platform).domainOf(block, all))
                        .map(List::of)
                        .orElse(all);
        return likely.stream()
                .map(
                        domain ->
                                new Fix(
                                        "Connect %s.%s to %s"
                                                .formatted(block.name(), port, domain.name()),
                                        new Edit.SetDomain(block.name(), port, domain.name())))
                .toList();
    }

    /** A first domain, on the board's first clock. */
    private static List<Fix> first(
            ElaboratedPlatform platform, ElaboratedBlock block, String port) {
        Board board = platform.board();
        if (board == null || board.clocks().isEmpty()) {
            return List.of();
        }
        String clock = board.clocks().getFirst().name();
        String reset = board.resets().isEmpty() ? null : board.resets().getFirst().name();
        String label =
                "Add clock domain main from %s and connect %s.%s to it"
                        .formatted(clock, block.name(), port);
        return List.of(
                new Fix(
                        label,
                        new Edit.Several(
                                label,
                                List.of(
                                        new Edit.AddDomain(new ClockDomain("main", clock, reset)),
                                        new Edit.SetDomain(block.name(), port, "main")))));
    }

    /** Into one domain, if it is not made by the block itself. */
    static Optional<Fix> into(
            ElaboratedPlatform platform, ElaboratedBlock block, String port, Domain domain) {
        return isMadeFrom(platform, domain, block.name())
                ? Optional.empty()
                : Optional.of(
                        new Fix(
                                "Connect %s.%s to %s".formatted(block.name(), port, domain.name()),
                                new Edit.SetDomain(block.name(), port, domain.name())));
    }

    private static boolean isReset(ElaboratedBlock block, String port) {
        return block.type().resets().stream().anyMatch(reset -> reset.name().equals(port));
    }

    /** Whether the clock of a domain comes from a block, through others or not: it cannot clock that block. */
    private static boolean isMadeFrom(ElaboratedPlatform platform, Domain domain, String block) {
        Set<String> passed = new HashSet<>();
        Domain at = domain;
        while (at != null && passed.add(at.name())) {
            ClockMaker maker = ClockMaker.of(platform, at).orElse(null);
            if (maker != null && maker.block().name().equals(block)) {
                return true;
            }
            at = maker == null ? null : maker.source(platform).orElse(null);
        }
        return false;
    }
}
