package polymetron.clock;

import java.util.Optional;
import polymetron.elaborate.Domain;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.library.ClockOutput;

/**
 * The block that makes the clock of a domain.
 *
 * @param output which of its clocks that is
 */
public record ClockMaker(ElaboratedBlock block, ClockOutput output) {
    /** Empty where the board makes the clock, or nothing does. */
    public static Optional<ClockMaker> of(ElaboratedPlatform platform, Domain domain) {
        String clock = domain.domain().clock();
        int dot = clock == null ? -1 : clock.indexOf('.');
        if (domain.clock() != null || dot < 0) {
            return Optional.empty();
        }
        return platform.block(clock.substring(0, dot)).stream()
                .flatMap(
                        block ->
                                block.shape().clockOutputs().stream()
                                        .filter(
                                                each ->
                                                        each.name()
                                                                .equals(clock.substring(dot + 1)))
                                        .map(each -> new ClockMaker(block, each)))
                .findFirst();
    }

    /** The domain that it makes the clock from; empty where it has an oscillator of its own, or no clock yet. */
    public Optional<Domain> source(ElaboratedPlatform platform) {
        return Optional.ofNullable(output.from())
                .map(input -> block.block().domains().get(input))
                .map(name -> platform.domainIndex().get(name));
    }
}
