package polymetron.text;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatCode;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import polymetron.Shipped;
import polymetron.edit.Edit;
import polymetron.edit.Editor;
import polymetron.edit.RejectedEdit;
import polymetron.json.DocumentException;
import polymetron.platform.Platform;
import polymetron.platform.PlatformDocument;

/** Characters that are not what they look like come in neither by an edit nor by a document. */
final class PlainTextTest {
    private static final Editor EDITOR = new Editor(Shipped.LIBRARY);

    /** The bidirectional controls of Unicode Standard Annex 9, section 2, and what no text file has. */
    @ParameterizedTest
    @ValueSource(
            ints = {
                0, 7, 0x1B, 0x7F, 0x85, 0x061C, 0x200E, 0x200F, 0x2028, 0x202A, 0x202E, 0x2066,
                0x2069, 0xD800, 0xDFFF, 0xFEFF, 0xFFFF
            })
    void areRefused(int codePoint) {
        String text = "a" + Character.toString(codePoint) + "b";
        String name = "U+%04X".formatted(codePoint);
        Edit accept = new Edit.Accept("overlap", "lamps", "what", text, null, null);
        assertThatThrownBy(
                        () ->
                                EDITOR.apply(
                                        Shipped.demo(),
                                        new Edit.Several(null, java.util.List.of(accept))))
                .isInstanceOf(RejectedEdit.class)
                .hasMessageContaining(name);
        String document =
                PlatformDocument.write(Shipped.demo())
                        .replace("Ridge Station", "a\\u%04Xb".formatted(codePoint));
        assertThatThrownBy(() -> PlatformDocument.read("x.json", document))
                .isInstanceOf(DocumentException.class)
                .hasMessageContaining("x.json, line 3")
                .hasMessageContaining(name);
        assertThat(PlatformDocument.readKept("revision 7", document).name())
                .as("one that was taken in by an earlier version can be opened")
                .isEqualTo(text);
    }

    @ParameterizedTest
    @ValueSource(
            strings = {"Schleusentor Süd", "水门", "بوابة", "שער", "gate 😀", "a\nb\tc", "naïve «x»"})
    void otherWritingIsTaken(String text) {
        Platform accepted =
                EDITOR.apply(
                        Shipped.demo(),
                        new Edit.Accept("overlap", "lamps", "what", text, null, null));
        String document = PlatformDocument.write(accepted);
        assertThat(PlatformDocument.read("x.json", document)).isEqualTo(accepted);
        assertThatCode(() -> PlatformDocument.read("x.json", "\uFEFF" + document))
                .as("a byte order mark says nothing")
                .doesNotThrowAnyException();
    }

    /** The line is found behind a mark, and in what is broken further down. */
    @Test
    void faultsInMarkedAndBrokenDocumentsAreExplained() {
        assertThatThrownBy(
                        () ->
                                PlatformDocument.read(
                                        "x.json",
                                        "\uFEFF{\n\"format\": \"polymetron-platform/1\"}"))
                .isInstanceOf(DocumentException.class)
                .hasMessageContaining("x.json, line 1");
        assertThatThrownBy(
                        () ->
                                PlatformDocument.read(
                                        "x.json", "{\n\"format\": \"polymetron-board/1\", \"a\n"))
                .isInstanceOf(DocumentException.class)
                .hasMessageContaining("x.json");
    }
}
