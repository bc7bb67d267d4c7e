package polymetron.expression;

/** An expression cannot be read or has no value; the message says where and why. */
public final class ExpressionException extends RuntimeException {
    public ExpressionException(String message) {
        super(message);
    }
}
