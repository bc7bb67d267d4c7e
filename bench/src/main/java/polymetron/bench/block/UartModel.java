package polymetron.bench.block;

import java.io.ByteArrayOutputStream;
import java.util.ArrayDeque;

/**
 * UART with the registers of the PC16550D (data sheet, sections 8.1 to 8.6), one word apart. A character takes ten
 * bit times of 16 × divisor cycles, in both directions; modem lines, parity and breaks are not modelled.
 */
public final class UartModel extends BlockModel {
    private static final int RBR_THR_DLL = 0x00;
    private static final int IER_DLM = 0x04;
    private static final int IIR_FCR = 0x08;
    private static final int LCR = 0x0C;
    private static final int MCR = 0x10;
    private static final int LSR = 0x14;
    private static final int SCR = 0x1C;
    private static final int DLAB = 0x80;
    private static final int FIFO_DEPTH = 16;
    private static final int MOST_WAITING = 1 << 20;
    private static final int BITS_PER_CHARACTER = 10;

    private final int resetDivisor;
    private final ArrayDeque<Byte> transmitFifo = new ArrayDeque<>();
    private final ArrayDeque<Byte> receiveFifo = new ArrayDeque<>();
    private final ArrayDeque<Byte> incoming = new ArrayDeque<>();
    private final ByteArrayOutputStream sent = new ByteArrayOutputStream();
    private int divisor;
    private int ier;
    private int lcr;
    private int mcr;
    private int fcr;
    private int scratch;
    private boolean overrun;
    private boolean transmitterEmptied;
    private boolean timedOut;
    private long shiftDone;
    private long nextArrival;
    private long lastReceive;

    /**
     * @param resetDivisor divisor after reset
     */
    public UartModel(int resetDivisor) {
        this.resetDivisor = resetDivisor;
        clear();
    }

    @Override
    protected void clear() {
        transmitFifo.clear();
        receiveFifo.clear();
        incoming.clear();
        divisor = resetDivisor;
        ier = 0;
        lcr = 3;
        mcr = 0;
        fcr = 0;
        scratch = 0;
        overrun = false;
        transmitterEmptied = false;
        timedOut = false;
        shiftDone = NEVER;
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
        return (long) BITS_PER_CHARACTER * 16 * Math.max(divisor, 1);
    }

    @Override
    public long nextEvent() {
        long timeOut =
                receiveFifo.isEmpty() || timedOut ? NEVER : lastReceive + 4 * characterCycles();
        return Math.min(timeOut, Math.min(shiftDone, nextArrival));
    }

    @Override
    protected void run() {
        while (shiftDone <= now()) {
            shiftDone = startShift(shiftDone);
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

    /** Takes the next character out of the FIFO; returns when it is out. */
    private long startShift(long from) {
        if (transmitFifo.isEmpty()) {
            return NEVER;
        }
        byte character = transmitFifo.remove();
        if ((mcr & 0x10) != 0) {
            receive(character);
            lastReceive = from;
        } else {
            sent.write(character);
        }
        if (transmitFifo.isEmpty()) {
            transmitterEmptied = true;
        }
        return from + characterCycles();
    }

    private void receive(byte character) {
        if (receiveFifo.size() >= (fifosOn() ? FIFO_DEPTH : 1)) {
            overrun = true;
        } else {
            receiveFifo.add(character);
        }
    }

    private boolean fifosOn() {
        return (fcr & 1) != 0;
    }

    private int receiveLevel() {
        return fifosOn() ? new int[] {1, 4, 8, 14}[fcr >>> 6] : 1;
    }

    @Override
    public boolean interrupt(String source) {
        return interruptId() != 1;
    }

    /** Table "Interrupt control functions": the most urgent cause, 1 for none. */
    private int interruptId() {
        if ((ier & 4) != 0 && overrun) {
            return 6;
        }
        if ((ier & 1) != 0 && receiveFifo.size() >= receiveLevel()) {
            return 4;
        }
        if ((ier & 1) != 0 && fifosOn() && timedOut && !receiveFifo.isEmpty()) {
            return 12;
        }
        return (ier & 2) != 0 && transmitterEmptied ? 2 : 1;
    }

    private int lineStatus() {
        return (receiveFifo.isEmpty() ? 0 : 0x01)
                | (overrun ? 0x02 : 0)
                | (transmitFifo.isEmpty() ? 0x20 : 0)
                | (transmitFifo.isEmpty() && shiftDone == NEVER ? 0x40 : 0);
    }

    /** The divisor latch takes the place of three registers while DLAB is set (data sheet, table II). */
    @Override
    public boolean isThere(String register) {
        return switch (register) {
            case "DLL", "DLM" -> (lcr & DLAB) != 0;
            case "RBR", "THR", "IER" -> (lcr & DLAB) == 0;
            default -> true;
        };
    }

    @Override
    public int peek(int offset) {
        boolean latch = (lcr & DLAB) != 0;
        return switch (offset) {
            case RBR_THR_DLL ->
                    latch ? divisor & 0xFF : receiveFifo.isEmpty() ? 0 : receiveFifo.peek() & 0xFF;
            case IER_DLM -> latch ? divisor >>> 8 : ier;
            case IIR_FCR -> interruptId() | (fifosOn() ? 0xC0 : 0);
            case LCR -> lcr;
            case MCR -> mcr;
            case LSR -> lineStatus();
            case SCR -> scratch;
            default -> 0;
        };
    }

    @Override
    public int read(int offset) {
        int value = peek(offset);
        if (offset == RBR_THR_DLL && (lcr & DLAB) == 0 && !receiveFifo.isEmpty()) {
            receiveFifo.remove();
            timedOut = false;
            lastReceive = now();
        } else if (offset == IIR_FCR && (value & 0xF) == 2) {
            transmitterEmptied = false;
        } else if (offset == LSR) {
            overrun = false;
        }
        return value;
    }

    @Override
    public void write(int offset, int value, int mask) {
        if ((mask & 0xFF) == 0) {
            return;
        }
        int bits = value & 0xFF;
        boolean latch = (lcr & DLAB) != 0;
        switch (offset) {
            case RBR_THR_DLL -> {
                if (latch) {
                    divisor = divisor & 0xFF00 | bits;
                } else {
                    transmit((byte) bits);
                }
            }
            case IER_DLM -> {
                if (latch) {
                    divisor = divisor & 0xFF | bits << 8;
                } else {
                    transmitterEmptied |= (bits & ~ier & 2) != 0 && transmitFifo.isEmpty();
                    ier = bits & 0x0F;
                }
            }
            case IIR_FCR -> control(bits);
            case LCR -> lcr = bits;
            case MCR -> mcr = bits & 0x1F;
            case SCR -> scratch = bits;
            default -> {}
        }
    }

    private void transmit(byte character) {
        transmitterEmptied = false;
        if (transmitFifo.size() < (fifosOn() ? FIFO_DEPTH : 1)) {
            transmitFifo.add(character);
        }
        if (shiftDone == NEVER) {
            shiftDone = startShift(now());
        }
    }

    private void control(int bits) {
        boolean toggled = ((bits ^ fcr) & 1) != 0;
        if (toggled || (bits & 2) != 0) {
            receiveFifo.clear();
        }
        if (toggled || (bits & 4) != 0) {
            transmitFifo.clear();
        }
        fcr = bits & 0xC9;
    }
}
