package polymetron.bench.block;

import polymetron.bench.hart.AccessCycles;
import polymetron.bench.hart.DirectMemory;

/**
 * The accesses of an initiator, one after the other, each as long as its way takes. Those of a burst follow each other sooner, and
 * whether its writes have gone wrong is known with the last of them ({@code polymetron_axi4_burst_initiator}).
 */
public final class MemoryAccess {
    private DirectMemory memory;
    private int left;
    private int answer;
    private boolean writes;

    /** Whether the access is one behind the first of a burst, and whether one of the burst was refused. */
    private boolean follows;

    private boolean refused;
    private boolean failed;
    private byte[] read = {};

    public void connect(DirectMemory connected) {
        memory = connected;
    }

    /**
     * An edge at which a read is requested.
     *
     * @param more accesses that follow it in its burst
     * @return whether it is done at this edge
     */
    public boolean read(int address, int bytes, int more) {
        begin(address, false, more);
        if (left > 0) {
            return false;
        }
        read = new byte[bytes];
        failed = memory == null || !memory.read(address, read);
        follows = more > 0;
        return true;
    }

    /** The same of a write. */
    public boolean write(int address, byte[] bytes, boolean[] enabled, int more) {
        begin(address, true, more);
        if (left == answer) {
            refused |= memory == null || !memory.write(address, bytes, enabled);
        }
        if (left > 0) {
            return false;
        }
        follows = more > 0;
        failed = refused && !follows;
        refused &= follows;
        return true;
    }

    private void begin(int address, boolean isWrite, int more) {
        if (left == 0) {
            AccessCycles cycles = memory == null ? AccessCycles.NONE : memory.cycles(address);
            int responds = more == 0 ? cycles.responded() : 0;
            int one =
                    !isWrite
                            ? follows ? cycles.nextRead() : cycles.read()
                            : follows
                                    ? cycles.nextWrite() + responds
                                    : cycles.write() - cycles.responded() + responds;
            left = Math.max(1, one);
            int after = cycles.answer() - (isWrite ? cycles.responded() - responds : 0);
            answer = Math.min(after, left - 1);
            writes = isWrite;
        }
        left--;
    }

    /** Whether the access that is done was answered with an error. */
    public boolean hasFailed() {
        return failed;
    }

    /** What was read. */
    public byte[] answer() {
        return read;
    }

    public boolean isUnderWay() {
        return left > 0;
    }

    /** For how many edges nothing happens but waiting, while an access is under way. */
    public long quietFor() {
        return writes && left > answer ? left - answer - 1 : left - 1;
    }

    public void skip(long edges) {
        left -= (int) Math.min(left, edges);
    }

    public void clear() {
        left = 0;
        failed = false;
        follows = false;
        refused = false;
    }
}
