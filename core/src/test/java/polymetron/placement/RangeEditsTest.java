package polymetron.placement;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.RepeatedTest;
import org.junit.jupiter.api.RepetitionInfo;
import org.junit.jupiter.api.Test;
import polymetron.Shipped;
import polymetron.address.Address;
import polymetron.address.AddressRange;
import polymetron.bus.Protocol;
import polymetron.edit.Edit;
import polymetron.edit.Editor;
import polymetron.edit.RejectedEdit;
import polymetron.elaborate.ElaboratedBus;
import polymetron.elaborate.InterfaceRef;
import polymetron.elaborate.TargetRange;
import polymetron.platform.Bus;
import polymetron.platform.Platform;

final class RangeEditsTest {
    private static final Editor EDITOR = new Editor(Shipped.LIBRARY);
    private static final InterfaceRef RAM = InterfaceRef.parse("ram.port");
    private static final InterfaceRef ROM = InterfaceRef.parse("rom.port");
    private static final InterfaceRef LAMPS = InterfaceRef.parse("lamps.registers");

    /** rom 0x0–0xFFF, ram 0x1000–0x4FFF, lamps 0x8000–, all of 64 KiB; keys held at 0xF000. */
    private static Platform platform() {
        List<Edit> edits = new ArrayList<>();
        edits.add(new Edit.AddBus(new Bus("b", Protocol.APB, 32, 16, null)));
        edits.add(new Edit.AddBlock("rom", Shipped.MEMORY, Map.of("SIZE", "4096")));
        edits.add(new Edit.AddBlock("ram", Shipped.MEMORY, Map.of("SIZE", "16384")));
        edits.add(new Edit.AddBlock("lamps", Shipped.GPIO, null));
        edits.add(new Edit.AddBlock("keys", Shipped.GPIO, null));
        edits.add(new Edit.Attach("rom", "port", "b", new Address(0), null));
        edits.add(new Edit.Attach("ram", "port", "b", new Address(0x1000), null));
        edits.add(new Edit.Attach("lamps", "registers", "b", new Address(0x8000), null));
        edits.add(new Edit.Attach("keys", "registers", "b", new Address(0xF000), true));
        return EDITOR.apply(Platform.empty("Test", Shipped.BOARD), new Edit.Several(null, edits));
    }

    private static RangeEdits edits(Platform platform) {
        return new RangeEdits(Shipped.elaborate(platform));
    }

    private static Map<String, AddressRange> after(Platform platform, Edit edit) {
        Map<String, AddressRange> ranges = new HashMap<>();
        ElaboratedBus bus = Shipped.elaborate(EDITOR.apply(platform, edit)).bus("b").orElseThrow();
        for (TargetRange target : bus.placed()) {
            ranges.put(target.block().name(), target.range());
        }
        return ranges;
    }

    @Test
    void neighboursSwapWithoutAGapBetween() {
        Platform platform = platform();
        Map<String, AddressRange> after = after(platform, edits(platform).swap(ROM, RAM));
        assertThat(after.get("ram")).isEqualTo(new AddressRange(0, 0x3FFF));
        assertThat(after.get("rom")).isEqualTo(new AddressRange(0x4000, 0x4FFF));
        assertThat(after.get("keys").base()).isEqualTo(0xF000);
    }

    @Test
    void whatDoesNotGoIsSaidAndNothingMoves() {
        RangeEdits edits = edits(platform());
        assertThatThrownBy(() -> edits.swap(LAMPS, InterfaceRef.parse("keys.registers")))
                .isInstanceOf(RejectedEdit.class)
                .hasMessageContaining("keys is locked");
        Platform high =
                EDITOR.apply(
                        platform(),
                        new Edit.Attach("lamps", "registers", "b", new Address(0xC000), null));
        assertThatThrownBy(() -> edits(high).swap(RAM, LAMPS))
                .isInstanceOf(RejectedEdit.class)
                .hasMessage("ram would lie at 0x0000_C000–0x0000_FFFF, where keys is");
    }

    @Test
    void severalAreShiftedTogetherOrNotAtAll() {
        Platform platform = platform();
        RangeEdits edits = edits(platform);
        Map<String, AddressRange> after =
                after(platform, edits.shift(List.of(ROM, RAM), Address.parse("8K"), true));
        assertThat(after.get("rom").base()).isEqualTo(0x2000);
        assertThat(after.get("ram").base()).isEqualTo(0x3000);
        assertThatThrownBy(() -> edits.shift(List.of(ROM, RAM), Address.parse("16K"), true))
                .hasMessageContaining("where lamps is");
        assertThatThrownBy(() -> edits.shift(List.of(ROM), Address.parse("4K"), false))
                .hasMessageContaining("would pass address 0");
        assertThatThrownBy(() -> edits.shift(List.of(LAMPS), Address.parse("1M"), true))
                .hasMessageContaining("outside");
    }

    @Test
    void anEndGivesTheSizeOrTheBase() {
        Platform platform = platform();
        RangeEdits edits = edits(platform);
        assertThat(after(platform, edits.endAt(RAM, new Address(0x2FFF))).get("ram"))
                .isEqualTo(new AddressRange(0x1000, 0x2FFF));
        AddressRange lamps = after(platform, edits.endAt(LAMPS, new Address(0xBFFF))).get("lamps");
        assertThat(lamps.last()).isEqualTo(0xBFFF);
        assertThatThrownBy(() -> edits.endAt(RAM, new Address(0x10)))
                .hasMessageContaining("cannot end at");
        assertThatThrownBy(() -> edits.endAt(LAMPS, new Address(0x10)))
                .hasMessageContaining("at the lowest");
    }

    /** Against a search of all addresses: the nearest aligned free base, the lower one of two. */
    @RepeatedTest(60)
    void snapsToTheNearestLegalBase(RepetitionInfo repetition) {
        Random random = new Random(repetition.getCurrentRepetition());
        Platform platform = platform();
        long wished = random.nextInt(0x1_0000);
        InterfaceRef ref = List.of(ROM, RAM, LAMPS).get(random.nextInt(3));
        ElaboratedBus bus = Shipped.elaborate(platform).bus("b").orElseThrow();
        TargetRange target =
                bus.placed().stream()
                        .filter(each -> each.ref().equals(ref))
                        .findFirst()
                        .orElseThrow();
        long size = target.form().sizeBytes();
        long best = -1;
        for (long base = 0; base + size <= 0x1_0000; base += Address.powerOfTwoAtLeast(size)) {
            AddressRange range = AddressRange.of(base, size);
            boolean free =
                    bus.placed().stream()
                            .filter(each -> !each.ref().equals(ref))
                            .noneMatch(each -> each.range().overlaps(range));
            if (free && (best < 0 || Math.abs(base - wished) < Math.abs(best - wished))) {
                best = base;
            }
        }
        Edit edit = edits(platform).snap(ref, new Address(wished));
        assertThat(after(platform, edit).get(ref.block()).base()).isEqualTo(best);
    }
}
