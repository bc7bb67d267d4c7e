package polymetron.bench.live;

/** A register of a block and what is in it now. */
public record RegisterValue(
        String block, String register, int index, long address, int width, long value) {}
