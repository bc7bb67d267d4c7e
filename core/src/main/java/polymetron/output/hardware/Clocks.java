package polymetron.output.hardware;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import polymetron.elaborate.Domain;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.library.Capability;
import polymetron.library.ClockOutput;

/** Where the clocks of domains come from, as hardware needs to know it. */
final class Clocks {
    private static final double PICOS = 1e12;

    /** For an output that is not there. */
    private static final long SOME_PICOS = 5_000;

    private Clocks() {}

    /** The block that makes what a domain names as {@code block.output}; empty for what the board makes. */
    static Optional<ElaboratedBlock> maker(ElaboratedPlatform platform, String reference) {
        int dot = reference == null ? -1 : reference.indexOf('.');
        return dot < 0 ? Optional.empty() : platform.block(reference.substring(0, dot));
    }

    /** The PLLs that have to lock before the clock of a domain runs as it should. */
    static List<ElaboratedBlock> plls(ElaboratedPlatform platform, Domain domain) {
        List<ElaboratedBlock> found = new ArrayList<>();
        Set<String> passed = new HashSet<>();
        Domain at = domain;
        while (at != null && at.clock() == null && passed.add(at.name())) {
            ElaboratedBlock maker = maker(platform, at.domain().clock()).orElse(null);
            if (maker == null) {
                break;
            }
            if (!maker.type().provides(Capability.Pll.class).isEmpty()) {
                found.add(maker);
            }
            String from = maker.domain(null);
            at = from == null ? null : platform.domainIndex().get(from);
        }
        return found;
    }

    /** Half of the period of a clock output in picoseconds, rounded. */
    static long halfPeriodPicos(
            ElaboratedPlatform platform, ElaboratedBlock block, ClockOutput output) {
        if (!block.shape().clockOutputs().contains(output)) {
            return SOME_PICOS;
        }
        long inputHz = output.from() == null ? 0 : platform.frequencyHz(block, output.from());
        long hertz = block.shape().outputHz(output, inputHz);
        return hertz <= 0 ? SOME_PICOS : Math.max(1, Math.round(PICOS / hertz / 2));
    }
}
