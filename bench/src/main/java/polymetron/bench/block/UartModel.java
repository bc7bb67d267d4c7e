package polymetron.bench.block;

import java.io.ByteArrayOutputStream;
import java.util.ArrayDeque;

/**
 * What a UART with the registers of the PC16550D does (data sheet, sections 8.1 to 8.6; numbers from memory). The
 * registers are found where that standard has them, one word apart, so a definition may give them any names. A character
 * takes ten bit times of 16 × divisor cycles, in both directions; modem lines, parity and breaks are not modelled. Cycles
 * are those of the block's hardware.
 */
public final class UartModel extends BankModel {
    private static final int WORD = 4;
    private static final int DIVISOR_LATCH_ACCESS = 0x80;
    private static final int FIFO_DEPTH = 16;
    private static final int[] RECEIVE_LEVELS = {1, 4, 8, 14};
    private static final int MOST_WAITING = 1 << 20;
    private static final int BITS_PER_CHARACTER = 10;

    /** From the begin of a character to the middle of its stop bit, in bit times: where a receiver has it. */
    private static final double BITS_TO_STOP = 9.5;

    /** Flip-flops between the line and the receiver, and one each to see the start bit and to store the character. */
    private static final int RECEIVER_CYCLES = 3;

    /** Line status 3, data available 2, time-out 6, transmitter empty 1 (table "Interrupt control functions"). */
    private enum Cause {
        LINE_STATUS(3),
        DATA(2),
        TIME_OUT(6),
        EMPTY(1),
        NONE(0);

        private final int id;

        Cause(int id) {
            this.id = id;
        }
    }

    private final ArrayDeque<Byte> transmitFifo = new ArrayDeque<>();
    private final ArrayDeque<Byte> receiveFifo = new ArrayDeque<>();
    private final ArrayDeque<Byte> incoming = new ArrayDeque<>();

    /** Characters that are kept while nothing takes them. */
    private static final int MOST_SENT = 1 << 20;

    private final ByteArrayOutputStream sent = new ByteArrayOutputStream();
    private final BankField divisorLow;
    private final BankField divisorHigh;
    private final BankField dataEnable;
    private final BankField emptyEnable;
    private final BankField lineEnable;
    private final BankField fifosOn;
    private final BankField receiveLevel;
    private final BankField loop;
    private final BankField overrun;
    private boolean transmitterEmptied;
    private boolean emptyWasEnabled;
    private boolean fifosWereOn;
    private boolean timedOut;

    /** When the next character leaves the FIFO, and when the one on the line has ended. */
    private long nextTake;

    private long busyUntil;

    /** When the transmitter tells that it has become empty. */
    private long emptyTold;

    /** With the transmitter looped back: the character on the way, and when it has come round. */
    private byte looped;

    private long loopedArrival;
    private long nextArrival;
    private long lastReceive;

    public UartModel(RegisterBank bank) {
        super(bank);
        bank.write(3 * WORD, DIVISOR_LATCH_ACCESS, 0xFF);
        divisorLow = bank.readAt(0, 0);
        divisorHigh = bank.readAt(WORD, 0);
        bank.write(3 * WORD, 0, 0xFF);
        bank.readAt(0, 0).gives(this::oldest).onTaken(this::take);
        bank.writtenAt(0, 0).onWritten(character -> transmit((byte) character));
        dataEnable = bank.readAt(WORD, 0);
        emptyEnable = bank.readAt(WORD, 1).onStored(this::enabled);
        lineEnable = bank.readAt(WORD, 2);
        bank.readAt(2 * WORD, 0).gives(() -> cause() == Cause.NONE ? 1 : 0);
        bank.readAt(2 * WORD, 1).gives(() -> cause().id).onTaken(this::causeRead);
        bank.readAt(2 * WORD, 6).gives(() -> fifosOn() ? 3 : 0);
        fifosOn = bank.writtenAt(2 * WORD, 0).onStored(this::fifosSwitched);
        bank.writtenAt(2 * WORD, 1).onWritten(ones -> forgetReceived());
        bank.writtenAt(2 * WORD, 2).onWritten(ones -> forgetUnsent());
        receiveLevel = bank.writtenAt(2 * WORD, 6);
        loop = bank.readAt(4 * WORD, 4);
        bank.readAt(5 * WORD, 0).gives(() -> receiveFifo.isEmpty() ? 0 : 1);
        overrun = bank.readAt(5 * WORD, 1);
        bank.readAt(5 * WORD, 5).gives(() -> transmitFifo.isEmpty() ? 1 : 0);
        bank.readAt(5 * WORD, 6).gives(() -> transmitFifo.isEmpty() && now() >= busyUntil ? 1 : 0);
        clear();
    }

    @Override
    protected void clear() {
        super.clear();
        transmitFifo.clear();
        receiveFifo.clear();
        incoming.clear();
        transmitterEmptied = false;
        emptyWasEnabled = false;
        fifosWereOn = false;
        timedOut = false;
        nextTake = NEVER;
        busyUntil = 0;
        emptyTold = NEVER;
        loopedArrival = NEVER;
        nextArrival = NEVER;
        lastReceive = 0;
    }

    /** Characters that were sent since the last call. */
    public byte[] takeSent() {
        byte[] bytes = sent.toByteArray();
        sent.reset();
        return bytes;
    }

