package polymetron.platform;

/**
 * Where a stream source goes.
 *
 * @param block block with the sink
 * @param sink name of the sink
 */
public record StreamWire(String block, String sink) {}
