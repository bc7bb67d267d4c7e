package polymetron.bench.behaviour;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Random;

/** Numbers of 32 bits, and random ones that matter. */
final class Registers {
    static final long LOW = 0xFFFF_FFFFL;

    private Registers() {}

    static boolean isSet(Map<String, Long> in, String name) {
        return in.get(name) != 0;
    }

    static long bit(boolean set) {
        return set ? 1 : 0;
    }

    static long word(long value) {
        return value & LOW;
    }

    /** True once in so many times. */
    static boolean once(Random random, int in) {
        return random.nextInt(in) == 0;
    }

    /** A number of up to so many bits, small ones as often as large ones, and now and then just below a power of two. */
    static long any(Random random, int bits) {
        long value = random.nextLong() >>> Long.SIZE - 1 - random.nextInt(bits);
        return (once(random, 3) ? Long.highestOneBit(value) * 2 - 1 : value) & (1L << bits) - 1;
    }

    /** Pairs of names and values, in this order. */
    static Map<String, Long> named(Object... pairs) {
        Map<String, Long> named = new LinkedHashMap<>();
        for (int at = 0; at < pairs.length; at += 2) {
            named.put((String) pairs[at], ((Number) pairs[at + 1]).longValue());
        }
        return named;
    }
}
