package polymetron.library;

import java.util.List;
import polymetron.expression.Expression;

/**
 * A bus interface of a block type.
 *
 * @param title what a person calls it; null for the block itself
 * @param protocols protocols that it speaks, most wanted first
 * @param size size of its range in bytes, for a target
 * @param usage {@code memory} for plain storage, {@code registers} for anything with side effects (targets)
 * @param executable whether instructions can be fetched through it (initiator) or from it (target)
 * @param writable whether stores change a target of usage memory
 * @param when whether the interface is there; null for always
 * @param clock clock input that it belongs to; null for the block's first
 */
public record BusInterfaceType(
        String name,
        String title,
        Role role,
        List<String> protocols,
        Expression dataWidth,
        Expression size,
        Usage usage,
        boolean executable,
        Expression writable,
        Expression when,
        String clock) {

    /** What lies behind a target. */
    public enum Usage {
        MEMORY("memory"),
        REGISTERS("registers");

        private final String word;

        Usage(String word) {
            this.word = word;
        }

        @Override
        public String toString() {
            return word;
        }
    }

    public BusInterfaceType {
        protocols = Lists.orEmpty(protocols);
    }
}
