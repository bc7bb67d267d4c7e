package polymetron.bench.hart;

/** Told of what a hart does in memory, before it is done; a hart with one is interpreted only. */
public interface MemoryWatch {
    /**
     * A load or store of 1, 2 or 4 bytes at an aligned offset.
     *
     * @param address where the hart sees it
     * @param pc address of the instruction
     */
    void accessed(Ram memory, int offset, int size, boolean stores, int address, int pc);

    /** A load took from the hart's cache what is something else in memory by now. */
    void stale(int address, int pc);

    /** A FENCE or FENCE.I: what was stored before is there for others. */
    void fenced();
}
