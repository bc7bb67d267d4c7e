package polymetron.output.handoff;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.TreeMap;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import polymetron.Shipped;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.Elaborator;
import polymetron.finding.Checks;
import polymetron.output.HandoffFile;
import polymetron.platform.Platform;

/** What a block is to the rest of a platform follows from its definition, and not from names in the program. */
final class RenamedLibraryTest {
    private static final RenamedLibrary RENAMED = new RenamedLibrary();

    @ParameterizedTest
    @ValueSource(strings = {"console", "station", "recorder", "acquisition", "lock", "panel"})
    void whatIsHandedOverStaysTheSameButForTheNames(String recipe) {
        assertThat(RENAMED.renamedTypes()).isGreaterThan(8);
        Platform platform = Shipped.recipe(recipe);
        ElaboratedPlatform before = Shipped.elaborate(platform);
        ElaboratedPlatform after =
                new Elaborator(RENAMED.library()).elaborate(RENAMED.platform(platform));
        assertThat(findings(after)).isEqualTo(findings(before));
        TreeMap<String, String> expected = files(before);
        TreeMap<String, String> found = files(after);
        assertThat(found.keySet()).isEqualTo(expected.keySet());
        expected.forEach((path, text) -> assertThat(found.get(path)).as(path).isEqualTo(text));
    }

    private static List<String> findings(ElaboratedPlatform platform) {
        return Checks.run(platform).stream()
                .map(finding -> RenamedLibrary.withOldNames(finding.toString()))
                .sorted()
                .toList();
    }

    private static TreeMap<String, String> files(ElaboratedPlatform platform) {
        TreeMap<String, String> files = new TreeMap<>();
        for (HandoffFile file : Handoff.of(platform).files()) {
            String text = new String(file.bytes(), java.nio.charset.StandardCharsets.UTF_8);
            files.put(file.path(), RenamedLibrary.withOldNames(text));
        }
        return files;
    }
}
