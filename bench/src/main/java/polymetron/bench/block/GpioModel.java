package polymetron.bench.block;

/** General-purpose lines. Which of the registers there are says in which directions they go. */
public final class GpioModel extends BankModel {
    private final long lines;
    private long outside;

    /**
     * @param lines one bit for each line
     */
    public GpioModel(RegisterBank bank, long lines) {
        super(bank);
        this.lines = lines;
    }

    /** Lines that the block drives: those that software chose, or all of them where there are only outputs. */
    private long drives() {
        if (bank.has("DRIVE")) {
            return bank.get("DRIVE", "ENABLE");
        }
        return bank.has("OUTPUT") ? lines : 0;
    }

    /** Levels that the block drives; lines that it does not drive are 0. */
    public int driven() {
        return (int) (bank.has("OUTPUT") ? bank.get("OUTPUT", "LEVEL") & drives() : 0);
    }

    /** Sets the levels that the board puts on the lines. */
    public void setOutside(int levels) {
        long before = outside;
        outside = Integer.toUnsignedLong(levels) & lines;
        if (bank.has("PENDING")) {
            long rose = ~before & outside & bank.get("RISE", "ENABLE");
            long fell = before & ~outside & bank.get("FALL", "ENABLE");
            bank.set("PENDING", "EDGE", rose | fell);
        }
    }

    @Override
    public long value(String register, int index, String field, long stored) {
        return register.equals("INPUT")
                ? outside & ~drives() | Integer.toUnsignedLong(driven())
                : stored;
    }
}
