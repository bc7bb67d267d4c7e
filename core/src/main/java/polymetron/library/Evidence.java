package polymetron.library;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.Collections;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.SortedMap;
import java.util.TreeMap;

/**
 * What is known of how well the hardware of a block type is tested, measured by the project's own tests and kept with the
 * library.
 *
 * @param hardware of which files it is true, see {@link #hash}
 * @param mutants changes of the hardware that were tried, one at a time
 * @param noticed changes that tests noticed
 * @param equivalent changes that are proved to make no difference
 * @param survivors places of the others
 * @param tests what looked for changes
 * @param size what synthesis made of it; null where it was not measured
 */
public record Evidence(
        String hardware,
        int mutants,
        int noticed,
        int equivalent,
        List<String> survivors,
        List<String> tests,
        Size size) {
    private static final int HASH_DIGITS = 16;

    public Evidence {
        survivors = Lists.orEmpty(survivors);
        tests = Lists.orEmpty(tests);
    }

    /**
     * Lookup tables of six inputs, without carry chains, and flip-flops of a block with registers and bus end.
     *
     * @param parameters those that are not the default, as {@code NAME=value}
     */
    public record Size(
            long lookupTables,
            long flipFlops,
            long estimatedLookupTables,
            long estimatedFlipFlops,
            List<String> parameters) {
        public Size {
            parameters = Lists.orEmpty(parameters);
        }
    }

    /**
     * What is kept with the library.
     *
     * @param blockTypes by identity
     * @param proofs clock cycles from the reset up to which the statements about a common module are proved, by module
     */
    public record Kept(SortedMap<String, Evidence> blockTypes, SortedMap<String, Integer> proofs) {
        public Kept {
            blockTypes = copy(blockTypes);
            proofs = copy(proofs);
        }

        private static <T> SortedMap<String, T> copy(SortedMap<String, T> map) {
            return map == null
                    ? Collections.emptySortedMap()
                    : Collections.unmodifiableSortedMap(new TreeMap<>(map));
        }

        /** Proofs of the common modules that files use or are. */
        public SortedMap<String, Integer> proofsOf(Map<String, String> files) {
            SortedMap<String, Integer> found = new TreeMap<>();
            proofs.forEach(
                    (module, cycles) -> {
                        if (files.entrySet().stream()
                                .anyMatch(
                                        file ->
                                                file.getKey().equals(module + ".v")
                                                        || file.getValue()
                                                                .contains(module + " "))) {
                            found.put(module, cycles);
                        }
                    });
            return found;
        }
    }

    /** A number that changes with the hardware: the beginning of a SHA-256 over names and texts of its files. */
    public static String hash(SortedMap<String, String> files) {
        try {
            MessageDigest digest = MessageDigest.getInstance("SHA-256");
            files.forEach(
                    (name, text) -> {
                        digest.update(name.getBytes(StandardCharsets.UTF_8));
                        digest.update((byte) 0);
                        digest.update(text.getBytes(StandardCharsets.UTF_8));
                        digest.update((byte) 0);
                    });
            return HexFormat.of().formatHex(digest.digest()).substring(0, HASH_DIGITS);
        } catch (NoSuchAlgorithmException impossible) {
            throw new IllegalStateException(impossible);
        }
    }
}
