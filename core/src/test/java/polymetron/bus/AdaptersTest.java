package polymetron.bus;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.Arrays;
import java.util.List;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import polymetron.Shipped;
import polymetron.edit.Edit;
import polymetron.edit.Editor;
import polymetron.edit.RejectedEdit;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterfaceRef;
import polymetron.library.BlockTypeDocument;
import polymetron.platform.Bus;
import polymetron.platform.ClockDomain;
import polymetron.platform.PlatformDocument;

final class AdaptersTest {
    private static Adapters.Side side(Protocol protocol, int width, String domain) {
        return new Adapters.Side(List.of(protocol), width, 16, domain);
    }

    @Test
    void whatMatchesNeedsNone() {
        assertThat(Adapters.between(side(Protocol.APB, 32, "a"), side(Protocol.APB, 32, "a"), true))
                .isEmpty();
        assertThat(
                        Adapters.between(
                                new Adapters.Side(
                                        List.of(Protocol.AXI4, Protocol.APB), 32, 16, null),
                                side(Protocol.APB, 32, "a"),
                                true))
                .as("the second protocol of an interface, and a clock that is not known yet")
                .isEmpty();
    }

    @Test
    void everyDifferenceIsAdaptedFromTheInterfaceOn() {
        List<Adapter> adapters =
                Adapters.between(
                        side(Protocol.AHB_LITE, 128, "fast"),
                        side(Protocol.APB, 32, "slow"),
                        false);
        assertThat(adapters).extracting(Adapter::sort).containsExactly(Adapter.Sort.values());
        assertThat(adapters)
                .extracting(Adapter::from)
                .containsExactly("AHB-Lite", "128 bit", "fast");
        assertThat(adapters).extracting(Adapter::to).containsExactly("APB", "32 bit", "slow");
        assertThat(adapters.get(1).parts()).as("four accesses for one").isEqualTo(4);
    }

    /** Only where the side that accesses come from is the wider one, an access is made of several. */
    @Test
    void aWideAccessOnANarrowSideIsSeveral() {
        Adapters.Side narrow = side(Protocol.AXI4_LITE, 32, null);
        Adapters.Side wide = side(Protocol.AXI4_LITE, 64, null);
        assertThat(parts(narrow, wide, true)).as("a narrow target on a wide bus").isEqualTo(2);
        assertThat(parts(narrow, wide, false)).as("a narrow initiator there").isEqualTo(1);
        assertThat(parts(wide, narrow, true)).as("a wide target on a narrow bus").isEqualTo(1);
        assertThat(parts(wide, narrow, false)).as("a wide initiator there").isEqualTo(2);
    }

    private static int parts(Adapters.Side form, Adapters.Side bus, boolean isTarget) {
        List<Adapter> adapters = Adapters.between(form, bus, isTarget);
        assertThat(adapters).hasSize(1);
        assertThat(adapters.getFirst().cycles()).as("its answer is registered").isEqualTo(1);
        return adapters.getFirst().parts();
    }

    /** Every pair of protocols can be joined; an adapter has the end of the one and that of the other. */
    @Test
    void protocolsOfEveryPairCanBeJoined() {
        for (Protocol one : Protocol.values()) {
            for (Protocol other : Protocol.values()) {
                List<Adapter> there =
                        Adapters.between(side(one, 32, null), side(other, 32, null), false);
                List<Adapter> back =
                        Adapters.between(side(other, 32, null), side(one, 32, null), true);
                assertThat(there).hasSize(one == other ? 0 : 1);
                assertThat(there.stream().mapToInt(Adapter::lookupTables).sum())
                        .isEqualTo(back.stream().mapToInt(Adapter::lookupTables).sum());
                // Arm IHI 0022, 0033 and 0024 have two cycles at least, Wishbone B4 one.
                assertThat(there.stream().mapToInt(Adapter::cycles).sum())
                        .isEqualTo(one == other || one == Protocol.WISHBONE ? 0 : 1);
                assertThat(Adapters.canJoin(List.of(one), other)).isTrue();
            }
        }
        assertThat(Adapters.canJoin(List.of(), Protocol.APB)).isFalse();
    }

    /** Arm IHI 0022 B1.1.1: AXI4-Lite has 32 or 64 data bits; IHI 0024: APB has up to 32. */
    @Test
    void aBusHasAWidthThatItsProtocolAllows() {
        Editor editor = new Editor(Shipped.LIBRARY);
        for (Bus wrong :
                List.of(
                        new Bus("wide", Protocol.AXI4_LITE, 128, 32, "main"),
                        new Bus("wide", Protocol.APB, 64, 32, "main"),
                        new Bus("wide", Protocol.WISHBONE, 33, 32, "main"))) {
            assertThatThrownBy(() -> editor.apply(Shipped.demo(), new Edit.AddBus(wrong)))
                    .isInstanceOfSatisfying(
                            RejectedEdit.class,
                            refused -> assertThat(refused.field()).isEqualTo("dataWidth"));
        }
    }

    @Test
    void adaptersShowOnTheAttachment() {
        ElaboratedPlatform platform =
                Shipped.elaborate(
                        new Editor(Shipped.LIBRARY)
                                .apply(
                                        Shipped.demo(),
                                        new Edit.Several(
                                                null,
                                                List.of(
                                                        new Edit.AddDomain(
                                                                new ClockDomain(
                                                                        "slow",
                                                                        "oscillator",
                                                                        null)),
                                                        new Edit.ChangeBus(
                                                                new Bus(
                                                                        "system",
                                                                        Protocol.AXI4,
                                                                        64,
                                                                        32,
                                                                        "slow"))))));
        assertThat(
                        platform.bus("system")
                                .orElseThrow()
                                .adaptersOf(new InterfaceRef("lamps", "registers")))
                .extracting(Adapter::sort)
                .containsExactly(Adapter.Sort.values());
    }

    /** What is said of protocols outside their class is data: the words that documents may use. */
    @Test
    void schemasKnowTheSameProtocols() {
        List<String> words =
                Arrays.stream(Protocol.values()).map(each -> "\"" + each + "\"").toList();
        for (String schema :
                List.of(BlockTypeDocument.schemaText(), PlatformDocument.schemaText())) {
            var lists =
                    Pattern.compile("\"enum\": \\[([^\\]]*\"apb\"[^\\]]*)\\]")
                            .matcher(schema)
                            .results()
                            .toList();
            assertThat(lists).isNotEmpty();
            for (var list : lists) {
                assertThat(list.group(1).strip().split(",\\s*")).containsExactlyElementsOf(words);
            }
        }
    }
}
