package polymetron.edit;

import static polymetron.edit.Known.require;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
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
        return known.change(edit.block(), block -> moved(block, type, edit));
    }

    /** The input in its new domain, and with a clock the resets that were in its old one. */
    private static Block moved(Block block, BlockType type, Edit.SetDomain edit) {
        String old = block.domains().get(edit.port());
        Block result = block.withDomain(edit.port(), edit.domain());
        for (ResetInput reset : type.resets()) {
            boolean goesAlong =
                    edit.domain() != null
                            && edit.port().equals(reset.clock())
                            && old != null
                            && old.equals(block.domains().get(reset.name()));
            result = goesAlong ? result.withDomain(reset.name(), edit.domain()) : result;
        }
        return result;
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
        possible(known, domain, null);
        List<ClockDomain> domains = new ArrayList<>(known.platform().domains());
        domains.add(domain);
        return known.platform().withDomains(domains);
    }

    /**
     * What a domain is made of has to be there; what it had before may stay.
     *
     * @param old the domain before the change; null for a new one
     */
    private static void possible(Known known, ClockDomain domain, ClockDomain old) {
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
                                    old != null && Objects.equals(domain.clock(), old.clock())
                                            || board.clock(String.valueOf(domain.clock()))
                                                    .isPresent()
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
                                            || old != null && domain.reset().equals(old.reset())
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
    }

    static Platform change(Known known, Edit.ChangeDomain edit) {
        ClockDomain domain = edit.domain();
        require(
                domain != null && known.platform().domain(domain.name()).isPresent(),
                "domain",
                "there is no clock domain %s".formatted(domain == null ? "" : domain.name()));
        ClockDomain old = known.platform().domain(domain.name()).orElseThrow();
        possible(known, domain, old);
        return known.platform()
                .withDomains(
                        known.platform().domains().stream()
                                .map(each -> each.name().equals(domain.name()) ? domain : each)
                                .toList());
    }

    static Platform rename(Known known, Edit.RenameDomain edit) {
        exists(known, edit.domain());
        require(Names.isName(edit.name()), "name", Names.refusal(edit.name()));
        require(
                edit.name().equals(edit.domain()) || known.platform().domain(edit.name()).isEmpty(),
                "name",
                "there is already a clock domain named %s".formatted(edit.name()));
        Platform renamed =
                known.platform()
                        .withDomains(
                                known.platform().domains().stream()
                                        .map(
                                                each ->
                                                        each.name().equals(edit.domain())
                                                                ? each.withName(edit.name())
                                                                : each)
                                        .toList());
        return follow(renamed, edit.domain(), edit.name());
    }

    private static void exists(Known known, String domain) {
        require(
                known.platform().domain(domain).isPresent(),
                "domain",
                "there is no clock domain %s".formatted(domain));
    }

    /** Everything that is in one domain is in another. */
    private static Platform follow(Platform platform, String from, String to) {
        return platform.withBlocks(
                        platform.blocks().stream().map(block -> follow(block, from, to)).toList())
                .withBuses(
                        platform.buses().stream()
                                .map(bus -> from.equals(bus.domain()) ? bus.withDomain(to) : bus)
                                .toList());
    }

    private static Block follow(Block block, String from, String to) {
        Block result = block;
        for (var input : block.domains().entrySet()) {
            if (input.getValue().equals(from)) {
                result = result.withDomain(input.getKey(), to);
            }
        }
        return result;
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
        exists(known, edit.domain());
        if (edit.into() != null) {
            exists(known, edit.into());
            require(
                    !edit.into().equals(edit.domain()),
                    "into",
                    "%s is the domain that is removed; name another".formatted(edit.into()));
            Platform moved = follow(known.platform(), edit.domain(), edit.into());
            return remove(known.with(moved), new Edit.RemoveDomain(edit.domain(), null));
        }
        for (Block block : known.platform().blocks()) {
            require(
                    !block.domains().containsValue(edit.domain()),
                    "into",
                    "%s is still in clock domain %s; say which domain takes it"
                            .formatted(block.name(), edit.domain()));
        }
        for (Bus bus : known.platform().buses()) {
            require(
                    !edit.domain().equals(bus.domain()),
                    "into",
                    "bus %s is still in clock domain %s; say which domain takes it"
                            .formatted(bus.name(), edit.domain()));
        }
        return known.platform()
                .withDomains(
                        known.platform().domains().stream()
                                .filter(domain -> !domain.name().equals(edit.domain()))
                                .toList());
    }
}
