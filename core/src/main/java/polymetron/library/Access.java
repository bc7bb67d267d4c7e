package polymetron.library;

/** What software may do with a register or field (SystemRDL 2.0, 9.4 and IEEE 1685-2022, 6.11). */
public enum Access {
    READ_WRITE("read-write", "rw"),
    READ_ONLY("read-only", "ro"),
    WRITE_ONLY("write-only", "wo"),
    WRITE_ONE_TO_CLEAR("write-one-to-clear", "w1c");

    private final String word;
    private final String letters;

    Access(String word, String letters) {
        this.word = word;
        this.letters = letters;
    }

    public boolean readable() {
        return this != WRITE_ONLY;
    }

    public boolean writable() {
        return this != READ_ONLY;
    }

    /** Two or three letters for a table. */
    public String letters() {
        return letters;
    }

    @Override
    public String toString() {
        return word;
    }
}
