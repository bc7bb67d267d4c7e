package polymetron.fit;

import polymetron.library.Device;

/**
 * One memory block of the device, or half of one where blocks split, with what part of a memory is in it.
 *
 * @param shape depth and width that it is set to
 * @param firstWord first word of the memory that is in it
 * @param words words that are used
 * @param firstBit lowest bit of a word that is in it
 * @param bits bits of a word that are used
 */
public record Tile(Device.Shape shape, long firstWord, long words, int firstBit, int bits) {
    public long usedBits() {
        return words * bits;
    }
}
