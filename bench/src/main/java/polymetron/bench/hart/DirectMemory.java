package polymetron.bench.hart;

import java.util.function.ObjIntConsumer;

/** The memories that an initiator without instructions finds at its addresses, word by word. */
public final class DirectMemory {
    private final BusMap map;
    private final ObjIntConsumer<Ram> stored;
    private Watch watch;

    /** Told of what is read and written, before it is. */
    public interface Watch {
        /**
         * @param address where the initiator sees it
         */
        void accessed(Ram memory, int offset, int size, boolean stores, int address);
    }

    /**
     * @param stored told of each store: the memory and the offset within it
     */
    public DirectMemory(BusMap map, ObjIntConsumer<Ram> stored) {
        this.map = map;
        this.stored = stored;
    }

    /** Tells of each access from now on. */
    public void watch(Watch told) {
        watch = told;
    }

    /** What an access to an address takes. */
    public AccessCycles cycles(int address) {
        return map.cycles(map.indexOf(address));
    }

    /**
     * Reads as many bytes as there is room for.
     *
     * @param address a multiple of that
     * @return whether there is memory
     */
    public boolean read(int address, byte[] into) {
        int at = map.indexOf(address);
        if (at < 0 || !(map.target(at) instanceof Ram ram)) {
            return false;
        }
        int offset = address - map.base(at);
        if (!reaches(ram, offset, into.length)) {
            return false;
        }
        if (watch != null) {
            watch.accessed(ram, offset, into.length, false, address);
        }
        System.arraycopy(ram.bytes, offset, into, 0, into.length);
        return true;
    }

    /** Whether a wide word ends within the memory. */
    private static boolean reaches(Ram ram, int offset, int length) {
        return offset <= ram.bytes.length - length;
    }

    /**
     * Writes those bytes of a word that are enabled.
     *
     * @param address a multiple of their number
     * @param enabled which of them; null for all
     * @return whether there is memory that can be written
     */
    public boolean write(int address, byte[] bytes, boolean[] enabled) {
        int at = map.indexOf(address);
        if (at < 0 || !(map.target(at) instanceof Ram ram) || !ram.writable) {
            return false;
        }
        int offset = address - map.base(at);
        if (!reaches(ram, offset, bytes.length)) {
            return false;
        }
        if (watch != null) {
            watch.accessed(ram, offset, bytes.length, true, address);
        }
        for (int lane = 0; lane < bytes.length; lane++) {
            if (enabled == null || enabled[lane]) {
                ram.bytes[offset + lane] = bytes[lane];
            }
        }
        for (int word = 0; word < bytes.length; word += Integer.BYTES) {
            stored.accept(ram, offset + word);
        }
        return true;
    }
}
