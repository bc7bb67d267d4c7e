package polymetron.json;

/**
 * A document cannot be read.
 *
 * @see #pointer()
 */
public final class DocumentException extends RuntimeException {
    private final String pointer;

    /**
     * @param message says where and what would be right
     * @param pointer JSON pointer (RFC 6901) of the place, empty for the whole
     */
    public DocumentException(String message, String pointer) {
        super(message);
        this.pointer = pointer;
    }

    public String pointer() {
        return pointer;
    }
}
