package polymetron.decode;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import polymetron.Shipped;
import polymetron.address.AddressRange;
import polymetron.elaborate.ElaboratedPlatform;

/** Address decode against every address of a small bus. */
final class BusDecodeTest {
    private static final int WIDTH = 9;

    /** Ranges that do not overlap, of any size and place. */
    private static List<AddressRange> ranges(Random random) {
        List<AddressRange> ranges = new ArrayList<>();
        for (int count = 1 + random.nextInt(6); count > 0; count--) {
            long size = 1 + random.nextInt(60);
            long base = random.nextInt((1 << WIDTH) - (int) size);
            AddressRange range = AddressRange.of(base, size);
            if (ranges.stream().noneMatch(range::overlaps)) {
                ranges.add(range);
            }
        }
        return ranges;
    }

    @Test
    void everyAddressIsDecodedAsItShould() {
        Random random = new Random(4);
        for (int round = 0; round < 300; round++) {
            List<AddressRange> ranges = ranges(random);
            List<List<Term>> full =
                    ranges.stream().map(range -> Term.covering(range, WIDTH)).toList();
            List<List<Term>> partial = new ArrayList<>();
            for (int at = 0; at < ranges.size(); at++) {
                List<Term> others = new ArrayList<>();
                for (int other = 0; other < ranges.size(); other++) {
                    others.addAll(other == at ? List.of() : full.get(other));
                }
                List<Term> reduced = new ArrayList<>();
                for (Term term : full.get(at)) {
                    Term less = BusDecode.reduce(term, others);
                    reduced.add(less);
                    // Nothing more can be left out.
                    for (long bit = 1; bit < 1 << WIDTH; bit <<= 1) {
                        if ((less.mask() & bit) != 0) {
                            Term shorter = less.without(bit);
                            assertThat(others.stream().anyMatch(shorter::meets)).isTrue();
                        }
                    }
                }
                partial.add(reduced);
            }
            for (long address = 0; address < 1 << WIDTH; address++) {
                for (int at = 0; at < ranges.size(); at++) {
                    long mine = address;
                    boolean owns = ranges.get(at).contains(address);
                    assertThat(full.get(at).stream().anyMatch(term -> term.matches(mine)))
                            .isEqualTo(owns);
                    boolean anybodys = ranges.stream().anyMatch(range -> range.contains(mine));
                    if (anybodys) {
                        assertThat(partial.get(at).stream().anyMatch(term -> term.matches(mine)))
                                .isEqualTo(owns);
                    }
                }
            }
        }
    }

    /** Common practice, no source: 1 KiB at 0x4800 is addressed inside by its ten low bits. */
    @Test
    void aKibibyteIsAddressedByTenBits() {
        List<Term> terms = Term.covering(AddressRange.of(0x4800, 1024), 16);
        assertThat(terms).containsExactly(new Term(0xFC00, 0x4800));
        assertThat(Long.numberOfTrailingZeros(terms.getFirst().mask())).isEqualTo(10);
    }

    @Test
    void theWholeSpaceNeedsNoComparison() {
        assertThat(Term.covering(new AddressRange(0, -1L), 64)).containsExactly(new Term(0, 0));
        assertThat(Term.covering(new AddressRange(-4096L, -1L), 64))
                .containsExactly(new Term(-4096L, -4096L));
    }

    @Test
    void theDemoSavesLogicWithPartialDecoding() {
        ElaboratedPlatform demo = Shipped.elaborate(Shipped.demo());
        BusDecode decode = BusDecode.of(demo.bus("system").orElseThrow());
        assertThat(decode.selects()).hasSize(demo.bus("system").orElseThrow().placed().size());
        for (BusDecode.Select select : decode.selects()) {
            assertThat(select.partialLookupTables()).isLessThanOrEqualTo(select.fullLookupTables());
            assertThat(select.aliases()).isPositive();
        }
        assertThat(decode.selects()).anyMatch(select -> select.aliases() > 1);
    }
}
