package polymetron.bench.part;

import java.util.Arrays;
import polymetron.bench.hart.Memory;

/**
 * A serial flash with the commands of JEDEC JESD216: identification, status, reads, pages of 256 bytes, erase of 4 KiB, 64 KiB and
 * all. A page takes 7 µs and an erase 45 µs, a hundredth and a thousandth of what chips take. What is in it stays there when
 * the board is reset.
 */
public final class FlashChip {
    private static final int IDENTITY = 0x0F4019;
    private static final int PAGE = 256;
    private static final double PAGE_SECONDS = 7e-6;
    private static final double ERASE_SECONDS = 45e-6;
    private static final int SMALL = 4 << 10;
    private static final int LARGE = 64 << 10;

    private final Memory memory;
    private final Runnable changed;
    private final long sizeBytes;
    private boolean selected;
    private boolean busy;
    private double until;
    private boolean enabled;
    private boolean quad;
    private int bytes;
    private int command;
    private long address;
    private byte last;
    private final byte[] page = new byte[PAGE];
    private int written;

    /**
     * @param memory what it holds, which reads of the memory range see as well
     * @param changed told when that has changed
     */
    public FlashChip(Memory memory, long sizeBytes, Runnable changed) {
        this.changed = changed;
        this.memory = memory;
        this.sizeBytes = sizeBytes;
    }

    /** Brings it out of whatever it was at, as the controller does after a reset; four lines are enabled or not. */
    public void reset(boolean fourLines) {
        selected = false;
        enabled = false;
        quad = fourLines;
        bytes = 0;
    }

    /**
     * Selects it or not.
     *
     * @param seconds time of the board
     */
    public void select(boolean on, double seconds) {
        settle(seconds);
        if (selected && !on) {
            act(seconds);
        }
        if (on && !selected) {
            bytes = 0;
            written = 0;
        }
        selected = on;
    }

    private void settle(double seconds) {
        if (busy && seconds >= until) {
            busy = false;
            enabled = false;
        }
    }

    /** A byte each way; what the chip does not drive is low. */
    public int exchange(int out, double seconds) {
        if (!selected) {
            return 0;
        }
        settle(seconds);
        int in = bytes == 0 ? 0 : gives();
        take(out);
        return in;
    }

    private int addressBytes() {
        return switch (command) {
            case 0x03, 0x0B, 0x02, 0x20, 0xD8 -> 3;
            case 0x13, 0x0C, 0x12, 0x21, 0xDC -> 4;
            default -> 0;
        };
    }

    private int gives() {
        int at = bytes - 1 - addressBytes();
        return switch (command) {
            case 0x9F -> IDENTITY >> 16 - 8 * (at % 3) & 0xFF;
            case 0x05 -> (enabled ? 2 : 0) | (busy ? 1 : 0);
            case 0x35 -> quad ? 2 : 0;
            case 0x03, 0x13 -> at < 0 ? 0 : read(at);
            case 0x0B, 0x0C -> at < 1 ? 0 : read(at - 1);
            default -> 0;
        };
    }

    private int read(int at) {
        byte[] one = new byte[1];
        memory.read((address + at) % sizeBytes, one);
        return busy ? 0 : one[0] & 0xFF;
    }

    private void take(int out) {
        if (bytes == 0) {
            command = out;
            address = 0;
        } else if (bytes <= addressBytes()) {
            address = (address << 8 | out) % sizeBytes;
        } else {
            last = (byte) out;
            if (command == 0x02 || command == 0x12) {
                // Behind the end of a page it goes on at its beginning.
                page[(int) (address + written) % PAGE] = last;
                written++;
            }
        }
        bytes++;
    }

    /** What a command does, it does when the chip is no longer selected. */
    private void act(double seconds) {
        if (bytes == 0 || busy) {
            return;
        }
        boolean isWhole = bytes == 1 + addressBytes();
        switch (command) {
            case 0x06, 0x50 -> enabled |= isWhole;
            case 0x04 -> enabled &= !isWhole;
            case 0x31 -> {
                if (bytes == 2) {
                    quad = enabled ? (last & 2) != 0 : quad;
                    enabled = false;
                }
            }
            case 0x02, 0x12 -> {
                if (enabled && written > 0) {
                    program();
                    begin(seconds + PAGE_SECONDS);
                }
            }
            case 0x20, 0x21 -> erase(isWhole, SMALL, seconds);
            case 0xD8, 0xDC -> erase(isWhole, LARGE, seconds);
            case 0xC7 -> {
                address = 0;
                erase(isWhole, sizeBytes, seconds);
            }
            default -> {}
        }
    }

    private void begin(double end) {
        changed.run();
        busy = true;
        until = end;
    }

    /** Ones become zeros, never the other way round. */
    private void program() {
        long base = address & -PAGE;
        byte[] there = new byte[PAGE];
        memory.read(base, there);
        for (int at = 0; at < Math.min(written, PAGE); at++) {
            int place = (int) (address + at) % PAGE;
            there[place] &= page[place];
        }
        memory.load(base, there);
    }

    private void erase(boolean isWhole, long size, double seconds) {
        if (!enabled || !isWhole) {
            return;
        }
        byte[] ones = new byte[(int) Math.min(size, LARGE)];
        Arrays.fill(ones, (byte) 0xFF);
        long first = address & -size;
        for (long at = first; at < first + size; at += ones.length) {
            memory.load(at, ones);
        }
        begin(seconds + ERASE_SECONDS);
    }
}
