package polymetron.library;

import polymetron.expression.Expression;

/**
 * An interrupt source of a block, or a sink that takes one or more of them.
 *
 * @param line sort of line: {@code device} from a peripheral to a controller, {@code external}, {@code timer} and
 *     {@code software} from a controller to a hart (RISC-V Privileged ISA, 3.1.9)
 * @param trigger how a source signals; a sink leaves it out
 * @param first number of the first input of a sink
 * @param count number of inputs of a sink
 * @param when whether the port is there; null for always
 */
public record InterruptPort(
        String name,
        End end,
        String line,
        Trigger trigger,
        Expression first,
        Expression count,
        Expression when) {

    /** Which end of an interrupt line a port is. */
    public enum End {
        SOURCE("source"),
        SINK("sink");

        private final String word;

        End(String word) {
            this.word = word;
        }

        @Override
        public String toString() {
            return word;
        }
    }
}
