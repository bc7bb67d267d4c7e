package polymetron.library;

import java.util.List;
import polymetron.expression.Expression;

/**
 * An interrupt source of a block, or a sink that takes one or more of them.
 *
 * @param line sort of line: {@code device} from a peripheral to a controller, {@code external}, {@code timer} and
 *     {@code software} from a controller to a hart (RISC-V Privileged ISA, 3.1.9)
 * @param trigger how a source signals; a sink leaves it out
 * @param takes how a source may signal to a sink; empty for a level or a rising edge at a controller, whose gateways take
 *     both (RISC-V PLIC 1.0.0, interrupt gateways), and a high level at a hart (RISC-V Privileged ISA, 3.1.9)
 * @param first number of the first input of a sink
 * @param count number of inputs of a sink
 * @param when whether the port is there; null for always
 */
public record InterruptPort(
        String name,
        End end,
        String line,
        Trigger trigger,
        List<Trigger> takes,
        Expression first,
        Expression count,
        Expression when) {
    public InterruptPort {
        takes = Lists.orEmpty(takes);
    }

    /** How a source signals where it does not say: a high level. */
    public Trigger signal() {
        return trigger == null ? Trigger.HIGH : trigger;
    }

    /** Whether a sink takes what signals so. */
    public boolean accepts(Trigger signal) {
        if (!takes.isEmpty()) {
            return takes.contains(signal);
        }
        return signal == Trigger.HIGH || signal == Trigger.EDGE && line.equals("device");
    }

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
