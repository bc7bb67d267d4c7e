package polymetron.bench.behaviour;

import static polymetron.bench.behaviour.Registers.any;
import static polymetron.bench.behaviour.Registers.bit;
import static polymetron.bench.behaviour.Registers.isSet;
import static polymetron.bench.behaviour.Registers.named;
import static polymetron.bench.behaviour.Registers.once;

import java.util.ArrayDeque;
import java.util.Deque;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;

/**
 * A UART with the registers of the PC16550D, with 8 data bits and one stop bit: characters come in from the other side of the line
 * or go round in the loop, software reads and writes at any time.
 */
final class UartBehaviour implements Behaviour {
    private static final int ROOM = 16;
    private static final int PARTS = 16;
    private static final int FRAME = 10;
    private static final int[] TRIGGERS = {1, 4, 8, 14};

    /** One direction of the line: a shift register that moves every sixteen parts of a bit. */
    private static final class Shifter {
        private int shift;
        private int bits;
        private int parts;
        private int time;

        private boolean isBusy() {
            return bits != 0;
        }

        /** Whether a bit is at its end. */
        private boolean isAtEnd() {
            return isBusy() && parts == 0 && time == 0;
        }

        /** A cycle passes; what is due at the end of a bit is done by the caller. */
        private void pass(int last) {
            if (time > 0) {
                time--;
            } else {
                time = last;
                parts = (parts + PARTS - 1) % PARTS;
            }
        }
    }

    private final Deque<Integer> received = new ArrayDeque<>();
    private final Deque<Integer> toSend = new ArrayDeque<>();
    private final Shifter sender = new Shifter();
    private final Shifter receiver = new Shifter();
    private boolean wasOn;
    private boolean emptied;
    private boolean emptyWasEnabled;
    private boolean hadToSend;
    private long quiet;
    private boolean lineBefore = true;
    private boolean line = true;

    // What software and the other side do.
    private long divisor = 1;
    private boolean on;
    private boolean loops;
    private long interrupts;
    private int trigger;
    private int busy = 5;
    private int frame = -1;
    private int framed;

    @Override
    public String module() {
        return "polymetron_uart";
    }

    @Override
    public Map<String, Integer> registers() {
        return new TreeMap<>(Map.of("send_time", 16, "receive_time", 16, "quiet", 22));
    }

    @Override
    public Map<String, Long> inputs(Random random, int cycle) {
        if (once(random, 4000)) {
            divisor = once(random, 3) ? any(random, 16) : random.nextInt(4);
            busy = 2 + random.nextInt(400);
        }
        if (once(random, 2500)) {
            on = !on;
        }
        if (once(random, 1500)) {
            loops = once(random, 3);
        }
        if (once(random, 150)) {
            interrupts = random.nextInt(8);
            trigger = random.nextInt(4);
        }
        return named(
                "RBR_DATA_taken", bit(once(random, 3 * busy)),
                "THR_DATA_written", bit(once(random, busy)),
                "THR_DATA_data", random.nextInt(256),
                "DLL_DIVISOR", divisor & 0xFF,
                "DLM_DIVISOR", divisor >> 8,
                "IER_ERBFI", interrupts & 1,
                "IER_ETBEI", interrupts >> 1 & 1,
                "IER_ELSI", interrupts >> 2,
                "IIR_ID_taken", bit(once(random, 30)),
                "FCR_ENABLE", bit(on),
                "FCR_CLEAR_RX_pulse", bit(once(random, 2000)),
                "FCR_CLEAR_TX_pulse", bit(once(random, 2000)),
                "FCR_TRIGGER", trigger,
                "MCR_LOOP", bit(loops),
                "LSR_OE", bit(once(random, 9)),
                "rxd", otherSide(random));
    }

    /** The level of the line from the other side: characters, now and then one without a stop bit, and noise. */
    private long otherSide(Random random) {
        long bitCycles = PARTS * Math.max(1, divisor);
        if (frame < 0) {
            if (!once(random, 20)) {
                return 1;
            }
            frame = 0;
            framed = random.nextInt(256) << 1 | (once(random, 6) ? 0 : 1 << FRAME - 1);
            if (once(random, 20)) {
                framed |= 1;
            }
        }
        long level = framed >> frame / bitCycles & 1;
        frame++;
        if (frame >= FRAME * bitCycles || once(random, 20_000)) {
            frame = -1;
        }
        return level;
    }

    /** Shortly before the end of a part of a bit, and of the time without a character. */
    @Override
    public Map<String, Long> put(Random random, int cycle) {
        if (!once(random, 80)) {
            return Map.of();
        }
        sender.time = time(random);
        receiver.time = time(random);
        quiet = Math.max(0, fourCharacters() - (once(random, 2) ? 2 : any(random, 22)));
        return named("send_time", sender.time, "receive_time", receiver.time, "quiet", quiet);
    }

    private static int time(Random random) {
        return once(random, 4) ? (int) any(random, 16) : random.nextInt(3);
    }

    private long fourCharacters() {
        return divisor * PARTS * FRAME * 4 & (1 << 22) - 1;
    }

