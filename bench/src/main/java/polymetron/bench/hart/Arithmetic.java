package polymetron.bench.hart;

/** Multiplication and division of the M extension (RISC-V Unprivileged ISA, chapter 13). */
final class Arithmetic {
    private Arithmetic() {}

    static int multiplyHigh(int op, int one, int two) {
        long left = op == Op.MULHU ? Integer.toUnsignedLong(one) : one;
        long right = op == Op.MULH ? two : Integer.toUnsignedLong(two);
        return (int) (left * right >> 32);
    }

    /** Division by zero gives -1, and overflow the dividend (table "Semantics for division"). */
    static int divide(int one, int two) {
        if (two == 0) {
            return -1;
        }
        return one / two;
    }

    static int remainder(int one, int two) {
        return two == 0 ? one : one % two;
    }

    /** Division by zero gives all ones. */
    static int divideUnsigned(int one, int two) {
        return two == 0 ? -1 : Integer.divideUnsigned(one, two);
    }

    static int remainderUnsigned(int one, int two) {
        return two == 0 ? one : Integer.remainderUnsigned(one, two);
    }
}
