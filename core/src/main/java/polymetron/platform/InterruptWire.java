package polymetron.platform;

/**
 * Where an interrupt source goes.
 *
 * @param block block with the sink
 * @param sink name of the sink
 * @param input number of the sink's input
 * @param priority priority that software is to give the source, 0 never interrupts; null for software's own choice
 */
public record InterruptWire(String block, String sink, int input, Integer priority) {
    public InterruptWire(String block, String sink, int input) {
        this(block, sink, input, null);
    }

    public InterruptWire withPriority(Integer other) {
        return new InterruptWire(block, sink, input, other);
    }
}
