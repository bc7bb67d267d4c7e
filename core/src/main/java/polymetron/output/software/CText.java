package polymetron.output.software;

import java.util.Locale;

/** Pieces of C text. */
final class CText {
    private CText() {}

    /** A name of a platform as part of a macro. */
    static String macro(String name) {
        return name.toUpperCase(Locale.ROOT).replace('.', '_');
    }

    /** An unsigned constant that is right in C and in assembly. */
    static String constant(long value) {
        boolean wide = Long.compareUnsigned(value, 0xFFFF_FFFFL) > 0;
        return (wide ? "PLATFORM_ULL(0x%X)" : "PLATFORM_U(0x%08X)").formatted(value);
    }

    /** The same in decimal. */
    static String number(long value) {
        boolean wide = Long.compareUnsigned(value, 0xFFFF_FFFFL) > 0;
        return (wide ? "PLATFORM_ULL(%s)" : "PLATFORM_U(%s)")
                .formatted(Long.toUnsignedString(value));
    }
}
