package polymetron.edit;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Map;
import java.util.TreeMap;
import org.junit.jupiter.api.Test;
import polymetron.Shipped;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.finding.Checks;
import polymetron.platform.Platform;
import polymetron.platform.PlatformDocument;

/**
 * Edits come from anybody who can send a request. Whatever is in one, it is applied or rejected with a reason, never
 * an exception of another kind; and what it makes is a document that can be exported and imported again.
 */
final class AnyEditTest {
    private static final Editor EDITOR = new Editor(Shipped.LIBRARY);

    private final AnyEdits edits = new AnyEdits(4);

    @Test
    void isAppliedOrRejected() {
        Map<String, Integer> applied = new TreeMap<>();
        Platform platform = Shipped.demo();
        for (int round = 0; round < 20_000; round++) {
            if (round % 50 == 0) {
                platform = Shipped.demo();
            }
            Edit edit = edits.next();
            try {
                Platform next = EDITOR.apply(platform, edit);
                assertThat(edit.describe()).isNotBlank();
                applied.merge(edit.getClass().getSimpleName(), 1, Integer::sum);
                platform = next;
            } catch (RejectedEdit rejected) {
                assertThat(rejected.getMessage())
                        .as(edit.toString())
                        .isNotBlank()
                        .doesNotContain("()", "known.");
                continue;
            }
            String text = PlatformDocument.write(platform);
            assertThat(PlatformDocument.read("edited.json", text))
                    .as(edit.toString())
                    .isEqualTo(platform);
            if (round % 5 == 0) {
                ElaboratedPlatform elaborated = Shipped.elaborate(platform);
                Checks.run(elaborated);
            }
        }
        assertThat(applied.size()).as(applied.toString()).isGreaterThan(20);
    }
}
