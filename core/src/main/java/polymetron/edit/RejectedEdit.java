package polymetron.edit;

/** An edit cannot be applied; nothing changed. */
public final class RejectedEdit extends RuntimeException {
    private final String field;

    /**
     * @param field key of the edit that is wrong
     * @param message what is wrong and what would be right
     */
    public RejectedEdit(String field, String message) {
        super(message);
        this.field = field;
    }

    public String field() {
        return field;
    }
}
