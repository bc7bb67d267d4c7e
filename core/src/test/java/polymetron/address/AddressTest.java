package polymetron.address;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.math.BigInteger;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import net.jqwik.api.constraints.Size;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

final class AddressTest {
    @ParameterizedTest
    @CsvSource({
        "0x1000_2004, 0x1000_2004",
        "4096, 0x0000_1000",
        "64K, 0x0001_0000",
        "64 KiB, 0x0001_0000",
        "1G, 0x4000_0000",
        "0b1010, 0x0000_000A",
        "0xFFFF_FFFF_FFFF_FFFF, 0xFFFF_FFFF_FFFF_FFFF",
        "0x1_0000_0000, 0x1_0000_0000",
        "256 MiB + 36 KiB, 0x1000_9000",
        "0x1000_0000 + 3 * 4K, 0x1000_3000",
        "2 * 4K - 0x10, 0x0000_1FF0",
        "1 GiB − 64K, 0x3FFF_0000",
        "32'h1000_0000, 0x1000_0000",
        "'h10 + 8'sd4, 0x0000_0014",
    })
    void isReadInAnyNotation(String text, String shown) {
        assertThat(Address.parse(text)).hasToString(shown);
    }

    @Property
    void isReadAsItIsWritten(@ForAll long bits) {
        assertThat(Address.parse(Address.format(bits))).isEqualTo(new Address(bits));
    }

    @Test
    void hasAtMost64Bits() {
        assertThatThrownBy(() -> Address.parse("0x1_0000_0000_0000_0000"))
                .hasMessageContaining("needs 65 bits");
        for (String text : List.of("", "0x", "12x", "- 1", "1.5", "0x10z")) {
            assertThatThrownBy(() -> Address.parse(text)).hasMessageContaining("not an address");
        }
        for (String text : List.of("4'h10", "8'b2", "1 +", "+ 1", "1 ++ 1", "2 ** 3", "(1)")) {
            assertThatThrownBy(() -> Address.parse(text)).hasMessageContaining("not an address");
        }
        assertThatThrownBy(() -> Address.parse("4K - 8K")).hasMessageContaining("below 0");
        assertThatThrownBy(() -> Address.parse("1000F000"))
                .hasMessageContaining("if it is hexadecimal, write 0x1000_F000");
    }

    /** A sum is what the numbers come to, written in any way. */
    @Property
    void sumsAreExact(@ForAll int one, @ForAll int other, @ForAll @IntRange(max = 99) int times) {
        long first = Integer.toUnsignedLong(one);
        long second = Integer.toUnsignedLong(other);
        assertThat(
                        Address.parse(
                                "%s + %d*%d - 32'h%x"
                                        .formatted(
                                                Address.format(first + second),
                                                times,
                                                first,
                                                second)))
                .isEqualTo(new Address(first + times * first));
    }

    @ParameterizedTest
    @CsvSource({"32768, 32 KiB", "29712, 29712 B", "0, 0 B", "1073741824, 1 GiB"})
    void writesSizesWithTheLargestWholeUnit(long bytes, String text) {
        assertThat(Address.formatSize(bytes)).isEqualTo(text);
    }

    /** Check value of the trade (common practice, no source). */
    @Test
    void memoriesOneBehindTheOther() {
        AddressRange first = AddressRange.of(0, 16 * 1024);
        AddressRange second = AddressRange.of(first.last() + 1, 2 * 1024);
        AddressRange third = AddressRange.of(second.last() + 1, 1024);
        assertThat(first).hasToString("0x0000_0000–0x0000_3FFF");
        assertThat(second).hasToString("0x0000_4000–0x0000_47FF");
        assertThat(third).hasToString("0x0000_4800–0x0000_4BFF");
    }

    @Property
    void rangesStopAtTheTopOfTheSpace(@ForAll long base, @ForAll long size) {
        if (size == 0) {
            return;
        }
        BigInteger top = BigInteger.ONE.shiftLeft(64).subtract(BigInteger.ONE);
        BigInteger last = unsigned(base).add(unsigned(size)).subtract(BigInteger.ONE).min(top);
        AddressRange range = AddressRange.of(base, size);
        assertThat(unsigned(range.last())).isEqualTo(last);
        assertThat(range.contains(base)).isTrue();
        assertThat(range.contains(range.last())).isTrue();
        assertThat(range.contains(base - 1)).isEqualTo(range.base() == 0 && range.last() == -1L);
    }

    private static BigInteger unsigned(long bits) {
        return new BigInteger(Long.toUnsignedString(bits));
    }

    /** Against brute force over a space of 256 addresses. */
    @Property
    void freeSpaceIsWhatNothingCovers(
            @ForAll @Size(max = 6) List<@IntRange(max = 255) Integer> bases,
            @ForAll @IntRange(min = 1, max = 64) int size,
            @ForAll @IntRange(max = 255) int preferred) {
        List<AddressRange> taken = new ArrayList<>();
        bases.forEach(base -> taken.add(AddressRange.of(base, 1 + base % 40)));
        FreeSpace free = new FreeSpace(AddressRange.ofWidth(8), taken);
        for (int address = 0; address < 256; address++) {
            int at = address;
            assertThat(free.gaps().stream().anyMatch(gap -> gap.contains(at)))
                    .isEqualTo(taken.stream().noneMatch(range -> range.contains(at)));
        }
        assertThat(free.place(size, preferred)).isEqualTo(bruteForce(taken, size, preferred));
    }

    private static Optional<Address> bruteForce(List<AddressRange> taken, int size, int preferred) {
        int alignment = 1;
        while (alignment < size) {
            alignment *= 2;
        }
        for (int from : new int[] {preferred, 0}) {
            for (int base = from; base + size <= 256; base++) {
                AddressRange range = AddressRange.of(base, size);
                if (base % alignment == 0 && taken.stream().noneMatch(range::overlaps)) {
                    return Optional.of(new Address(base));
                }
            }
        }
        return Optional.empty();
    }

    @Test
    void placesUpToTheTopOf64Bits() {
        FreeSpace free =
                new FreeSpace(
                        AddressRange.ofWidth(64), List.of(AddressRange.of(0, Long.MIN_VALUE)));
        assertThat(free.place(Long.MIN_VALUE, 0)).contains(new Address(Long.MIN_VALUE));
        assertThat(free.place(Long.MIN_VALUE + 1, 0)).isEmpty();
    }
}
