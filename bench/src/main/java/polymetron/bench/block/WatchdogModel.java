package polymetron.bench.block;

/** Counts down from TIME: below half of it there is a warning, at the end a reset; then it counts again. */
public final class WatchdogModel extends BankModel {
    private static final long KEY = 0x5EED_CAFEL;

    /** From a stored RUN to the first count: it takes its time over. */
    private static final int TAKE_OVER = 1;

    private final BankField run;
    private final BankField time;
    private final BankField cause;

    /** The cycle at which the count was last {@link #from}; while it does not run, what the count stays at. */
    private long since;

    private long from;
    private boolean running;
    private Runnable expired = () -> {};

    WatchdogModel(RegisterBank bank) {
        super(bank);
        run = bank.field("CONTROL", "RUN").onStored(this::switched);
        time = bank.field("TIME", "CYCLES");
        cause = bank.field("CAUSE", "WATCHDOG");
        bank.field("COUNT", "CYCLES").gives(this::count);
        bank.field("RENEW", "KEY").onWritten(this::renew);
        clear();
    }

    /** What happens at the end of the time: the reset of what it resets. */
    public void onExpired(Runnable action) {
        expired = action;
    }

    @Override
    protected void clear() {
        super.clear();
        from = 0;
        since = 0;
        running = false;
        switched();
    }

    private void switched() {
        if (run.isSet() == running) {
            return;
        }
        if (running) {
            from = count();
        } else {
            from = time.get();
            since = now() + TAKE_OVER;
        }
        running = run.isSet();
    }

    private long count() {
        return running ? Math.max(0, from - Math.max(0, now() - since)) : from;
    }

    private void renew(long key) {
        if (key != KEY) {
            end(now());
            return;
        }
        from = time.get();
        since = now();
    }

    /** In the cycle in which it is seen that nothing is left. */
    private void end(long at) {
        cause.set(1);
        from = time.get();
        since = at;
        expired.run();
    }

    @Override
    public long nextEvent() {
        if (!running) {
            return NEVER;
        }
        long warns = since + from - time.get() / 2 + 1;
        long ends = since + from + 1;
        return now() < warns ? warns : ends;
    }

    @Override
    protected void run() {
        if (running && now() >= since + from + 1) {
            end(since + from + 1);
        }
    }

    @Override
    public boolean interrupt(String source) {
        return super.interrupt(source) || running && count() < time.get() / 2;
    }
}
