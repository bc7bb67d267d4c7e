package polymetron.placement;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.RepeatedTest;
import org.junit.jupiter.api.RepetitionInfo;
import polymetron.Shipped;
import polymetron.address.Address;
import polymetron.edit.Edit;
import polymetron.edit.Editor;
import polymetron.elaborate.ElaboratedBus;
import polymetron.elaborate.TargetRange;
import polymetron.platform.Bus;
import polymetron.platform.Platform;

final class PlacementPlanTest {
    /** However the ranges lie: held ones stay, the others end up aligned and apart. */
    @RepeatedTest(60)
    void placesEverythingThatFits(RepetitionInfo repetition) {
        Random random = new Random(repetition.getCurrentRepetition());
        Editor editor = new Editor(Shipped.LIBRARY);
        Platform platform = Platform.empty("Test", Shipped.BOARD);
        int width = 18 + random.nextInt(15);
        platform =
                editor.apply(platform, new Edit.AddBus(new Bus("b", "axi4-lite", 32, width, null)));
        for (int count = 0; count < 12; count++) {
            String name = "m" + count;
            long size = 64L << random.nextInt(10);
            platform =
                    editor.apply(
                            platform,
                            new Edit.AddBlock(
                                    name,
                                    Shipped.MEMORY,
                                    java.util.Map.of("SIZE", Long.toString(size))));
            Address base = new Address(random.nextLong(1L << width) & -size);
            boolean held = random.nextInt(4) == 0;
            boolean free =
                    bus(platform).placed().stream()
                            .noneMatch(
                                    range ->
                                            range.range()
                                                    .overlaps(
                                                            polymetron.address.AddressRange.of(
                                                                    base.bits(), size)));
            platform =
                    editor.apply(platform, new Edit.Attach(name, "port", "b", base, held && free));
        }
        PlacementPlan plan = PlacementPlan.of(bus(platform));
        ElaboratedBus after = bus(editor.apply(platform, plan.asEdit()));

        assertThat(plan.moves()).noneMatch(move -> move.target().held());
        List<TargetRange> placed = after.placed();
        for (int at = 0; at < placed.size(); at++) {
            TargetRange range = placed.get(at);
            assertThat(after.window().contains(range.range())).isTrue();
            assertThat(range.range().base() % range.form().sizeBytes()).isZero();
            if (at > 0) {
                assertThat(placed.get(at - 1).range().overlaps(range.range())).isFalse();
            }
        }
        assertThat(plan.homeless()).isEmpty();
        assertThat(PlacementPlan.of(after).moves()).isEmpty();
    }

    private static ElaboratedBus bus(Platform platform) {
        return Shipped.elaborate(platform).bus("b").orElseThrow();
    }

    @org.junit.jupiter.api.Test
    void saysWhatHasNoPlace() {
        Editor editor = new Editor(Shipped.LIBRARY);
        Platform platform = Platform.empty("Test", Shipped.BOARD);
        platform = editor.apply(platform, new Edit.AddBus(new Bus("b", "axi4-lite", 32, 12, null)));
        platform = editor.apply(platform, new Edit.AddBlock("big", Shipped.CONTROLLER, null));
        platform = editor.apply(platform, new Edit.Attach("big", "registers", "b", null, null));
        assertThat(PlacementPlan.of(bus(platform)).homeless())
                .extracting(TargetRange::label)
                .containsExactly("big");
    }
}
