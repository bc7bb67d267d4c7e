package polymetron.bench.hart;

import java.lang.invoke.MethodHandles;
import java.lang.invoke.VarHandle;
import java.nio.ByteOrder;
import java.util.Arrays;
import java.util.BitSet;
import java.util.List;

/** A memory on the bus, with the decoded form of the instructions in it. */
public final class Ram implements Memory {
    /** Bits of an offset within one entry of {@link #guard}: 64 bytes. */
    static final int GRANULE = 6;

    private static final VarHandle WORD =
            MethodHandles.byteArrayViewVarHandle(int[].class, ByteOrder.LITTLE_ENDIAN);
    private static final VarHandle HALF =
            MethodHandles.byteArrayViewVarHandle(short[].class, ByteOrder.LITTLE_ENDIAN);

    final byte[] bytes;
    final boolean writable;

    /**
     * Two ints for each address that an instruction may have, see {@link Decoder}; 0 where nothing is decoded yet. An int
     * for each byte, so it is there only where something is executed.
     */
    int[] decoded = {};

    /** Not 0 for 64 bytes that hold decoded instructions, or that cannot be written: a store must look closer. */
    final byte[] guard;

    private final byte blank;
    private final MemoryShare share;

    /** Bytes that something was put into since power-up; null where it is not kept. */
    private BitSet written;

    public Ram(int sizeBytes, boolean writable) {
        this(sizeBytes, writable, (byte) 0, MemoryShare.ample());
    }

    /**
     * @param blank what a byte is before anything is written
     * @param share what it is taken from
     * @throws MemoryExhausted when it cannot be had
     */
    public Ram(int sizeBytes, boolean writable, byte blank, MemoryShare share) {
        share.take(sizeBytes + (sizeBytes >> GRANULE));
        this.share = share;
        this.blank = blank;
        this.bytes = new byte[sizeBytes];
        this.guard = new byte[(sizeBytes + (1 << GRANULE) - 1) >> GRANULE];
        this.writable = writable;
        clear();
    }

    @Override
    public void read(long offset, byte[] into) {
        System.arraycopy(bytes, (int) offset, into, 0, into.length);
    }

    @Override
    public void load(long offset, byte[] contents) {
        load(Math.toIntExact(offset), contents, 0, contents.length);
    }

    void load(int offset, byte[] contents, int from, int count) {
        System.arraycopy(contents, from, bytes, offset, count);
        markWritten(offset, count);
        forgetInstructions();
    }

    @Override
    public List<BusMap.Entry> at(int base, int last, AccessCycles cycles) {
        return List.of(new BusMap.Entry(base, last, this, cycles));
    }

    @Override
    public void clear() {
        Arrays.fill(bytes, blank);
        if (written != null) {
            written.clear();
        }
        forgetInstructions();
    }

    private void forgetInstructions() {
        Arrays.fill(decoded, 0);
        Arrays.fill(guard, (byte) (writable ? 0 : 1));
    }

    @Override
    public void keepMarks() {
        written = new BitSet();
    }

    /** Notes that something was put into bytes, where that is kept. */
    public void markWritten(int offset, int count) {
        if (written != null) {
            written.set(offset, offset + count);
        }
    }

    /** Whether all of some bytes were written, or the memory has its contents from the beginning. */
    public boolean wasWritten(int offset, int count) {
        return written == null || !writable || written.nextClearBit(offset) >= offset + count;
    }

    /** Whether an instruction that was executed begins in the word at an offset. */
    public boolean holdsInstructions(int offset) {
        int word = offset & ~3;
        return word + 2 < decoded.length && (decoded[word] != 0 || decoded[word + 2] != 0);
    }

    void prepareToExecute() {
        if (decoded.length < bytes.length) {
            share.take(4L * bytes.length);
            decoded = new int[bytes.length];
        }
    }

    /** The 32-bit word at a multiple of 4. */
    public int word(int offset) {
        return loadWord(bytes, offset);
    }

    /** The 16 bits at a multiple of 2, with their sign. */
    int half(int offset) {
        return loadHalf(bytes, offset);
    }

    public int size() {
        return bytes.length;
    }

    void decode(int offset, int operation, int immediate) {
        decoded[offset] = operation;
        decoded[offset + 1] = immediate;
        guard[offset >>> GRANULE] = 1;
        guard[Math.min(offset + 2, bytes.length - 1) >>> GRANULE] = 1;
    }

    /** A store over instructions: one of them may begin two bytes earlier. */
    void stored(int offset, int size) {
        int last = Math.min(offset + size, decoded.length);
        for (int at = Math.max(0, (offset & ~3) - 2); at < last; at += 2) {
            decoded[at] = 0;
        }
    }

    static int loadWord(byte[] bytes, int offset) {
        return (int) WORD.get(bytes, offset);
    }

    static int loadHalf(byte[] bytes, int offset) {
        return (short) HALF.get(bytes, offset);
    }

    static void storeWord(byte[] bytes, int offset, int value) {
        WORD.set(bytes, offset, value);
    }

    static void storeHalf(byte[] bytes, int offset, int value) {
        HALF.set(bytes, offset, (short) value);
    }

    static void storeByte(byte[] bytes, int offset, int value) {
        bytes[offset] = (byte) value;
    }
}
