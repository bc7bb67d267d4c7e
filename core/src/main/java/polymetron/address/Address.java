package polymetron.address;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonValue;
import java.math.BigInteger;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * A byte address: 64 bits, unsigned. All address arithmetic of the product is here and in {@link AddressRange}.
 *
 * @param bits the address as an unsigned 64-bit number
 */
public record Address(long bits) implements Comparable<Address> {
    private static final Pattern QUANTITY =
            Pattern.compile(
                    "(0x[0-9a-f_]+|0b[01_]+|[0-9][0-9_]*)\\s*(?:([kmgt])(?:i?b)?|b|bytes?)?");
    private static final BigInteger LIMIT = BigInteger.ONE.shiftLeft(64);

    private static final Pattern BARE_HEXADECIMAL = Pattern.compile("[0-9a-fA-F_]*[0-9a-fA-F]");

    /**
     * Reads an address or a size: hexadecimal ({@code 0x1000_0000}, {@code 32'h1000_0000}), binary ({@code 0b1010}) or decimal,
     * with an optional binary multiple ({@code 64K}, {@code 64 KiB}, {@code 1G}), or a sum of these ({@code 256 MiB + 36 KiB}).
     *
     * @throws IllegalArgumentException when the text is no such number, is negative, or needs more than 64 bits
     */
    @JsonCreator(mode = JsonCreator.Mode.DELEGATING)
    public static Address parse(String text) {
        BigInteger value =
                quantity(text)
                        .or(() -> AddressSum.of(text.strip()))
                        .orElseThrow(() -> new IllegalArgumentException(unread(text.strip())));
        if (value.signum() < 0) {
            throw new IllegalArgumentException(
                    "%s is below 0, where no address is".formatted(text.strip()));
        }
        if (value.compareTo(LIMIT) >= 0) {
            throw new IllegalArgumentException(
                    "%s needs %s bits; an address has at most 64"
                            .formatted(text.strip(), value.bitLength()));
        }
        return new Address(value.longValue());
    }

    private static String unread(String text) {
        boolean isBare = BARE_HEXADECIMAL.matcher(text).matches();
        return isBare && text.replace("_", "").length() <= 16
                ? "'%s' is not an address; if it is hexadecimal, write %s"
                        .formatted(text, format(Long.parseUnsignedLong(text.replace("_", ""), 16)))
                : "'%s' is not an address; write for example 0x1000_0000, 4096, 64K or 256 MiB + 36 KiB"
                        .formatted(text);
    }

    /** The number that a text such as {@code 0x40}, {@code 64K} or {@code 64 KiB} stands for, if it is one. */
    public static Optional<BigInteger> quantity(String text) {
        Matcher match = QUANTITY.matcher(text.strip().toLowerCase(Locale.ROOT));
        if (!match.matches()) {
            return Optional.empty();
        }
        String digits = match.group(1).replace("_", "");
        boolean hexadecimal = digits.startsWith("0x");
        boolean binary = digits.startsWith("0b");
        String significant = hexadecimal || binary ? digits.substring(2) : digits;
        if (significant.isEmpty()) {
            return Optional.empty();
        }
        BigInteger value = new BigInteger(significant, hexadecimal ? 16 : binary ? 2 : 10);
        int power = match.group(2) == null ? 0 : 1 + "kmgt".indexOf(match.group(2));
        return Optional.of(value.shiftLeft(10 * power));
    }

    /** The address in groups of four hexadecimal digits, at least eight digits: {@code 0x1000_2004}. */
    public static String format(long bits) {
        String digits = "%08x".formatted(bits).toUpperCase(Locale.ROOT);
        int first = (digits.length() - 1) % 4 + 1;
        StringBuilder grouped = new StringBuilder("0x").append(digits, 0, first);
        for (int at = first; at < digits.length(); at += 4) {
            grouped.append('_').append(digits, at, at + 4);
        }
        return grouped.toString();
    }

    /** A size with the largest binary multiple that leaves it whole: {@code 32 KiB}, {@code 29712 B}. */
    public static String formatSize(long bytes) {
        String[] units = {"B", "KiB", "MiB", "GiB", "TiB", "PiB", "EiB"};
        int unit = 0;
        long amount = bytes;
        while (unit < units.length - 1 && amount != 0 && (amount & 1023) == 0) {
            amount >>>= 10;
            unit++;
        }
        return Long.toUnsignedString(amount) + " " + units[unit];
    }

    /** Rounds up to a multiple of a power of two; empty when that passes the top of 64 bits. */
    public static Optional<Address> alignUp(long bits, long powerOfTwo) {
        long aligned = (bits + powerOfTwo - 1) & -powerOfTwo;
        return Long.compareUnsigned(aligned, bits) < 0
                ? Optional.empty()
                : Optional.of(new Address(aligned));
    }

    /** The smallest power of two that is not below the size; sizes above 2^63 give 2^63. */
    public static long powerOfTwoAtLeast(long size) {
        if (size < 0) {
            return Long.MIN_VALUE;
        }
        long highest = Long.highestOneBit(Math.max(size, 1));
        return highest == size || size == 0 ? highest : highest << 1;
    }

    @Override
    public int compareTo(Address other) {
        return Long.compareUnsigned(bits, other.bits);
    }

    @JsonValue
    @Override
    public String toString() {
        return format(bits);
    }
}
