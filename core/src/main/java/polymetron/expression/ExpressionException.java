package polymetron.expression;

/** An expression cannot be read or has no value; the message says where and why. */
public final class ExpressionException extends RuntimeException {
    private final String reason;

    public ExpressionException(String message) {
        super(message);
        this.reason = message;
    }

    /**
     * @param at the character of the source that is wrong, from 0
     */
    ExpressionException(String source, int at, String reason) {
        super("in '%s', character %s: %s".formatted(source, at + 1, reason));
        this.reason = reason;
    }

    /** Why, without the place: for where the text itself is shown beside it. */
    public String reason() {
        return reason;
    }
}
