package polymetron.library;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import polymetron.board.BoardChecks;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.Elaborator;
import polymetron.finding.Checks;
import polymetron.json.DocumentException;
import polymetron.output.handoff.Handoff;

/** Does what docs/library.md says, with its own examples. */
final class LibraryGuideTest {
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '`',
            value = {
                "\"kind\": \"peripheral\"|\"kind\": \"gadget\"|line 4|/kind|peripheral",
                "\"dataWidth\": 32|\"dataWidth\": true|line 23|/busInterfaces/0/dataWidth|number",
                "\"size\": 4096,|\"sise\": 4096,|line 2|sise|size",
                "\"identity\": \"example:io:tone:1.0\",||line 1|identity|required",
                "\"identity\": \"example:io:tone:1.0\"|\"identity\": \"tone\"|line 3|/identity|:",
                "\"minimum\": 8|\"minimum\": \"8 +\"|line 11|/parameters/0/minimum|8 +"
            })
    void aWrongKeyIsNamedWithFileAndLine(
            String from, String to, String line, String key, String says) throws IOException {
        String text = new GuideExamples().texts().getFirst();
        assertThat(text).contains(from);
        String changed = text.replace(from, to == null ? "" : to);
        assertThatThrownBy(() -> BlockTypeDocument.read("tone/block-type.json", changed))
                .isInstanceOf(DocumentException.class)
                .hasMessageContainingAll("tone/block-type.json", line, key, says);
    }

    @Test
    void theExamplesOfTheGuideWork() throws IOException {
        GuideExamples guide = new GuideExamples();
        assertThat(guide.texts()).hasSize(6);
        Library library = guide.library();
        assertThat(BoardChecks.of(library, guide.board())).isEmpty();
        ElaboratedPlatform worked = new Elaborator(library).elaborate(guide.platform());
        assertThat(Checks.run(worked)).isEmpty();
        assertThat(worked.block("bell").orElseThrow().shape().number("HALF")).isEqualTo(25_000);
        assertThat(worked.streams()).hasSize(2);
        assertThat(Handoff.of(worked).files().toString())
                .contains("BELL_BASE", "example,tone-1.0", "CORE_TIME_HZ", "WAKE_PACE");
    }
}
