package polymetron.fit;

import polymetron.elaborate.SizedMemory;

/**
 * Where a memory of a block goes on the device.
 *
 * @param block name of the block
 * @param place what it is made of
 * @param units memory blocks, or halves where blocks split
 * @param lookupTables lookup tables, where it is made of those
 * @param doubled units that twice as many words would need; 0 where there are no memory blocks
 */
public record MemoryUse(
        String block,
        SizedMemory memory,
        Place place,
        long units,
        long lookupTables,
        long doubled) {

    /** What a memory is made of. */
    public enum Place {
        BLOCKS("memory blocks"),
        DISTRIBUTED("lookup tables"),
        NOWHERE("nothing on this device");

        private final String word;

        Place(String word) {
            this.word = word;
        }

        @Override
        public String toString() {
            return word;
        }
    }

    /** Block and memory, as {@code code.words}. */
    public String label() {
        return block + "." + memory.name();
    }
}
