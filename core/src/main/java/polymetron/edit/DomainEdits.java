package polymetron.edit;

import static polymetron.edit.Known.require;

import java.util.ArrayList;
import java.util.List;
import polymetron.library.BlockType;
import polymetron.library.Board;
import polymetron.library.ClockInput;
import polymetron.library.ClockOutput;
import polymetron.library.ResetInput;
import polymetron.library.ResetOutput;
import polymetron.platform.Block;
import polymetron.platform.Bus;
import polymetron.platform.ClockDomain;
import polymetron.platform.Names;
import polymetron.platform.Platform;

/** Clock domains, and which inputs are in them. */
final class DomainEdits {
    private static final long FASTEST_HZ = 10_000_000_000L;

    private DomainEdits() {}

    static Platform set(Known known, Edit.SetDomain edit) {
        BlockType type = known.type(edit.block());
        boolean isThere =
                type.clocks().stream().anyMatch(clock -> clock.name().equals(edit.port()))
                        || type.resets().stream()
                                .anyMatch(reset -> reset.name().equals(edit.port()));
        require(
                isThere,
                "port",
                "%s has no clock or reset input %s; it has %s"
                        .formatted(
                                edit.block(),
                                edit.port(),
                                Known.names(type.clocks(), ClockInput::name)
                                        + " "
                                        + Known.names(type.resets(), ResetInput::name)));
        require(
                edit.domain() == null || known.platform().domain(edit.domain()).isPresent(),
                "domain",
                "there is no clock domain %s".formatted(edit.domain()));
        return known.change(edit.block(), block -> block.withDomain(edit.port(), edit.domain()));
    }

    static Platform add(Known known, Edit.AddDomain edit) {
        ClockDomain domain = edit.domain();
        require(
                domain != null && Names.isName(domain.name()),
                "name",
                "a clock domain needs a name: " + Names.RULE);
        require(
                known.platform().domain(domain.name()).isEmpty(),
                "name",
                "there is already a clock domain named %s".formatted(domain.name()));
        require(
                domain.wantedHz() == null
                        || domain.wantedHz() >= 1 && domain.wantedHz() <= FASTEST_HZ,
                "wantedHz",
                "a clock of 1 Hz to 10 GHz can be wished for");
        known.library()
                .board(known.platform().board())
                .ifPresent(
                        board -> {
                            require(
                                    board.clock(String.valueOf(domain.clock())).isPresent()
                                            || isMade(
                                                    known,
                                                    domain.clock(),
                                                    BlockType::clockOutputs,
                                                    ClockOutput::name),
                                    "clock",
                                    "%s has no clock %s, and no block makes it; it has %s"
                                            .formatted(
                                                    board.title(),
                                                    domain.clock(),
                                                    Known.names(
                                                            board.clocks(), Board.Clock::name)));
                            require(
                                    domain.reset() == null
                                            || board.reset(domain.reset()).isPresent()
                                            || isMade(
                                                    known,
                                                    domain.reset(),
                                                    BlockType::resetOutputs,
                                                    ResetOutput::name),
                                    "reset",
                                    "%s has no reset %s, and no block makes it; it has %s"
                                            .formatted(
                                                    board.title(),
                                                    domain.reset(),
                                                    Known.names(
                                                            board.resets(), Board.Reset::name)));
                        });
        List<ClockDomain> domains = new ArrayList<>(known.platform().domains());
        domains.add(domain);
        return known.platform().withDomains(domains);
    }

    /** Whether {@code block.output} is an output of a block of the platform. */
    private static <T> boolean isMade(
            Known known,
            String ref,
            java.util.function.Function<BlockType, List<T>> outputs,
            java.util.function.Function<T, String> nameOf) {
        int dot = ref == null ? -1 : ref.indexOf('.');
        return dot > 0
                && known
                        .platform()
                        .block(ref.substring(0, dot))
                        .flatMap(block -> known.library().type(block.type()))
                        .stream()
                        .flatMap(type -> outputs.apply(type).stream())
                        .anyMatch(output -> nameOf.apply(output).equals(ref.substring(dot + 1)));
    }

    static Platform remove(Known known, Edit.RemoveDomain edit) {
        require(
                known.platform().domain(edit.domain()).isPresent(),
                "domain",
                "there is no clock domain %s".formatted(edit.domain()));
        for (Block block : known.platform().blocks()) {
            require(
                    !block.domains().containsValue(edit.domain()),
                    "domain",
                    "%s is still in clock domain %s".formatted(block.name(), edit.domain()));
        }
        for (Bus bus : known.platform().buses()) {
            require(
                    !edit.domain().equals(bus.domain()),
                    "domain",
                    "bus %s is still in clock domain %s".formatted(bus.name(), edit.domain()));
        }
        return known.platform()
                .withDomains(
                        known.platform().domains().stream()
                                .filter(domain -> !domain.name().equals(edit.domain()))
                                .toList());
    }
}
