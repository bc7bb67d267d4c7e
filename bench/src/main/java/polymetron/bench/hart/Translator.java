package polymetron.bench.hart;

import java.util.Arrays;
import java.util.BitSet;

/**
 * Keeps the translations of the memory that instructions come from. An address that is jumped to often enough is
 * translated together with what can be reached from it by plain jumps.
 */
final class Translator {
    private static final int HOT = 40;
    private static final int MOST_REGIONS = 4096;

    private Ram ram;
    private Translation[] regions = {};
    private byte[] heat = {};
    private final BitSet translated = new BitSet();
    private int count;

    /**
     * The translation that begins at an address, or null as long as there is none.
     *
     * @param fetchCycles cycles to fetch an instruction from that memory
     * @param cost cycles of each operation beside that
     * @param jumped whether a jump led here. Where a run merely stopped for a while is no place for a translation:
     *     there would be one for every instruction in the end.
     */
    Translation at(
            Ram code,
            int codeBase,
            int pc,
            boolean multiplies,
            int fetchCycles,
            int[] cost,
            boolean jumped) {
        if (code != ram) {
            start(code);
        }
        int index = pc - codeBase >>> 2;
        Translation found = regions[index];
        if (found == null && jumped && heat[index] >= 0 && ++heat[index] >= HOT) {
            found = translate(code, codeBase, pc - codeBase, multiplies, fetchCycles, cost);
            regions[index] = found;
            // Where there is nothing to translate, do not try again.
            heat[index] = -1;
        }
        return found;
    }

    private Translation translate(
            Ram code, int codeBase, int offset, boolean multiplies, int fetchCycles, int[] cost) {
        if (count >= MOST_REGIONS) {
            start(code);
        }
        Region region =
                new RegionWriter(code, codeBase, offset, multiplies, fetchCycles, cost, translated)
                        .write();
        if (region == null) {
            return null;
        }
        count++;
        return new Translation(region);
    }

    private void start(Ram code) {
        ram = code;
        regions = new Translation[code.bytes.length / 4];
        heat = new byte[code.bytes.length / 4];
        translated.clear();
        count = 0;
    }

    /** A word that may hold an instruction was changed. */
    void stored(Ram changed, int offset) {
        if (changed == ram && translated.get(offset >>> 2)) {
            forget();
        }
    }

    void forget() {
        if (count > 0) {
            Arrays.fill(regions, null);
            Arrays.fill(heat, (byte) 0);
            translated.clear();
            count = 0;
        }
    }
}
