package polymetron.library;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonValue;
import java.util.Comparator;
import java.util.regex.Pattern;

/** Identity of a library entry: vendor, library, name and version (IEEE 1685-2022, 6.4), joined by colons. */
public record Vlnv(String vendor, String library, String name, String version)
        implements Comparable<Vlnv> {
    /** The vendor of the blocks that come with Polymetron. */
    public static final String OURS = "polymetron";

    /** Lower versions first; the same version in the order of names. */
    public static final Comparator<Vlnv> BY_VERSION =
            ((Comparator<Vlnv>) Vlnv::compareVersions).thenComparing(Vlnv::compareTo);

    private static final Pattern PART = Pattern.compile("[A-Za-z0-9][A-Za-z0-9._-]{0,63}");

    public Vlnv {
        for (String part : new String[] {vendor, library, name, version}) {
            if (part == null || !PART.matcher(part).matches()) {
                throw new IllegalArgumentException(
                        "'%s' is not a part of an identity; letters, digits, '.', '-' and '_' are"
                                .formatted(part));
            }
        }
    }

    /**
     * @throws IllegalArgumentException when the text is not of the form vendor:library:name:version
     */
    @JsonCreator(mode = JsonCreator.Mode.DELEGATING)
    public static Vlnv parse(String text) {
        String[] parts = text.split(":", -1);
        if (parts.length != 4) {
            throw new IllegalArgumentException(
                    "'%s' is not an identity; write vendor:library:name:version".formatted(text));
        }
        return new Vlnv(parts[0], parts[1], parts[2], parts[3]);
    }

    /** Whether it is the same entry in any version. */
    public boolean isVersionOf(Vlnv other) {
        return vendor.equals(other.vendor)
                && library.equals(other.library)
                && name.equals(other.name);
    }

    /** Numbers of the versions one by one as numbers: 1.10 comes after 1.9. */
    private static int compareVersions(Vlnv one, Vlnv other) {
        String[] left = one.version.split("[._-]");
        String[] right = other.version.split("[._-]");
        for (int at = 0; at < Math.min(left.length, right.length); at++) {
            boolean numbers = left[at].matches("[0-9]{1,9}") && right[at].matches("[0-9]{1,9}");
            int order =
                    numbers
                            ? Integer.compare(
                                    Integer.parseInt(left[at]), Integer.parseInt(right[at]))
                            : left[at].compareTo(right[at]);
            if (order != 0) {
                return order;
            }
        }
        return Integer.compare(left.length, right.length);
    }

    @Override
    public int compareTo(Vlnv other) {
        return toString().compareTo(other.toString());
    }

    @JsonValue
    @Override
    public String toString() {
        return vendor + ":" + library + ":" + name + ":" + version;
    }
}