    @Override
    public Map<String, Long> step(Map<String, Long> in) {
        int last = (int) Math.max(0, divisor - 1);
        boolean isEmpty = toSend.isEmpty();
        boolean isThere = !received.isEmpty();
        boolean arrives = receiver.isAtEnd() && receiver.bits == 1 && line;
        boolean isOverrun = arrives && isFull(received);
        boolean starts = !isEmpty && (!sender.isBusy() || sender.isAtEnd() && sender.bits == 1);
        boolean sent = !sender.isBusy() || (sender.shift & 1) != 0;
        boolean isLate = isThere && quiet == fourCharacters();
        int id = urgent(in, isLate);
        Map<String, Long> out =
                named(
                        "RBR_DATA", isThere ? received.peek() : 0,
                        "IIR_NONE", bit(id < 0),
                        "IIR_ID", Math.max(0, id),
                        "IIR_FIFO", on ? 3 : 0,
                        "LSR_DR", bit(isThere),
                        "LSR_OE_set", bit(isOverrun),
                        "LSR_THRE", bit(isEmpty),
                        "LSR_TEMT", bit(isEmpty && !sender.isBusy()),
                        "irq", bit(id >= 0),
                        "txd", bit(loops || sent),
                        "receive_time", receiver.time,
                        "send_time", sender.time,
                        "quiet", quiet);
        boolean takes = isSet(in, "RBR_DATA_taken");
        if (arrives || takes || !isThere) {
            quiet = 0;
        } else if (!isLate) {
            quiet++;
        }
        boolean writes = isSet(in, "THR_DATA_written");
        boolean enabled = isSet(in, "IER_ETBEI");
        if (writes) {
            emptied = false;
        } else if (isEmpty && (hadToSend || enabled && !emptyWasEnabled)) {
            emptied = true;
        } else if (isSet(in, "IIR_ID_taken") && id == 1) {
            emptied = false;
        }
        emptyWasEnabled = enabled;
        hadToSend = !isEmpty;
        int arrived = receiver.shift;
        receive(last);
        int next = starts ? toSend.peek() : 0;
        send(starts, next, last);
        boolean isSwitched = wasOn != on;
        wasOn = on;
        queue(
                received,
                isSwitched || isSet(in, "FCR_CLEAR_RX_pulse"),
                arrives && !isOverrun,
                arrived,
                takes);
        queue(
                toSend,
                isSwitched || isSet(in, "FCR_CLEAR_TX_pulse"),
                writes && !isFull(toSend),
                in.get("THR_DATA_data").intValue(),
                starts);
        line = lineBefore;
        lineBefore = loops ? sent : isSet(in, "rxd");
        return out;
    }

    /** Number of the interrupt that is the most urgent one; -1 for none. */
    private int urgent(Map<String, Long> in, boolean isLate) {
        boolean ofData = isSet(in, "IER_ERBFI");
        if (isSet(in, "IER_ELSI") && isSet(in, "LSR_OE")) {
            return 3;
        }
        if (ofData && received.size() >= (on ? TRIGGERS[trigger] : 1)) {
            return 2;
        }
        if (ofData && on && isLate) {
            return 6;
        }
        return isSet(in, "IER_ETBEI") && emptied ? 1 : -1;
    }

    private boolean isFull(Deque<Integer> characters) {
        return characters.size() >= (on ? ROOM : 1);
    }

    private static void queue(
            Deque<Integer> characters, boolean isCleared, boolean comes, int what, boolean goes) {
        if (isCleared) {
            characters.clear();
            return;
        }
        if (goes) {
            characters.poll();
        }
        if (comes) {
            characters.add(what);
        }
    }

    private void send(boolean starts, int character, int last) {
        boolean isAtEnd = sender.isAtEnd();
        if (starts) {
            sender.shift = 1 << FRAME - 1 | character << 1;
            sender.bits = FRAME;
            sender.parts = PARTS - 1;
            sender.time = last;
        } else if (sender.isBusy()) {
            sender.pass(last);
            if (isAtEnd) {
                sender.shift = 1 << FRAME - 1 | sender.shift >> 1;
                sender.bits--;
            }
        }
    }

    private void receive(int last) {
        if (!receiver.isBusy()) {
            receiver.parts = PARTS / 2 - 1;
            receiver.time = last;
            receiver.bits = line ? 0 : FRAME;
            return;
        }
        boolean isAtEnd = receiver.isAtEnd();
        receiver.pass(last);
        if (!isAtEnd) {
            return;
        }
        if (receiver.bits != 1) {
            receiver.shift = (line ? 0x80 : 0) | receiver.shift >> 1;
        }
        // A start bit that is gone in its middle was none.
        receiver.bits = receiver.bits == FRAME && line ? 0 : receiver.bits - 1;
    }

    @Override
    public void reset() {
        received.clear();
        toSend.clear();
        for (Shifter each : new Shifter[] {sender, receiver}) {
            each.bits = 0;
            each.parts = 0;
            each.time = 0;
            each.shift = 0;
        }
        wasOn = false;
        emptied = false;
        emptyWasEnabled = false;
        hadToSend = false;
        quiet = 0;
        line = true;
        lineBefore = true;
    }
}
