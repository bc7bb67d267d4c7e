package polymetron.bench.block;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.List;
import polymetron.bench.part.SpiPart;

/**
 * Shifts words out and in at once. A word takes as many periods of the serial clock as it has bits; the wires of the parts
 * move when it has gone.
 */
public final class SpiModel extends BankModel {
    private final int bits;
    private final int fifo;
    private final List<SpiPart> parts = new ArrayList<>();
    private final ArrayDeque<Long> toSend = new ArrayDeque<>();
    private final ArrayDeque<Long> received = new ArrayDeque<>();
    private final BankField enable;
    private final BankField polarity;
    private final BankField phase;
    private final BankField lowFirst;
    private final BankField loop;
    private final BankField divider;
    private final BankField select;
    private final BankField arrived;
    private final BankField empty;
    private final BankField lost;

    /** When the word on its way has gone; none is where it is {@link #NEVER}. */
    private long wordEnds;

    private long sending;

    /**
     * @param bits bits of a word
     * @param fifo words that wait in each direction
     */
    SpiModel(RegisterBank bank, int bits, int fifo) {
        super(bank);
        this.bits = bits;
        this.fifo = fifo;
        enable = bank.field("CONTROL", "ENABLE").onStored(this::changed);
        polarity = bank.field("CONTROL", "POLARITY");
        phase = bank.field("CONTROL", "PHASE");
        lowFirst = bank.field("CONTROL", "LOW_FIRST");
        loop = bank.field("CONTROL", "LOOP");
        divider = bank.field("DIVIDER", "CYCLES");
        select = bank.field("SELECT", "LINE").onStored(this::rest);
        arrived = bank.field("PENDING", "ARRIVED");
        empty = bank.field("PENDING", "EMPTY");
        lost = bank.field("PENDING", "LOST");
        bank.field("STATUS", "BUSY").gives(() -> wordEnds == NEVER ? 0 : 1);
        bank.field("STATUS", "ARRIVED").gives(() -> received.isEmpty() ? 0 : 1);
        bank.field("STATUS", "ROOM").gives(() -> toSend.size() < fifo ? 1 : 0);
        bank.field("SEND", "WORD").onWritten(this::send);
        bank.field("RECEIVED", "WORD")
                .gives(() -> received.isEmpty() ? 0 : received.peek())
                .onTaken(received::poll);
        clear();
    }

    /** Puts a part on the line of its select, the first part on the lowest one. */
    public void attach(SpiPart part) {
        parts.add(part);
        rest();
    }

    /** The parts that are on it, by their select lines. */
    public List<SpiPart> parts() {
        return List.copyOf(parts);
    }

    @Override
    protected void clear() {
        super.clear();
        toSend.clear();
        received.clear();
        wordEnds = NEVER;
        rest();
    }

    @Override
    protected void powerUp() {
        parts.forEach(SpiPart::reset);
        rest();
    }

    private void send(long word) {
        if (toSend.size() >= fifo) {
            lost.set(1);
            return;
        }
        toSend.add(word);
        schedule();
    }

    private void changed() {
        rest();
        schedule();
    }

    /** A word is seen in the cycle after it was written, and on its way in the next. */
    private void schedule() {
        if (enable.isSet() && wordEnds == NEVER && !toSend.isEmpty()) {
            begin(now() + 1);
        }
    }

    private void begin(long at) {
        sending = toSend.remove();
        wordEnds = at + 2L * bits * halfPeriod();
    }

    private long halfPeriod() {
        return Math.max(1, divider.get() >> 1);
    }

    @Override
    public long nextEvent() {
        return wordEnds;
    }

    @Override
    protected void run() {
        while (wordEnds <= now()) {
            long word = exchange();
            if (received.size() < fifo) {
                received.add(word);
                arrived.set(1);
            } else {
                lost.set(1);
            }
            if (toSend.isEmpty()) {
                empty.set(1);
            }
            long end = wordEnds;
            wordEnds = NEVER;
            if (enable.isSet() && !toSend.isEmpty()) {
                begin(end);
            }
        }
    }

    /** The wires while nothing is on its way. */
    private void rest() {
        if (wordEnds == NEVER) {
            wires(polarity.isSet(), false);
        }
    }

    private boolean wires(boolean clock, boolean out) {
        boolean in = false;
        for (int at = 0; at < parts.size(); at++) {
            in |= parts.get(at).wires((select.get() >> at & 1) != 0, clock, out);
        }
        return in;
    }

    /** Half a period after the other: what comes in is taken at the end of the first half of a bit. */
    private long exchange() {
        long word = 0;
        for (int bit = 0; bit < bits; bit++) {
            int place = lowFirst.isSet() ? bit : bits - 1 - bit;
            boolean out = (sending >> place & 1) != 0;
            boolean in = wires(polarity.isSet() != phase.isSet(), out);
            if (loop.isSet() ? out : in) {
                word |= 1L << place;
            }
            wires(polarity.isSet() == phase.isSet(), out);
        }
        wires(polarity.isSet(), false);
        return word;
    }
}
