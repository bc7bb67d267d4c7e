package polymetron.bench.part;

/** A part of the board on a two-wire bus. */
public interface I2cPart {
    /** A start, or another one. */
    void start();

    /** A stop. */
    void stop();

    /**
     * A byte from the controller.
     *
     * @return whether the part acknowledges it
     */
    boolean write(int value);

    /**
     * A byte to the controller.
     *
     * @param acknowledged whether the controller wants more after it
     * @return the byte; 0xFF where the part leaves the line alone
     */
    int read(boolean acknowledged);

    /** Back to power-up. */
    void reset();
}
