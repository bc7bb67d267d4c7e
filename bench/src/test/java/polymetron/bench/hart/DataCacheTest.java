package polymetron.bench.hart;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Random;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** A cache beside what it promises: a line is what memory was when it was fetched, with the hart's own stores since. */
final class DataCacheTest {
    private static final int BASE = 0x4000_0000;
    private static final int SIZE = 4096;

    @ParameterizedTest
    @CsvSource({"256,16,1", "256,16,4", "1024,64,2", "256,32,1"})
    void readsWhatWasFetchedAndItsOwnStores(int bytes, int line, int ways) {
        Random random = new Random(bytes + ways);
        Ram ram = new Ram(SIZE, true);
        byte[] expected = new byte[SIZE];
        boolean[] kept = new boolean[SIZE / line];
        DataCache cache = new DataCache(bytes, line, ways);
        int stale = 0;
        int most = 0;
        for (int step = 0; step < 20_000; step++) {
            int offset = random.nextInt(SIZE / 4 / 8) * 4 * (1 + random.nextInt(8));
            int at = offset / line;
            switch (random.nextInt(12)) {
                case 0 -> {
                    // Another initiator stores.
                    Ram.storeWord(ram.bytes, offset, random.nextInt());
                }
                case 1, 2 -> {
                    Ram.storeWord(ram.bytes, offset, step);
                    cache.stored(ram, BASE, BASE + offset, 4);
                    Ram.storeWord(expected, offset, step);
                }
                case 3 -> {
                    if (random.nextInt(20) == 0) {
                        cache.clear();
                        java.util.Arrays.fill(kept, false);
                    }
                }
                default -> {
                    int place = cache.find(BASE + offset);
                    if (place < 0) {
                        place = cache.fill(ram, BASE, BASE + offset);
                        System.arraycopy(ram.bytes, at * line, expected, at * line, line);
                        kept[at] = true;
                    } else {
                        assertThat(kept[at]).isTrue();
                    }
                    assertThat(Ram.loadWord(cache.bytes(), place))
                            .isEqualTo(Ram.loadWord(expected, offset));
                    stale +=
                            Ram.loadWord(cache.bytes(), place) == Ram.loadWord(ram.bytes, offset)
                                    ? 0
                                    : 1;
                }
            }
            int lines = 0;
            for (int each = 0; each < SIZE / line; each++) {
                lines += cache.find(BASE + each * line) >= 0 ? 1 : 0;
            }
            most = Math.max(most, lines);
            assertThat(lines).isLessThanOrEqualTo(bytes / line);
        }
        assertThat(most).isEqualTo(bytes / line);
        assertThat(stale).isPositive();
        // A line that is not whole is not kept.
        Ram odd = new Ram(line + 4, true);
        assertThat(cache.fill(odd, BASE, BASE + line)).isNegative();
    }
}
