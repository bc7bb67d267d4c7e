package polymetron.platform;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import polymetron.Shipped;
import polymetron.address.Address;
import polymetron.bus.Protocol;
import polymetron.edit.Edit;
import polymetron.edit.Editor;
import polymetron.edit.RejectedEdit;
import polymetron.finding.Checks;
import polymetron.json.DocumentException;
import polymetron.library.Vlnv;

/** The largest platforms there can be are worked out, and larger ones refused. */
final class PlatformLimitsTest {
    private static final Vlnv BRIDGE = Vlnv.parse("polymetron:infrastructure:bridge:1.0");

    @Test
    void tooManyBlocksAreRefusedByEditAndDocument() {
        Platform full = PlatformDocument.read("full.json", LargeDocument.of(Platform.MOST_BLOCKS));
        assertThat(full.blocks()).hasSize(Platform.MOST_BLOCKS);
        assertThatThrownBy(
                        () ->
                                new Editor(Shipped.LIBRARY)
                                        .apply(
                                                full,
                                                new Edit.AddBlock("more", Shipped.GPIO, Map.of())))
                .isInstanceOf(RejectedEdit.class)
                .hasMessageContaining("at most 10000 blocks");
        String larger = LargeDocument.of(Platform.MOST_BLOCKS + 1);
        assertThatThrownBy(() -> PlatformDocument.read("larger.json", larger))
                .isInstanceOf(DocumentException.class)
                .hasMessageContaining("larger.json, line")
                .hasMessageContaining("/blocks");
    }

    /** One behind the other, as deep as it can get. */
    @Test
    void aChainOfBridgesOverAllBusesIsWorkedOut() {
        Platform base = PlatformDocument.read("base.json", LargeDocument.of(10));
        List<Bus> buses = new ArrayList<>(base.buses());
        List<Block> blocks = new ArrayList<>(base.blocks());
        String above = "system";
        for (int depth = 1; depth < Platform.MOST_BUSES; depth++) {
            String below = "level" + depth;
            buses.add(new Bus(below, Protocol.AXI4_LITE, 32, 32, "main"));
            blocks.add(
                    Block.of("down" + depth, BRIDGE)
                            .withDomain("clk", "main")
                            .withDomain("rst", "main")
                            .withAttachment(
                                    "window", new Attachment(above, new Address(0x4000_0000), null))
                            .withAttachment("behind", new Attachment(below, null, null)));
            above = below;
        }
        Platform deep = base.withBuses(buses).withBlocks(blocks);
        assertThat(Checks.run(Shipped.elaborate(deep))).isNotEmpty();
        // The same, and the last leads back to the first.
        blocks.add(
                Block.of("up", BRIDGE)
                        .withDomain("clk", "main")
                        .withDomain("rst", "main")
                        .withAttachment(
                                "window", new Attachment(above, new Address(0x4000_0000), null))
                        .withAttachment("behind", new Attachment("system", null, null)));
        assertThat(Checks.run(Shipped.elaborate(deep.withBlocks(blocks))))
                .extracting("rule")
                .contains("bridge-loop");
    }
}
