package polymetron.library;

import java.util.List;
import polymetron.bus.Protocol;
import polymetron.expression.Expression;

/**
 * A bus interface of a block type.
 *
 * @param title what a person calls it; null for the block itself
 * @param protocols protocols that it speaks, most wanted first
 * @param addressWidth address bits of an initiator; null for those of its bus
 * @param size size of its range in bytes, for a target
 * @param usage {@code memory} for plain storage, {@code registers} for anything with side effects (targets)
 * @param executable whether instructions can be fetched through it (initiator) or from it (target)
 * @param memoryOnly whether an initiator reaches memory only, because it moves data and has no use for registers
 * @param burst longest burst of an initiator, in transfers; null for single transfers
 * @param waits cycles that a target takes before it answers, beyond what the protocol takes; null for 1 for memory, as its
 *     output is registered, and 0 for registers
 * @param nextWaits the same for each further transfer of a burst that comes over AXI4; null for as many
 * @param base address at which a target always is; null when it can be anywhere
 * @param seenBy initiator of the same block that sees a target without any bus between; null for a target on a bus
 * @param software how software finds what is behind a target; null when it is the block's own way
 * @param window addresses that an initiator passes on to its bus; null for all
 * @param writable whether stores change a target of usage memory
 * @param when whether the interface is there; null for always
 * @param clock clock input that it belongs to; null for the block's first
 */
public record BusInterfaceType(
        String name,
        String title,
        Role role,
        List<Protocol> protocols,
        Expression dataWidth,
        Expression addressWidth,
        Expression size,
        Usage usage,
        boolean executable,
        Boolean memoryOnly,
        Expression burst,
        Expression waits,
        Expression nextWaits,
        Expression base,
        String seenBy,
        Window window,
        SoftwareBinding software,
        Expression writable,
        Expression when,
        String clock) {

    /** Addresses that an initiator passes on. */
    public record Window(Expression base, Expression size) {}

    /** Whether it is inside its block and never on a bus. */
    public boolean isInside() {
        return seenBy != null;
    }

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
