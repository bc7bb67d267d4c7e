package polymetron.bench.block;

/**
 * Outputs of one period, each high for its own part of it; what is written counts from the next period. The end of a period is no
 * event of its own: it is worked out with each read or write.
 */
public final class PwmModel extends BankModel {
    private final BankField enable;
    private final BankField period;
    private final BankField prescale;
    private final BankField[] duty;

    /** What the running period has. */
    private long lastCount;

    private final long[] high;
    private long began;
    private boolean running;

    PwmModel(RegisterBank bank, int channels) {
        super(bank);
        enable = bank.field("CONTROL", "ENABLE").onStored(this::switched);
        period = bank.field("PERIOD", "COUNTS");
        prescale = bank.field("PRESCALE", "CYCLES");
        duty = new BankField[channels];
        high = new long[channels];
        for (int channel = 0; channel < channels; channel++) {
            duty[channel] = bank.row("DUTY", channel, "COUNTS");
        }
        clear();
    }

    @Override
    protected void clear() {
        super.clear();
        running = false;
    }

    private void switched() {
        if (enable.isSet() && !running) {
            begin(now());
        }
        running = enable.isSet();
    }

    private void begin(long at) {
        began = at;
        lastCount = period.get();
        for (int channel = 0; channel < duty.length; channel++) {
            high[channel] = duty[channel].get();
        }
    }

    private long cyclesOfPeriod() {
        return (lastCount + 1) * (prescale.get() + 1);
    }

    @Override
    protected void run() {
        if (running && now() >= began + cyclesOfPeriod()) {
            long whole = (now() - began) / cyclesOfPeriod();
            begin(began + whole * cyclesOfPeriod());
        }
    }

    public int channels() {
        return duty.length;
    }

    /** Part of the running period for which an output is high, from 0 to 1. */
    public double part(int channel) {
        return running ? Math.min(1, (double) high[channel] / (lastCount + 1)) : 0;
    }
}
