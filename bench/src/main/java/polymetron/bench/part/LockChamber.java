package polymetron.bench.part;

import java.util.ArrayList;
import java.util.List;

/**
 * A lock chamber between an upper and a lower water: two gates above, two below. A drive moves its gate by the width of its
 * pulses, half the period for standing; the end switches are pressed at both ends. Water goes through open gates as fast as
 * the levels differ, and through sluices that the lock keeper opens into the chamber while all gates are shut. Speeds and levels are
 * made up.
 */
public final class LockChamber implements SurroundingModel {
    private static final int GATES = 4;

    /** Gates that lead to the upper water are those before this one. */
    private static final int FIRST_LOWER = 2;

    /** A gate that is fully open, in millionths. */
    private static final int OPEN = 1_000_000;

    /** Millionths in a millisecond at 90 % of the period: eight seconds from end to end. */
    private static final double FASTEST = 125;

    private static final double STANDING = 0.5;
    private static final double FULL_SPEED = 0.4;

    /** Shorter or longer pulses are none: the line is at rest. */
    private static final double SHORTEST = 0.02;

    /** Levels in micrometres. */
    private static final long UPPER = 4_000_000;

    private static final long LOWER = 1_000_000;
    private static final long GAUGE = 5_000_000;

    /** Micrometres in a millisecond through the sluices. */
    private static final long SLUICES = 200;

    /** Milliseconds in which two open gates let through 63 % of a difference. */
    private static final long TIME_CONSTANT = 4000;

    private static final long STEPS = 4095;
    private static final double METRE = 1e6;
    private static final double PERCENT = 1e4;

    /** What the board has at the chamber. */
    public interface Wires {
        /** Part of the period for which the line of a gate's drive is high. */
        double drive(int gate);

        /** Two bits for each gate: fully open, fully shut. */
        void ends(long pressed);

        /** 4096ths of a gauge's full scale. */
        void gauge(int channel, int steps);

        /** From shut, 0, to open, 1. */
        void encoder(double[] opening);
    }

    private final Wires wires;
    private final int[] opening = new int[GATES];
    private long chamber;

    public LockChamber(Wires wires) {
        this.wires = wires;
        reset();
    }

    @Override
    public void reset() {
        java.util.Arrays.fill(opening, 0);
        chamber = LOWER;
    }

    @Override
    public void step() {
        long pressed = 0;
        boolean allShut = true;
        for (int gate = 0; gate < GATES; gate++) {
            opening[gate] = Math.clamp((long) opening[gate] + speed(wires.drive(gate)), 0, OPEN);
            boolean shut = opening[gate] == 0;
            allShut &= shut;
            pressed |= opening[gate] == OPEN ? 1L << 2 * gate : 0;
            pressed |= shut ? 1L << 2 * gate + 1 : 0;
        }
        flow(UPPER, opening[0] + opening[1]);
        flow(LOWER, opening[FIRST_LOWER] + opening[FIRST_LOWER + 1]);
        if (allShut) {
            chamber = Math.min(UPPER, chamber + SLUICES);
        }
        wires.ends(pressed);
        wires.gauge(0, (int) (UPPER * STEPS / GAUGE));
        wires.gauge(1, (int) (chamber * STEPS / GAUGE));
        wires.encoder(new double[] {part(0), part(1)});
    }

    private static int speed(double drive) {
        boolean pulses = drive > SHORTEST && drive < 1 - SHORTEST;
        return pulses ? (int) Math.round((drive - STANDING) / FULL_SPEED * FASTEST) : 0;
    }

    /** A millisecond's water through a pair of gates that are open by so much together. */
    private void flow(long level, long open) {
        chamber += (level - chamber) * open / (2L * OPEN) / TIME_CONSTANT;
    }

    private double part(int gate) {
        return (double) opening[gate] / OPEN;
    }

    @Override
    public List<Reading> readings() {
        List<Reading> readings = new ArrayList<>();
        readings.add(new Reading("upper water", UPPER / METRE, GAUGE / METRE, "m"));
        readings.add(new Reading("chamber", chamber / METRE, GAUGE / METRE, "m"));
        readings.add(new Reading("lower water", LOWER / METRE, GAUGE / METRE, "m"));
        for (int gate = 0; gate < GATES; gate++) {
            readings.add(
                    new Reading("gate %s open".formatted(gate), opening[gate] / PERCENT, 100, "%"));
        }
        return readings;
    }
}
