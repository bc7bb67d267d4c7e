package polymetron.bench.machine;

import java.util.List;
import java.util.function.LongConsumer;
import polymetron.bench.clock.ClockRatio;
import polymetron.bench.hart.Hart;

/**
 * Another hart of the platform. It runs behind the first one, a short slice after the other, so that both find what the other has
 * left in memory and in registers a slice ago at the most; its own time never runs backwards, nor does that of a device.
 */
final class Companion {
    private static final int LONGEST = 1 << 16;

    private final Hart hart;
    private final List<Wire> wires;
    private final ClockRatio ratio;
    private final String domain;
    private final String label;

    /** Cycles of its own clock since power-up. */
    private long own;

    Companion(Hart hart, List<Wire> wires, ClockRatio ratio, String domain, String label) {
        this.hart = hart;
        this.wires = wires;
        this.ratio = ratio;
        this.domain = domain;
        this.label = label;
    }

    Hart hart() {
        return hart;
    }

    List<Wire> wires() {
        return wires;
    }

    /** What a person calls it. */
    String label() {
        return label;
    }

    String domain() {
        return domain;
    }

    void reset() {
        own = 0;
        hart.reset();
    }

    /** A reset while time goes on. */
    void restart() {
        hart.restart(own);
    }

    /** Whether it waits, and nothing calls it. */
    boolean isIdle() {
        return hart.isWaiting() && !hart.isCalled();
    }

    /** It has done nothing until a cycle of the first hart. */
    void waitUntil(long cycle) {
        own = Math.max(own, ratio.own(cycle));
    }

    /** The first hart's cycle that it has come to, after some more cycles of its own. */
    long time(int more) {
        return ratio.processor(own + more);
    }

    long own(int more) {
        return own + more;
    }

    /**
     * Runs until it has come to a cycle of the first hart.
     *
     * @param settle what tells the wires of what it did, at a cycle
     */
    void runTo(long cycle, LongConsumer settle) {
        long end = ratio.own(cycle);
        while (own < end) {
            if (hart.isWaiting()) {
                if (!hart.isCalled()) {
                    own = end;
                    return;
                }
                own += hart.timing().wake();
            }
            if (hart.takeInterrupt()) {
                own += hart.timing().interrupt();
            }
            own += hart.execute((int) Math.clamp(end - own, 1L, (long) LONGEST));
            settle.accept(cycle);
        }
    }
}
