package polymetron.bench.block;

/** Counts down from LOAD, one each PRESCALE + 1 cycles; the next end is worked out, not counted to. */
final class GeneralTimerModel extends BankModel {
    /** While it runs: the cycle at which the counter was at {@link #count}; else unused. */
    private long since;

    private long count;

    /** Whether it ran, and how fast, before software wrote a register. */
    private boolean running;

    private long cyclesPerStep;

    GeneralTimerModel(RegisterBank bank) {
        super(bank);
    }

    @Override
    protected void clear() {
        super.clear();
        count = 0;
        since = 0;
        running = false;
        cyclesPerStep = 1 + bank.get("PRESCALE", "CYCLES");
    }

    /** Cycles from a count of so many to the end: the step from 0 on is one more. */
    private long cyclesToEnd(long counts) {
        return (counts + 1) * cyclesPerStep;
    }

    @Override
    protected void run() {
        if (!running || now() < since + cyclesToEnd(count)) {
            return;
        }
        bank.set("PENDING", "END", 1);
        since += cyclesToEnd(count);
        if (bank.get("CONTROL", "REPEAT") == 0) {
            bank.put("CONTROL", "RUN", 0);
            running = false;
            count = 0;
            return;
        }
        long period = cyclesToEnd(bank.get("LOAD", "COUNT"));
        since += (now() - since) / period * period;
        count = bank.get("LOAD", "COUNT");
    }

    @Override
    public long nextEvent() {
        return running ? since + cyclesToEnd(count) : NEVER;
    }

    private long countNow() {
        return running ? count - (now() - since) / cyclesPerStep : count;
    }

    @Override
    public long value(String register, int index, String field, long stored) {
        return register.equals("COUNT") ? countNow() : stored;
    }

    /** Goes on counting from where it is, or from LOAD, with whatever was changed. */
    @Override
    public void stored(String register, int index) {
        count = register.equals("LOAD") ? bank.get("LOAD", "COUNT") : countNow();
        since = now();
        running = bank.get("CONTROL", "RUN") != 0;
        cyclesPerStep = 1 + bank.get("PRESCALE", "CYCLES");
    }
}
