package polymetron.library;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Map;
import java.util.SortedMap;
import java.util.TreeMap;
import org.junit.jupiter.api.Test;
import polymetron.Shipped;

/** What the library says of how its hardware is tested is about the files that it has. */
final class EvidenceTest {
    private static SortedMap<String, String> files(String... texts) {
        SortedMap<String, String> files = new TreeMap<>();
        for (int at = 0; at < texts.length; at += 2) {
            files.put(texts[at], texts[at + 1]);
        }
        return files;
    }

    @Test
    void theHashChangesWithNamesAndTexts() {
        String hash = Evidence.hash(files("a.v", "module a", "b.v", "module b"));
        assertThat(hash)
                .hasSize(16)
                .isEqualTo(Evidence.hash(files("b.v", "module b", "a.v", "module a")));
        assertThat(hash)
                .isNotEqualTo(Evidence.hash(files("a.v", "module a ", "b.v", "module b")))
                .isNotEqualTo(Evidence.hash(files("a.v", "module ab.v", "b.v", "module b")))
                .isNotEqualTo(Evidence.hash(files("c.v", "module a", "b.v", "module b")));
        // SHA-256 of nothing (FIPS 180-4 test vector), its first 16 digits.
        assertThat(Evidence.hash(files())).isEqualTo("e3b0c44298fc1c14");
    }

    @Test
    void proofsAreThoseOfModulesThatFilesUseOrAre() {
        Evidence.Kept kept =
                new Evidence.Kept(
                        null, new TreeMap<>(Map.of("polymetron_fifo", 20, "polymetron_reset", 30)));
        assertThat(kept.proofsOf(files("x.v", "  polymetron_fifo #(.BITS(8)) queue (")))
                .isEqualTo(Map.of("polymetron_fifo", 20));
        assertThat(kept.proofsOf(files("polymetron_reset.v", "module")))
                .isEqualTo(Map.of("polymetron_reset", 30));
        assertThat(kept.proofsOf(files("x.v", "polymetron_fifos ("))).isEmpty();
    }

    @Test
    void whatIsKeptNamesBlockTypesAndAddsUp() {
        HardwareSources hardware = Shipped.LIBRARY.hardware();
        hardware.evidence()
                .blockTypes()
                .forEach(
                        (identity, evidence) -> {
                            BlockType type =
                                    Shipped.LIBRARY.type(Vlnv.parse(identity)).orElseThrow();
                            assertThat(
                                            evidence.noticed()
                                                    + evidence.equivalent()
                                                    + evidence.survivors().size())
                                    .isEqualTo(evidence.mutants());
                            assertThat(evidence.hardware())
                                    .as(
                                            "%s was changed: plant its faults again"
                                                    + " (docs/hardware.md)",
                                            identity)
                                    .isEqualTo(Evidence.hash(hardware.ofBehaviour(type)));
                        });
        assertThat(hardware.evidence().proofs()).isNotEmpty();
    }
}
