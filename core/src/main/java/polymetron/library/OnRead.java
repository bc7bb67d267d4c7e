package polymetron.library;

/** What a read of software does to a field besides (SystemRDL 2.0, 9.6: property {@code onread}). */
public enum OnRead {
    NONE("none"),
    /** The field is 0 afterwards (rclr). */
    CLEAR("clear"),
    /** The block is told, and goes on to what comes next (ruser). */
    TAKE("take");

    private final String word;

    OnRead(String word) {
        this.word = word;
    }

    @Override
    public String toString() {
        return word;
    }
}
