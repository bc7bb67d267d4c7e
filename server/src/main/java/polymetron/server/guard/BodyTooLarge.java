package polymetron.server.guard;

/** The body of a request is longer than allowed. */
public final class BodyTooLarge extends RuntimeException {
    private final long limit;

    BodyTooLarge(long limit) {
        super("the body has more than %s bytes".formatted(limit));
        this.limit = limit;
    }

    public long limit() {
        return limit;
    }
}
