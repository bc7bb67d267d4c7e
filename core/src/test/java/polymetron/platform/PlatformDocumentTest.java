package polymetron.platform;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import polymetron.Shipped;
import polymetron.json.DocumentException;

final class PlatformDocumentTest {
    @Test
    void demoRoundTripsExactly() {
        assertThat(PlatformDocument.write(Shipped.demo())).isEqualTo(Shipped.demoText());
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            quoteCharacter = '`',
            value = {
                "\"oscillator\"; 12; line 8, at /domains/0/clock",
                "\"dataWidth\" : 32; \"dataWidth\" : \"wide\"; line 16, at /buses/0/dataWidth",
                "\"addressWidth\" : 32; \"addressWidth\" : 65; at /buses/0/addressWidth",
                "\"name\" : \"cpu\"; \"name\" : \"Cpu 1\"; at /blocks/0/name",
                "\"0x0000_0000\"; \"0x1_0000_0000_0000_0000\"; /blocks/1/attachments/port/base",
                "\"name\" : \"code\"; \"name\" : \"cpu\"; two blocks named cpu",
                "polymetron-platform/1; polymetron-platform/9; at /format",
                "polymetron:serial:uart:1.0; uart; /blocks/2/type",
                "\"buses\" : [; \"busses\" : [; busses",
            })
    void saysWhereADocumentIsWrong(String right, String wrong, String message) {
        String text = Shipped.demoText();
        assertThat(text).contains(right);
        int at = text.indexOf(right);
        String broken = text.substring(0, at) + wrong + text.substring(at + right.length());
        assertThatThrownBy(() -> PlatformDocument.read("broken.json", broken))
                .isInstanceOf(DocumentException.class)
                .hasMessageStartingWith("broken.json")
                .hasMessageContaining(message);
    }

    @Test
    void aByteOrderMarkSaysNothing() {
        assertThat(PlatformDocument.read("marked.json", "\uFEFF" + Shipped.demoText()))
                .isEqualTo(Shipped.demo());
    }

    @Test
    void brokenJsonNamesTheLine() {
        String cut = Shipped.demoText().substring(0, 400);
        assertThatThrownBy(() -> PlatformDocument.read("cut.json", cut))
                .isInstanceOf(DocumentException.class)
                .hasMessageContaining("cut.json, line ");
        assertThatThrownBy(() -> PlatformDocument.read("deep.json", "[".repeat(100_000)))
                .isInstanceOf(DocumentException.class)
                .hasMessageContaining("nested more than 500 levels");
        assertThatThrownBy(() -> PlatformDocument.read("empty.json", ""))
                .isInstanceOf(DocumentException.class);
        assertThatThrownBy(
                        () ->
                                PlatformDocument.read(
                                        "twice.json",
                                        Shipped.demoText()
                                                .replaceFirst(
                                                        "\"name\"", "\"name\":\"a\",\"name\"")))
                .isInstanceOf(DocumentException.class);
    }
}
