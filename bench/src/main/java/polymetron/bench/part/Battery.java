package polymetron.bench.part;

import java.util.List;
import java.util.function.IntConsumer;
import java.util.function.IntSupplier;

/** A battery that nothing charges: its voltage falls steadily, far faster than a real one's, down to half of the full scale. */
public final class Battery implements SurroundingModel {
    /** Milliseconds for a 4096th of the full scale: the whole of it in about fourteen minutes. */
    private static final int MILLISECONDS = 200;

    private static final int EMPTY = 2048;
    private static final double PERCENT = 100.0;

    private final IntSupplier steps;
    private final IntConsumer set;
    private int milliseconds;

    /**
     * @param steps the voltage now, in 4096ths of the full scale
     * @param set changes it
     */
    public Battery(IntSupplier steps, IntConsumer set) {
        this.steps = steps;
        this.set = set;
    }

    @Override
    public void reset() {
        milliseconds = 0;
    }

    @Override
    public void step() {
        milliseconds++;
        if (milliseconds == MILLISECONDS) {
            milliseconds = 0;
            int now = steps.getAsInt();
            if (now > EMPTY) {
                set.accept(now - 1);
            }
        }
    }

    @Override
    public List<Reading> readings() {
        double left = Math.max(0, steps.getAsInt() - EMPTY) * PERCENT / EMPTY;
        return List.of(new Reading("left", left, PERCENT, "%"));
    }
}
