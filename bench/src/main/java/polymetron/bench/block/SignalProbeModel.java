package polymetron.bench.block;

import java.util.Map;
import polymetron.bench.stream.SinkPort;
import polymetron.bench.stream.StreamWord;

/** Records words of a stream around a trigger. */
public final class SignalProbeModel extends StreamModel {
    private final int depth;
    private final int before;
    private final int widthBits;
    private final String trigger;
    private final BankField arm;
    private final BankField mask;
    private final BankField value;
    private final BankField index;
    private final SinkPort watched = new SinkPort();
    private final StreamWord[] words;
    private int next;
    private int count;
    private boolean armed;
    private boolean forced;
    private boolean triggered;
    private boolean full;

    /**
     * @param before words of the record from before the trigger
     * @param trigger {@code value}, {@code packet} or {@code software}
     */
    SignalProbeModel(RegisterBank bank, int widthBits, int depth, int before, String trigger) {
        super(bank);
        this.widthBits = widthBits;
        this.depth = depth;
        this.before = before;
        this.trigger = trigger;
        words = new StreamWord[depth];
        arm = bank.field("CONTROL", "ARM");
        bank.field("CONTROL", "FORCE").onWritten(ones -> forced |= ones != 0);
        mask = bank.field("MASK", "BITS");
        value = bank.field("VALUE", "BITS");
        index = bank.field("INDEX", "WORD");
        BankField part = bank.field("PART", "NUMBER");
        bank.field("STATUS", "TRIGGERED").gives(() -> triggered ? 1 : 0);
        bank.field("STATUS", "FULL").gives(() -> full ? 1 : 0);
        bank.field("DATA", "BITS")
                .gives(() -> bits((int) part.get()))
                .onTaken(() -> index.put(index.get() + 1 & depth - 1));
        clear();
    }

    /** 32 bits of the word that is shown; behind the word is the mark of the end of a packet. */
    private long bits(int part) {
        StreamWord word = words[next + (int) index.get() & depth - 1];
        if (!full || word == null) {
            return 0;
        }
        long bits = Integer.toUnsignedLong(word.part(part));
        if (word.last() && widthBits / 32 == part) {
            bits |= 1L << widthBits % 32;
        }
        return bits;
    }

    @Override
    public boolean interrupt(String source) {
        return super.interrupt(source) || full;
    }

    @Override
    public Map<String, SinkPort> sinks() {
        return Map.of("watched", watched);
    }

    @Override
    public void edge() {
        StreamWord word = armed && !full ? watched.arriving() : null;
        if (arm.isSet() && !armed) {
            armed = true;
            count = 0;
            triggered = false;
            full = false;
            return;
        }
        armed = arm.isSet();
        // It counts for what is armed, or armed with it.
        forced &= armed;
        if (word == null) {
            return;
        }
        boolean triggers = !triggered && count == before && (forced || fits(word));
        words[next] = word;
        next = next + 1 & depth - 1;
        if (triggers) {
            triggered = true;
            forced = false;
            count = 1;
        } else if (triggered || count != before) {
            count++;
        }
        if (triggered && count == depth - before) {
            full = true;
            armed = false;
            arm.put(0);
        }
    }

    private boolean fits(StreamWord word) {
        return switch (trigger) {
            case "value" -> (word.low() & mask.get()) == (value.get() & mask.get());
            case "packet" -> word.last();
            default -> false;
        };
    }

    @Override
    public long quietFor() {
        return arm.isSet() == armed && (armed || !forced) ? FOREVER : 0;
    }

    @Override
    public void resetStream() {
        java.util.Arrays.fill(words, null);
        next = 0;
        count = 0;
        armed = false;
        forced = false;
        triggered = false;
        full = false;
        watched.setReady(true);
    }
}
