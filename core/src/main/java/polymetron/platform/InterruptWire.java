package polymetron.platform;

/**
 * Where an interrupt source goes.
 *
 * @param block block with the sink
 * @param sink name of the sink
 * @param input number of the sink's input
 */
public record InterruptWire(String block, String sink, int input) {}
