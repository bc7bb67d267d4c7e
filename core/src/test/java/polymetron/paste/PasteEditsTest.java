package polymetron.paste;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import polymetron.Shipped;
import polymetron.edit.Edit;
import polymetron.edit.Editor;
import polymetron.edit.RejectedEdit;
import polymetron.finding.Checks;
import polymetron.json.DocumentException;
import polymetron.platform.Block;
import polymetron.platform.Platform;
import polymetron.wiring.Starter;
import polymetron.wiring.WiringPlan;

final class PasteEditsTest {
    private static final Editor EDITOR = new Editor(Shipped.LIBRARY);

    private static Platform paste(Platform platform, String text) {
        List<Edit> edits = PasteEdits.of(platform, BlocksText.read(text));
        return EDITOR.apply(platform, new Edit.Several("paste", edits));
    }

    private static Platform wired(Platform platform) {
        WiringPlan plan = WiringPlan.propose(platform, Shipped.LIBRARY, WiringPlan.Decisions.NONE);
        return EDITOR.apply(platform, plan.asEdit("wire"));
    }

    /** Everything of the demo into an empty platform on another board: the same platform, wired again. */
    @Test
    void aWholePlatformIsPastedIntoAnother() {
        List<String> all = Shipped.demo().blocks().stream().map(Block::name).toList();
        Platform empty =
                Starter.start(
                        Shipped.LIBRARY,
                        "Other",
                        polymetron.library.Vlnv.parse("polymetron:boards:terrace:1.0"),
                        null);
        Platform pasted = wired(paste(empty, BlocksText.of(Shipped.demo(), all)));
        assertThat(pasted.blocks()).extracting(Block::name).containsExactlyElementsOf(all);
        assertThat(pasted.block("console").orElseThrow().parameters())
                .containsEntry("BAUD", "115200");
        assertThat(pasted.block("console").orElseThrow().interrupts().get("irq").block())
                .isEqualTo("interrupts");
        assertThat(Checks.run(Shipped.elaborate(pasted)))
                .as("the lamps of the other board are more")
                .allMatch(finding -> finding.rule().startsWith("outward"));
    }

    @Test
    void copiesGetFreeNamesAndKeepToEachOther() {
        String text = BlocksText.of(Shipped.demo(), List.of("console", "interrupts"));
        Platform twice = paste(Shipped.demo(), text);
        assertThat(twice.block("console_2").orElseThrow().interrupts().get("irq").block())
                .isEqualTo("interrupts_2");
        assertThat(twice.block("console_2").orElseThrow().domains()).containsEntry("clk", "main");
        assertThat(twice.block("console_2").orElseThrow().attachments().get("registers").base())
                .isNull();
        assertThat(
                        wired(twice)
                                .block("console_2")
                                .orElseThrow()
                                .attachments()
                                .get("registers")
                                .base())
                .isNotNull();
        assertThat(paste(twice, text).block("console_3")).isPresent();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            textBlock =
                    """
                    {"format": "polymetron-blocks/1", "blocks": [{"name":               | line 1
                    hello                                                              | hello
                    {"format": "polymetron-platform/1", "blocks": []}                   | polymetron-blocks/1
                    {"format": "polymetron-blocks/1", "blocks": []}                     | no blocks
                    {"format": "polymetron-blocks/1", "blocks": [{"name": "Two Words", "type": "a:b:c:1"}]} | /blocks/0
                    {"format": "polymetron-blocks/1", "blocks": [{"name": "x"}]}        | /blocks/0
                    {"format": "polymetron-blocks/1", "surprise": 1}                    | surprise
                    """)
    void otherTextIsRefused(String text, String says) {
        assertThatThrownBy(() -> BlocksText.read(text))
                .isInstanceOf(DocumentException.class)
                .hasMessageContaining(says);
    }

    @Test
    void anUnknownTypeIsNamed() {
        String text =
                "{\"format\": \"polymetron-blocks/1\", \"blocks\": [{\"name\": \"x\", \"type\":"
                        + " \"a:b:c:1.0\"}]}";
        assertThatThrownBy(() -> paste(Shipped.demo(), text))
                .isInstanceOf(RejectedEdit.class)
                .hasMessageContaining("a:b:c:1.0");
    }
}
