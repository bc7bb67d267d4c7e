package polymetron.server.budget;

/** The server has as much to do as it can do at a time; later the same request will be carried out. */
public final class Busy extends RuntimeException {
    public Busy(String message) {
        super(message);
    }
}
