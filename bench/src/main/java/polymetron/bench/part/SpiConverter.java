package polymetron.bench.part;

import java.util.ArrayDeque;

/**
 * A converter on a serial port, mode 1, highest bit first: when it is selected it takes one sample of each channel, and gives
 * them one after the other, the first channel first; behind them comes what it was sent meanwhile.
 */
public final class SpiConverter implements SpiPart {
    private final int bits;
    private final ConverterSignal signal;
    private boolean selected;
    private boolean clock;
    private boolean level;
    private final ArrayDeque<Boolean> shift = new ArrayDeque<>();

    public SpiConverter(int bits, ConverterSignal signal) {
        this.bits = bits;
        this.signal = signal;
        reset();
    }

    /** What it measures. */
    public ConverterSignal signal() {
        return signal;
    }

    @Override
    public void reset() {
        signal.reset();
        selected = false;
        clock = false;
        level = false;
        shift.clear();
        for (int bit = 0; bit < bits * signal.channels(); bit++) {
            shift.add(false);
        }
    }

    @Override
    public boolean wires(boolean isSelected, boolean isHigh, boolean toDevice) {
        if (isSelected && !selected) {
            shift.clear();
            for (int sample : signal.next()) {
                for (int bit = bits - 1; bit >= 0; bit--) {
                    shift.add((sample >> bit & 1) != 0);
                }
            }
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
