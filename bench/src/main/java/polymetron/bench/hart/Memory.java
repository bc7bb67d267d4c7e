package polymetron.bench.hart;

import java.util.List;

/** A memory of the board, which may be seen at several addresses. */
public sealed interface Memory permits Ram, PagedRam {
    /** What a bus finds when the memory begins at an address. */
    List<BusMap.Entry> at(int base, int last, AccessCycles cycles);

    /** Puts bytes in from outside, as a bitstream or a loader would. */
    void load(long offset, byte[] contents);

    /** The bytes at an offset, as many as there is room for. */
    void read(long offset, byte[] into);

    /** Keeps from now on what was written; nothing so far. */
    void keepMarks();

    /** Sets every byte to what it is before anything is written: 0, or ones in a flash. */
    void clear();
}
