package polymetron.bench.part;

import java.util.ArrayDeque;

/**
 * A converter on a serial port, mode 1, highest bit first: when it is selected it takes one sample of each channel, and gives
 * them one after the other, the first channel first; behind them comes what it was sent meanwhile.
 */
public final class SpiConverter implements SpiPart {
    private final int bits;
    private final int[][] samples;
    private int next;
    private boolean selected;
    private boolean clock;
    private boolean level;
    private final ArrayDeque<Boolean> shift = new ArrayDeque<>();

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
        shift.clear();
        for (int bit = 0; bit < bits * samples[0].length; bit++) {
            shift.add(false);
        }
    }

    @Override
    public boolean wires(boolean isSelected, boolean isHigh, boolean toDevice) {
        if (isSelected && !selected) {
            shift.clear();
            for (int sample : samples[next]) {
                for (int bit = bits - 1; bit >= 0; bit--) {
                    shift.add((sample >> bit & 1) != 0);
                }
            }
            next = (next + 1) % samples.length;
        }
        if (isSelected && isHigh && !clock) {
            level = shift.remove();
            shift.add(false);
        } else if (isSelected && !isHigh && clock) {
            shift.removeLast();
            shift.add(toDevice);
        }
        selected = isSelected;
        clock = isHigh;
        return selected && level;
    }
}
