package polymetron.handoff;

import java.util.Locale;

/** Pieces of C text. */
final class CText {
    private CText() {}

    /** A platform's title made safe for a comment or a string. */
    static String safe(String title) {
        return title.replace("\\", "/")
                .replace("\"", "'")
                .replace("*/", "* /")
                .replace("/*", "/ *")
                .replace("??", "? ?");
    }

    static String macro(String name) {
        return name.toUpperCase(Locale.ROOT);
    }

    /** An unsigned constant that is right in C and in assembly. */
    static String constant(long value) {
        boolean wide = Long.compareUnsigned(value, 0xFFFF_FFFFL) > 0;
        return (wide ? "PLATFORM_ULL(0x%X)" : "PLATFORM_U(0x%08X)").formatted(value);
    }
}
