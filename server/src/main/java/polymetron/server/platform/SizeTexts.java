package polymetron.server.platform;

import java.util.Locale;
import polymetron.address.AddressRange;

/** Sizes in words. */
final class SizeTexts {
    private SizeTexts() {}

    /** A size for people: gaps are rarely whole multiples, so at most one digit behind the point. */
    static String gap(AddressRange range) {
        double bytes =
                range.sizeBytes() == 0
                        ? Math.pow(2, 64)
                        : range.sizeBytes() >= 0
                                ? range.sizeBytes()
                                : range.sizeBytes() + Math.pow(2, 64);
        String[] units = {"B", "KiB", "MiB", "GiB", "TiB", "PiB", "EiB"};
        int unit = 0;
        while (unit < units.length - 1 && bytes >= 1024) {
            bytes /= 1024;
            unit++;
        }
        String number = String.format(Locale.ROOT, bytes >= 100 ? "%.0f" : "%.1f", bytes);
        return (number.endsWith(".0") ? number.substring(0, number.length() - 2) : number)
                + " "
                + units[unit];
    }
}
