package polymetron.bench.behaviour;

import java.math.BigInteger;
import java.util.Map;
import java.util.Random;

/**
 * What the module of a block has to do in each cycle, written from its description and not from its Verilog, and random inputs that
 * lead it everywhere. A register that would take hours to get somewhere, such as the upper half of a counter, is put there.
 */
public interface Behaviour {
    /** Name of the module. */
    String module();

    /** Bits of the registers that are put somewhere, by their path in the module. */
    Map<String, Integer> registers();

    /**
     * Inputs of the next cycle, without clk and rst; what is not named is 0.
     *
     * @param cycle counted from 0
     */
    Map<String, Long> inputs(Random random, int cycle);

    /** Inputs of more than 64 bits that belong to those that were given last. */
    default Map<String, BigInteger> wide() {
        return Map.of();
    }

    /** Registers that are put somewhere before the next edge; mostly none. The state of this object follows. */
    Map<String, Long> put(Random random, int cycle);

    /**
     * Outputs that follow from the state and these inputs, as they are before the edge, and registers of {@link #registers}; then the
     * edge. What is not named may be anything.
     */
    Map<String, Long> step(Map<String, Long> in);

    /** As after an edge with rst. */
    void reset();
}
