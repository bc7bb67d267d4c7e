package polymetron.bench.hart;

/** A program touches more of a memory than the simulation can hold. */
public final class MemoryExhausted extends RuntimeException {
    MemoryExhausted(String message) {
        super(message);
    }

    static MemoryExhausted ofOne(long bytes) {
        return new MemoryExhausted(
                "the program uses more than the %s MiB of one memory that the bench can hold"
                        .formatted(bytes >> 20));
    }
}
