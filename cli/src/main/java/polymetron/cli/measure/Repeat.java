package polymetron.cli.measure;

import java.util.Arrays;
import java.util.concurrent.Callable;

/**
 * Times two things in turns, so that whatever else the machine does hits both, and takes the median of each.
 */
final class Repeat {
    private Repeat() {}

    /** Median times in nanoseconds. */
    record Pair(double one, double other) {
        double ratio() {
            return one / other;
        }
    }

    static Pair inTurns(int warmUps, int times, Callable<?> one, Callable<?> other)
            throws Exception {
        double[] ones = new double[times];
        double[] others = new double[times];
        for (int round = -warmUps; round < times; round++) {
            if (round >= 0) {
                ones[round] = time(one);
                others[round] = time(other);
            } else {
                one.call();
                other.call();
            }
        }
        return new Pair(median(ones), median(others));
    }

    private static double time(Callable<?> work) throws Exception {
        // What was thrown away before must not be paid for by what is timed now.
        System.gc();
        long start = System.nanoTime();
        Object result = work.call();
        long end = System.nanoTime();
        if (result == null) {
            throw new IllegalStateException("the work has no result");
        }
        return end - start;
    }

    private static double median(double[] values) {
        Arrays.sort(values);
        return values[values.length / 2];
    }
}
