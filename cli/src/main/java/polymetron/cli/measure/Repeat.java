package polymetron.cli.measure;

import java.util.Arrays;
import java.util.concurrent.Callable;

/**
 * Times two things in turns, so that whatever else the machine does hits both, and takes the median of each.
 */
final class Repeat {
    /** Nanoseconds of a row of calls at least, so that caches and the collector are those of steady work. */
    private static final long SHORTEST = 20_000_000;

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

    /** Nanoseconds of one call, in a row of calls: the first one after the collection finds cold caches and is not timed. */
    private static double time(Callable<?> work) throws Exception {
        // What was thrown away before must not be paid for by what is timed now.
        System.gc();
        call(work);
        int calls = 0;
        long start = System.nanoTime();
        long end = start;
        while (end - start < SHORTEST) {
            call(work);
            calls++;
            end = System.nanoTime();
        }
        return (double) (end - start) / calls;
    }

    private static void call(Callable<?> work) throws Exception {
        if (work.call() == null) {
            throw new IllegalStateException("the work has no result");
        }
    }

    private static double median(double[] values) {
        Arrays.sort(values);
        return values[values.length / 2];
    }
}
