package polymetron.bench.part;

/** A part of the board on a clocked serial port. */
public interface SpiPart {
    /**
     * The wires have these levels now.
     *
     * @param selected whether its select line is low
     * @return the level that it puts on the wire to the controller; low where it leaves it alone
     */
    boolean wires(boolean selected, boolean clock, boolean toDevice);

    /** Back to power-up. */
    void reset();
}
