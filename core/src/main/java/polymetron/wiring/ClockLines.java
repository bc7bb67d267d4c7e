package polymetron.wiring;

import java.util.List;
import java.util.Optional;
import polymetron.clock.Neighbours;
import polymetron.edit.Edit;
import polymetron.elaborate.Domain;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.library.Board;
import polymetron.library.ClockInput;
import polymetron.library.ClockOutput;
import polymetron.library.ResetInput;
import polymetron.platform.ClockDomain;
import polymetron.platform.Names;
import polymetron.quantity.Frequency;

/** Clock domains, clocks and resets: the domain that a block is connected in, or the first that fits. */
final class ClockLines {
    private final Draft draft;

    ClockLines(Draft draft) {
        this.draft = draft;
    }

    void firstDomain() {
        Board board = draft.now().board();
        boolean needed =
                draft.now().blocks().stream().anyMatch(block -> !block.type().clocks().isEmpty());
        if (!needed
                || !draft.now().domains().isEmpty()
                || board == null
                || board.clocks().isEmpty()) {
            return;
        }
        Board.Clock clock = board.clocks().getFirst();
        Board.Reset reset = board.resets().isEmpty() ? null : board.resets().getFirst();
        draft.propose(
                "domain",
                Proposal.Kind.DOMAIN,
                "clock domain main from %s, %s"
                        .formatted(clock.name(), Frequency.format(clock.frequencyHz())),
                (board.clocks().size() == 1 ? "the board's only clock" : "the board's first clock")
                        + (reset == null
                                ? ""
                                : "; reset by %s, synchronised to it".formatted(reset.name())),
                new Edit.AddDomain(
                        new ClockDomain(
                                "main", clock.name(), reset == null ? null : reset.name())));
    }

    void clocksAndResets() {
        for (ElaboratedBlock block : draft.blocksByName()) {
            for (ClockInput clock : block.type().clocks()) {
                clock(block, clock);
            }
        }
        for (ElaboratedBlock block : draft.blocksByName()) {
            for (ResetInput reset : block.type().resets()) {
                reset(block, reset);
            }
        }
    }

    private void clock(ElaboratedBlock block, ClockInput clock) {
        if (block.block().domains().containsKey(clock.name())
                || draft.isSaid("clock:%s.%s".formatted(block.name(), clock.name()))) {
            return;
        }
        List<Domain> fitting =
                draft.now().domains().stream().filter(domain -> allows(clock, domain)).toList();
        if (fitting.isEmpty()) {
            return;
        }
        Optional<Domain> near =
                Neighbours.ofReset(block, clock.name(), fitting)
                        .or(() -> new Neighbours(draft.now()).domainOf(block, fitting));
        Domain domain = near.orElse(fitting.getFirst());
        String why =
                draft.now().domains().size() == 1
                        ? "the only clock domain"
                        : near.isPresent()
                                ? "the domain that it is connected in"
                                : "the first domain within the block's limits";
        if (clock.minimumHz() != null && clock.maximumHz() != null) {
            why +=
                    "; %s is within %s to %s"
                            .formatted(
                                    Frequency.format(domain.frequencyHz()),
                                    Frequency.format(clock.minimumHz()),
                                    Frequency.format(clock.maximumHz()));
        }
        draft.propose(
                "clock:%s.%s".formatted(block.name(), clock.name()),
                Proposal.Kind.CLOCK,
                "%s.%s ← %s".formatted(block.name(), clock.name(), domain.name()),
                why,
                new Edit.SetDomain(block.name(), clock.name(), domain.name()));
    }

    private static boolean allows(ClockInput clock, Domain domain) {
        return (clock.minimumHz() == null || domain.frequencyHz() >= clock.minimumHz())
                && (clock.maximumHz() == null || domain.frequencyHz() <= clock.maximumHz());
    }

    private void reset(ElaboratedBlock block, ResetInput reset) {
        String clockDomain = block.block().domains().get(reset.clock());
        Domain domain = clockDomain == null ? null : draft.now().domainIndex().get(clockDomain);
        if (block.block().domains().containsKey(reset.name())
                || draft.isSaid("reset:%s.%s".formatted(block.name(), reset.name()))
                || domain == null
                || !domain.hasReset()) {
            return;
        }
        draft.propose(
                "reset:%s.%s".formatted(block.name(), reset.name()),
                Proposal.Kind.RESET,
                "%s.%s ← %s".formatted(block.name(), reset.name(), domain.name()),
                "the reset of the domain that clocks it",
                new Edit.SetDomain(block.name(), reset.name(), domain.name()));
    }

    /** A domain for every clock that a block makes, so that it can be used. */
    void madeClocks(boolean ofTheirOwn) {
        for (ElaboratedBlock block : draft.blocksByName()) {
            for (ClockOutput output : block.shape().clockOutputs()) {
                if (ofTheirOwn != (output.from() == null)) {
                    continue;
                }
                String source = block.name() + "." + output.name();
                boolean used =
                        draft.now().domains().stream()
                                .anyMatch(domain -> source.equals(domain.domain().clock()));
                if (!used) {
                    madeClock(block, output, source);
                }
            }
        }
    }

    private void madeClock(ElaboratedBlock block, ClockOutput output, String source) {
        String name =
                Names.free(
                        block.name() + "_" + output.name(),
                        draft.now().domains().stream().map(Domain::name).toList());
        String before = output.from() == null ? null : block.domain(output.from());
        Domain input = before == null ? null : draft.now().domainIndex().get(before);
        String reset =
                !block.type().resetOutputs().isEmpty()
                        ? block.name() + "." + block.type().resetOutputs().getFirst().name()
                        : input == null ? firstReset() : input.domain().reset();
        draft.propose(
                "domain:" + source,
                Proposal.Kind.DOMAIN,
                "clock domain %s from %s".formatted(name, source),
                "%s makes a clock that no domain runs on yet%s"
                        .formatted(
                                block.name(),
                                reset == null
                                        ? ""
                                        : "; reset by %s, synchronised to it".formatted(reset)),
                new Edit.AddDomain(new ClockDomain(name, source, reset)));
    }

    private String firstReset() {
        return draft.now().board() == null || draft.now().board().resets().isEmpty()
                ? null
                : draft.now().board().resets().getFirst().name();
    }
}
