package polymetron.library;

/**
 * What the block itself does with a field (SystemRDL 2.0, 9.5: properties {@code hw}, {@code we}, {@code hwset}, {@code
 * counter}). In one cycle with a write or read of software the event wins: none is lost.
 */
public enum HardwareAccess {
    /** It only uses the value (hw = r). */
    NONE("none"),
    /** It gives the value at any time; nothing is stored (hw = w). */
    VALUE("value"),
    /** It stores a value when it has one (hw = rw, we). */
    LOAD("load"),
    /** It sets bits (hwset). */
    SET("set"),
    /** It counts up, and goes on from 0 after the largest (counter). */
    COUNT("count");

    private final String word;

    HardwareAccess(String word) {
        this.word = word;
    }

    @Override
    public String toString() {
        return word;
    }
}