    /** Lets characters arrive one after the other at the line's rate. */
    public void arrive(byte[] characters) {
        for (byte character : characters) {
            if (incoming.size() < MOST_WAITING) {
                incoming.add(character);
            }
        }
        if (nextArrival == NEVER && !incoming.isEmpty()) {
            nextArrival = now() + characterCycles();
        }
    }

    private long characterCycles() {
        return BITS_PER_CHARACTER * 16 * Math.max(divisorHigh.get() << 8 | divisorLow.get(), 1);
    }

    @Override
    public long nextEvent() {
        long timeOut =
                receiveFifo.isEmpty() || timedOut ? NEVER : lastReceive + 4 * characterCycles();
        return Math.min(
                Math.min(timeOut, nextArrival),
                Math.min(Math.min(nextTake, emptyTold), loopedArrival));
    }

    @Override
    protected void run() {
        while (Math.min(nextTake, Math.min(emptyTold, loopedArrival)) <= now()) {
            if (loopedArrival <= Math.min(nextTake, emptyTold)) {
                receive(looped);
                lastReceive = loopedArrival;
                loopedArrival = NEVER;
            } else if (emptyTold <= nextTake) {
                transmitterEmptied = true;
                emptyTold = NEVER;
            } else {
                take(nextTake);
            }
        }
        while (nextArrival <= now()) {
            receive(incoming.remove());
            lastReceive = nextArrival;
            nextArrival = incoming.isEmpty() ? NEVER : nextArrival + characterCycles();
        }
        if (!receiveFifo.isEmpty() && now() >= lastReceive + 4 * characterCycles()) {
            timedOut = true;
        }
    }

    /** Takes the next character out of the FIFO. */
    private void take(long at) {
        byte character = transmitFifo.remove();
        busyUntil = at + characterCycles();
        if (loop.isSet()) {
            looped = character;
            loopedArrival =
                    at
                            + RECEIVER_CYCLES
                            + (long) (characterCycles() / BITS_PER_CHARACTER * BITS_TO_STOP);
        } else {
            if (sent.size() >= MOST_SENT) {
                sent.reset();
            }
            sent.write(character);
        }
        nextTake = transmitFifo.isEmpty() ? NEVER : busyUntil;
        if (transmitFifo.isEmpty()) {
            emptyTold = at + 1;
        }
    }

    private void forgetUnsent() {
        if (!transmitFifo.isEmpty()) {
            emptyTold = now() + 1;
        }
        transmitFifo.clear();
        nextTake = NEVER;
    }

    private void forgetReceived() {
        receiveFifo.clear();
        timedOut = false;
    }

    /** The time-out is counted from the last character on, also from one that had no room. */
    private void receive(byte character) {
        timedOut = false;
        if (receiveFifo.size() >= (fifosOn() ? FIFO_DEPTH : 1)) {
            overrun.set(1);
        } else {
            receiveFifo.add(character);
        }
    }

    private boolean fifosOn() {
        return fifosOn.isSet();
    }

    private int receiveLevel() {
        return fifosOn() ? RECEIVE_LEVELS[(int) receiveLevel.get()] : 1;
    }

    @Override
    public boolean interrupt(String source) {
        return interrupts();
    }

    /** Level of its one interrupt line. */
    public boolean interrupts() {
        return cause() != Cause.NONE;
    }

    /** The most urgent cause. */
    private Cause cause() {
        if (lineEnable.isSet() && overrun.isSet()) {
            return Cause.LINE_STATUS;
        }
        if (dataEnable.isSet() && receiveFifo.size() >= receiveLevel()) {
            return Cause.DATA;
        }
        if (dataEnable.isSet() && fifosOn() && timedOut && !receiveFifo.isEmpty()) {
            return Cause.TIME_OUT;
        }
        return emptyEnable.isSet() && transmitterEmptied ? Cause.EMPTY : Cause.NONE;
    }

    /** Reading the cause clears it when it is that of the transmitter. */
    private void causeRead() {
        if (cause() == Cause.EMPTY) {
            transmitterEmptied = false;
        }
    }

    private long oldest() {
        return receiveFifo.isEmpty() ? 0 : receiveFifo.peek();
    }

    private void take() {
        if (!receiveFifo.isEmpty()) {
            receiveFifo.remove();
            timedOut = false;
            lastReceive = now() + 1;
        }
    }

    /** Enabling the transmitter's interrupt while there is nothing to send raises it. */
    private void enabled() {
        if (emptyEnable.isSet() && !emptyWasEnabled && transmitFifo.isEmpty()) {
            emptyTold = now() + 1;
        }
        emptyWasEnabled = emptyEnable.isSet();
    }

    /**
     * In the very cycle in which a character leaves a full FIFO hardware has no place yet; here the new one is taken. Only a
     * program that sends without looking could tell.
     */
    private void transmit(byte character) {
        transmitterEmptied = false;
        if (transmitFifo.size() < (fifosOn() ? FIFO_DEPTH : 1)) {
            transmitFifo.add(character);
        }
        if (nextTake == NEVER) {
            nextTake = Math.max(now() + 1, busyUntil);
        }
    }

    /** Both FIFOs are emptied when they are switched on or off. */
    private void fifosSwitched() {
        if (fifosOn() != fifosWereOn) {
            forgetReceived();
            forgetUnsent();
        }
        fifosWereOn = fifosOn();
    }
}
