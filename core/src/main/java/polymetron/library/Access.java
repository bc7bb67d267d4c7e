package polymetron.library;

import java.util.List;

/** What software may do with a register or field (SystemRDL 2.0, 9.4 and IEEE 1685-2022, 6.11). */
public enum Access {
    READ_WRITE("read-write", "rw"),
    READ_ONLY("read-only", "ro"),
    WRITE_ONLY("write-only", "wo"),
    WRITE_ONE_TO_CLEAR("write-one-to-clear", "w1c");

    private final String word;
    private final String letters;

    static Access of(SoftwareAccess software, OnWrite onWrite) {
        return switch (software) {
            case READ_ONLY -> READ_ONLY;
            case WRITE_ONLY -> WRITE_ONLY;
            case READ_WRITE -> onWrite == OnWrite.CLEAR_ONES ? WRITE_ONE_TO_CLEAR : READ_WRITE;
        };
    }

    /** What a register is to software whose fields are of these: of several that of those that can be written. */
    static Access of(List<FieldType> fields) {
        Access whole = null;
        for (FieldType field : fields) {
            Access own = field.access();
            boolean isFirst = whole == null || whole == READ_ONLY && own == WRITE_ONE_TO_CLEAR;
            boolean isSame = own == whole || own == READ_ONLY && whole == WRITE_ONE_TO_CLEAR;
            whole = isFirst ? own : isSame ? whole : READ_WRITE;
        }
        return whole == null ? READ_WRITE : whole;
    }

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
