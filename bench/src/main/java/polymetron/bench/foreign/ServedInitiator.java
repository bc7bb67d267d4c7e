package polymetron.bench.foreign;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.List;
import polymetron.bench.block.MemoryAccess;
import polymetron.bench.hart.DirectMemory;
import polymetron.output.hardware.HarnessInitiator;

/** The memory behind an interface at which a user's block moves data by itself: it does what the block's outputs ask, edge by edge. */
final class ServedInitiator {
    private final HarnessInitiator initiator;
    private final MemoryAccess access = new MemoryAccess();

    ServedInitiator(HarnessInitiator initiator) {
        this.initiator = initiator;
    }

    String name() {
        return initiator.name();
    }

    void connect(DirectMemory memory) {
        access.connect(memory);
    }

    private boolean requests(long[] outputs) {
        return outputs[initiator.request()] != 0;
    }

    /** For how many edges the block only waits; none where an edge has to be done by itself. */
    long quietFor(long[] outputs) {
        if (!requests(outputs)) {
            return Long.MAX_VALUE;
        }
        return access.isUnderWay() ? access.quietFor() : 0;
    }

    /** The block has done so many edges at once; what was due meanwhile is done behind them. */
    void skip(long[] outputs, long edges) {
        if (requests(outputs) && access.isUnderWay()) {
            access.skip(Math.min(edges, access.quietFor()));
        }
    }

    /**
     * An edge.
     *
     * @param set inputs of the cycle before it, each as number and both words of its value; grows by the answer
     * @param cleared numbers of the inputs that are 0 again behind it; grows
     */
    void edge(long[] outputs, List<Integer> set, List<Integer> cleared) {
        if (!requests(outputs)) {
            return;
        }
        int bytes = initiator.dataBits() / Byte.SIZE;
        int address = (int) outputs[initiator.address()] & -bytes;
        boolean isWrite = outputs[initiator.write()] != 0;
        boolean isDone =
                isWrite
                        ? access.write(address, value(outputs, bytes), lanes(outputs, bytes), 0)
                        : access.read(address, bytes, 0);
        if (isDone) {
            set(set, initiator.done(), 1);
            set(set, initiator.error(), access.hasFailed() ? 1 : 0);
            if (!isWrite && !access.hasFailed()) {
                set(set, initiator.answer(), word(access.answer()));
            }
            cleared.addAll(List.of(initiator.done(), initiator.error(), initiator.answer()));
        }
    }

    private static void set(List<Integer> set, int input, long value) {
        set.add(input);
        set.add((int) value);
        set.add((int) (value >>> Integer.SIZE));
    }

    private byte[] value(long[] outputs, int bytes) {
        byte[] all =
                ByteBuffer.allocate(Long.BYTES)
                        .order(ByteOrder.LITTLE_ENDIAN)
                        .putLong(outputs[initiator.value()])
                        .array();
        return java.util.Arrays.copyOf(all, bytes);
    }

    private boolean[] lanes(long[] outputs, int bytes) {
        boolean[] lanes = new boolean[bytes];
        for (int lane = 0; lane < bytes; lane++) {
            lanes[lane] = (outputs[initiator.bytes()] >>> lane & 1) != 0;
        }
        return lanes;
    }

    private static long word(byte[] bytes) {
        return ByteBuffer.wrap(java.util.Arrays.copyOf(bytes, Long.BYTES))
                .order(ByteOrder.LITTLE_ENDIAN)
                .getLong();
    }

    void clear() {
        access.clear();
    }
}
