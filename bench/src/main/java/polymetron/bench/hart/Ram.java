package polymetron.bench.hart;

import java.lang.invoke.MethodHandles;
import java.lang.invoke.VarHandle;
import java.nio.ByteOrder;
import java.util.Arrays;

/** A memory on the bus, with the decoded form of the instructions in it. */
public final class Ram {
    /** Bits of an offset within one entry of {@link #guard}: 64 bytes. */
    static final int GRANULE = 6;

    private static final VarHandle WORD =
            MethodHandles.byteArrayViewVarHandle(int[].class, ByteOrder.LITTLE_ENDIAN);
    private static final VarHandle HALF =
            MethodHandles.byteArrayViewVarHandle(short[].class, ByteOrder.LITTLE_ENDIAN);

    final byte[] bytes;
    final boolean writable;

    /** Two ints an instruction, see {@link Decoder}; 0 where nothing is decoded yet. */
    final int[] decoded;

    /** Not 0 for 64 bytes that hold decoded instructions, or that cannot be written: a store must look closer. */
    final byte[] guard;

    public Ram(int sizeBytes, boolean writable) {
        this.bytes = new byte[sizeBytes];
        this.decoded = new int[sizeBytes / 4 * 2];
        this.guard = new byte[(sizeBytes + (1 << GRANULE) - 1) >> GRANULE];
        this.writable = writable;
        forgetInstructions();
    }

    /** Puts bytes in from outside, as a bitstream or a loader would. */
    public void load(int offset, byte[] contents) {
        System.arraycopy(contents, 0, bytes, offset, contents.length);
        forgetInstructions();
    }

    public void clear() {
        Arrays.fill(bytes, (byte) 0);
        forgetInstructions();
    }

    private void forgetInstructions() {
        Arrays.fill(decoded, 0);
        Arrays.fill(guard, (byte) (writable ? 0 : 1));
    }

    /** The 32-bit word at a multiple of 4. */
    public int word(int offset) {
        return loadWord(bytes, offset);
    }

    public int size() {
        return bytes.length;
    }

    void decode(int offset, int operation, int immediate) {
        decoded[offset >>> 1] = operation;
        decoded[(offset >>> 1) + 1] = immediate;
        guard[offset >>> GRANULE] = 1;
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
