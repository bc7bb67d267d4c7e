package polymetron.software;

import java.util.Optional;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.library.Capability;

/**
 * One hart of a processor.
 *
 * @param index its number within its block, from 0
 * @param id what software reads from {@code mhartid}
 * @param hertz clock in hertz; 0 when it has none
 */
public record Hart(ElaboratedBlock block, Capability.Hart role, int index, long id, long hertz) {
    /** The parameter that holds the number of the block's first hart; empty where the definition leaves no choice. */
    public Optional<String> numberParameter() {
        return role.id()
                .parameter()
                .filter(
                        name -> {
                            var type = block.type().parameter(name).orElseThrow();
                            return type.maximum() == null
                                    || block.shape().number(type.maximum(), 0) != 0;
                        });
    }

    /** Address of the first instruction. */
    public long resetVector() {
        return block.shape().number(role.reset(), 0);
    }

    /** Where {@code mtvec} points after reset. */
    public long trapVector() {
        return block.shape().number(role.trap(), 0);
    }

    /** What a person calls it: the block, and which of its harts where it has several. */
    public String label() {
        return Harts.count(block, role) > 1 ? block.name() + " hart " + index : block.name();
    }
}
