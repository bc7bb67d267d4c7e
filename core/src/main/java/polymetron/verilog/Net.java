package polymetron.verilog;

/**
 * A named net or variable of a module.
 *
 * @param bits how wide it is; a single bit is declared without a range
 */
public record Net(String name, int bits) {
    /** The whole net as an expression. */
    public Expression read() {
        return Expression.of(this);
    }

    /** Some of its bits; of a net of one bit the net itself. */
    public Expression bits(int high, int low) {
        return Expression.bits(this, high, low);
    }

    public Expression bit(int at) {
        return Expression.bits(this, at, at);
    }

    /** The range of a declaration, with a blank behind it; empty for a single bit. */
    String range() {
        return bits == 1 ? "" : "[%s:0] ".formatted(bits - 1);
    }
}
