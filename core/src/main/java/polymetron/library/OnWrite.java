package polymetron.library;

/** What a write of software does to a field (SystemRDL 2.0, 9.6: property {@code onwrite}, {@code singlepulse}). */
public enum OnWrite {
    /** The field has the bits that are written. */
    STORE("store"),
    /** Ones that are written clear (woclr). */
    CLEAR_ONES("clear-ones"),
    /** Ones that are written set (woset). */
    SET_ONES("set-ones"),
    /** Ones that are written last for one cycle; the field reads as 0 (singlepulse). */
    PULSE("pulse"),
    /** The bits go to the block, which does something with them; the field keeps none (wuser). */
    HAND_OVER("hand-over");

    private final String word;

    OnWrite(String word) {
        this.word = word;
    }

    /** Whether the field keeps what is written. */
    public boolean stores() {
        return this == STORE;
    }

    @Override
    public String toString() {
        return word;
    }
}
