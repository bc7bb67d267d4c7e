package polymetron.bench.block;

import polymetron.bench.hart.AccessCycles;
import polymetron.bench.hart.DirectMemory;

/** The accesses of an initiator, one after the other, each as long as its way takes. */
final class MemoryAccess {
    private DirectMemory memory;
    private int left;
    private int answer;
    private boolean writes;
    private boolean failed;
    private byte[] read = {};

    void connect(DirectMemory connected) {
        memory = connected;
    }

    /**
     * An edge at which a read is requested.
     *
     * @return whether it is done at this edge
     */
    boolean read(int address, int bytes) {
        begin(address, false);
        if (left > 0) {
            return false;
        }
        read = new byte[bytes];
        failed = memory == null || !memory.read(address, read);
        return true;
    }

    /** The same of a write. */
    boolean write(int address, byte[] bytes, boolean[] enabled) {
        begin(address, true);
        if (left == answer) {
            failed = memory == null || !memory.write(address, bytes, enabled);
        }
        return left == 0;
    }

    private void begin(int address, boolean isWrite) {
        if (left == 0) {
            AccessCycles cycles = memory == null ? AccessCycles.NONE : memory.cycles(address);
            left = Math.max(1, isWrite ? cycles.write() : cycles.read());
            answer = Math.min(cycles.answer(), left - 1);
            writes = isWrite;
        }
        left--;
    }

    /** Whether the access that is done was answered with an error. */
    boolean hasFailed() {
        return failed;
    }

    /** What was read. */
    byte[] answer() {
        return read;
    }

    boolean isUnderWay() {
        return left > 0;
    }

    /** For how many edges nothing happens but waiting, while an access is under way. */
    long quietFor() {
        return writes && left > answer ? left - answer - 1 : left - 1;
    }

    void skip(long edges) {
        left -= (int) Math.min(left, edges);
    }

    void clear() {
        left = 0;
        failed = false;
    }
}
