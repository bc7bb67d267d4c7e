package polymetron.bench.block;

/** Counts down from LOAD, one each PRESCALE + 1 cycles; the next end is worked out, not counted to. */
final class GeneralTimerModel extends BankModel {
    /** While it runs: the cycle at which the counter was at {@link #count}; else unused. */
    private long since;

    private long count;

    /** Whether it ran, and how fast, before software wrote a register. */
    private boolean running;

    private long cyclesPerStep;

    private final BankField run;
    private final BankField repeat;
    private final BankField load;
    private final BankField prescale;
    private final BankField end;

    GeneralTimerModel(RegisterBank bank) {
        super(bank);
        run = bank.field("CONTROL", "RUN").onStored(this::goOn);
        repeat = bank.field("CONTROL", "REPEAT");
        load = bank.field("LOAD", "COUNT").onStored(this::loaded);
        prescale = bank.field("PRESCALE", "CYCLES").onStored(this::goOn);
        end = bank.field("PENDING", "END");
        bank.field("COUNT", "COUNT").gives(this::countNow);
    }

    @Override
    protected void clear() {
        super.clear();
        count = 0;
        since = 0;
        running = false;
        cyclesPerStep = 1 + prescale.get();
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
        end.set(1);
        since += cyclesToEnd(count);
        if (!repeat.isSet()) {
            run.put(0);
            running = false;
            count = 0;
            return;
        }
        long period = cyclesToEnd(load.get());
        since += (now() - since) / period * period;
        count = load.get();
    }

    @Override
    public long nextEvent() {
        return running ? since + cyclesToEnd(count) : NEVER;
    }

    private long countNow() {
        return running ? count - (now() - since) / cyclesPerStep : count;
    }

    /** Goes on counting from where it is, with whatever was changed. */
    private void goOn() {
        goOnFrom(countNow());
    }

    private void loaded() {
        goOnFrom(load.get());
    }

    private void goOnFrom(long counts) {
        count = counts;
        since = now();
        running = run.isSet();
        cyclesPerStep = 1 + prescale.get();
    }
}
