package polymetron.bench.part;

/**
 * A converter on a serial port, mode 1, highest bit first: when it is selected it takes one sample of each channel, and gives
 * them one after the other, the first channel first.
 */
public final class SpiConverter implements SpiPart {
    private final int bits;
    private final int[][] samples;
    private int next;
    private boolean selected;
    private boolean clock;
    private boolean level;
    private int[] taken;
    private int given;

    /**
     * @param samples by time and channel, in the lowest bits; over and over
     */
    public SpiConverter(int bits, int[][] samples) {
        this.bits = bits;
        this.samples = samples;
        reset();
    }

    @Override
    public void reset() {
        next = 0;
        selected = false;
        clock = false;
        level = false;
        taken = samples[0];
        given = 0;
    }

    @Override
    public boolean wires(boolean isSelected, boolean isHigh, boolean toDevice) {
        if (isSelected && !selected) {
            taken = samples[next];
            next = (next + 1) % samples.length;
            given = 0;
        }
        if (isSelected && isHigh && !clock) {
            int channel = given / bits;
            level = channel < taken.length && (taken[channel] >> bits - 1 - given % bits & 1) != 0;
            given = Math.min(given + 1, taken.length * bits);
        }
        selected = isSelected;
        clock = isHigh;
        return selected && level;
    }
}
