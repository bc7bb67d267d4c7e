package polymetron.bench.block;

import java.util.Map;
import polymetron.bench.stream.SinkPort;
import polymetron.bench.stream.StreamWord;

/** Takes every word and counts it. */
public final class EventCounterModel extends StreamModel {
    private static final long LOW = 0xFFFF_FFFFL;

    private final long gateCycles;
    private final BankField enable;
    private final SinkPort in = new SinkPort();
    private long words;
    private long packets;
    private long rate;
    private long inGate;
    private long gate;
    private boolean clears;

    EventCounterModel(RegisterBank bank, long gateCycles) {
        super(bank);
        this.gateCycles = gateCycles;
        enable = bank.field("CONTROL", "ENABLE");
        bank.field("CONTROL", "CLEAR").onWritten(ones -> clears = ones != 0);
        bank.field("COUNT", "WORDS").gives(() -> clears ? 0 : words);
        bank.field("PACKETS", "PACKETS").gives(() -> clears ? 0 : packets);
        bank.field("RATE", "WORDS").gives(() -> rate);
        clear();
    }

    @Override
    public Map<String, SinkPort> sinks() {
        return Map.of("in", in);
    }

    @Override
    public void edge() {
        StreamWord word = enable.isSet() ? in.arriving() : null;
        if (clears) {
            words = 0;
            packets = 0;
            clears = false;
        }
        boolean gateEnds = gate == gateCycles - 1;
        if (gateEnds) {
            rate = inGate;
            inGate = 0;
        }
        gate = gateEnds ? 0 : gate + 1;
        if (word != null) {
            words = words + 1 & LOW;
            packets = packets + (word.last() ? 1 : 0) & LOW;
            inGate++;
        }
    }

    @Override
    public long quietFor() {
        return clears ? 0 : FOREVER;
    }

    /** Gates that end meanwhile: the first one has what came before, the others nothing. */
    @Override
    public void skip(long edges) {
        long ends = (gate + edges) / gateCycles;
        if (ends > 0) {
            rate = ends == 1 ? inGate : 0;
            inGate = 0;
        }
        gate = (gate + edges) % gateCycles;
    }

    @Override
    public void resetStream() {
        words = 0;
        packets = 0;
        rate = 0;
        inGate = 0;
        gate = 0;
        clears = false;
        in.setReady(true);
    }
}
