package polymetron.server.problem;

/** What a request names does not exist. */
public final class NotThere extends RuntimeException {
    public NotThere(String message) {
        super(message);
    }
}
