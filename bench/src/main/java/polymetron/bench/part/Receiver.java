package polymetron.bench.part;

import java.nio.charset.StandardCharsets;
import java.util.function.Consumer;

/**
 * A satellite receiver: a pulse at the beginning of each of its seconds, high for 100 ms, and 200 ms into the second a line with the
 * number of the second that has begun. Its seconds are longer or shorter than those of the board's oscillator by some parts in a
 * million.
 */
public final class Receiver {
    /** Nothing to come. */
    private static final long NEVER = Long.MAX_VALUE;

    /** The number of the first second: seconds since 1970. */
    private static final long FIRST_SECOND = 1_795_780_800L;

    private static final double FIRST_AT = 0.5;
    private static final double HIGH = 0.1;
    private static final double MESSAGE = 0.2;

    private final double clockHz;
    private final double second;
    private final Consumer<Boolean> pulse;
    private final Consumer<byte[]> line;
    private boolean on;
    private long step;

    /**
     * @param clockHz clock that time is counted in
     * @param partsPerMillion by how much its seconds are longer than the board's
     * @param line what takes the messages
     */
    public Receiver(
            long clockHz, double partsPerMillion, Consumer<Boolean> pulse, Consumer<byte[]> line) {
        this.clockHz = clockHz;
        this.second = 1 + partsPerMillion / 1e6;
        this.pulse = pulse;
        this.line = line;
    }

    /** Lets it see its satellites from a time on, or not. */
    public void set(boolean sees, long cycle) {
        on = sees;
        while (at(step) <= cycle) {
            step++;
        }
        if (!sees) {
            pulse.accept(false);
        }
    }

    public boolean isOn() {
        return on;
    }

    /** Back to power-up. */
    public void reset() {
        step = 0;
    }

    /** The cycle of its next step: pulse high, pulse low, message. */
    private long at(long number) {
        double within = number % 3 == 0 ? 0 : number % 3 == 1 ? HIGH : MESSAGE;
        return Math.round((FIRST_AT + number / 3 * second + within) * clockHz);
    }

    /** The cycle at which it does something next. */
    public long next() {
        return on ? at(step) : NEVER;
    }

    /** Does what is due at a cycle. */
    public void advance(long cycle) {
        while (on && at(step) <= cycle) {
            if (step % 3 == 2) {
                String text = "SECOND %s\r\n".formatted(FIRST_SECOND + step / 3);
                line.accept(text.getBytes(StandardCharsets.US_ASCII));
            } else {
                pulse.accept(step % 3 == 0);
            }
            step++;
        }
    }
}
