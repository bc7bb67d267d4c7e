package polymetron.bench.machine;

/** A platform or program cannot be put on the bench; the message says why. */
public final class BenchException extends RuntimeException {
    public BenchException(String message) {
        super(message);
    }
}
