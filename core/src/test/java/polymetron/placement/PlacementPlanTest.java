package polymetron.placement;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.RepeatedTest;
import org.junit.jupiter.api.RepetitionInfo;
import polymetron.Shipped;
import polymetron.address.Address;
import polymetron.address.AddressRange;
import polymetron.bus.Protocol;
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
                editor.apply(
                        platform,
                        new Edit.AddBus(new Bus("b", Protocol.AXI4_LITE, 32, width, null)));
        for (int count = 0; count < 12; count++) {
            String name = "m" + count;
            long size = 64L << random.nextInt(10);
            platform =
                    editor.apply(
                            platform,
                            new Edit.AddBlock(
                                    name, Shipped.MEMORY, Map.of("SIZE", Long.toString(size))));
            Address base = new Address(random.nextLong(1L << width) & -size);
            boolean held = random.nextInt(4) == 0;
            boolean free =
                    bus(platform).placed().stream()
                            .noneMatch(
                                    range ->
                                            range.range()
                                                    .overlaps(AddressRange.of(base.bits(), size)));
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
        assertThat(plan.unplaceable()).isEmpty();
        assertThat(PlacementPlan.of(after).moves()).isEmpty();
    }

    private static ElaboratedBus bus(Platform platform) {
        return Shipped.elaborate(platform).bus("b").orElseThrow();
    }

    @org.junit.jupiter.api.Test
    void saysWhatHasNoPlace() {
        Editor editor = new Editor(Shipped.LIBRARY);
        Platform platform = Platform.empty("Test", Shipped.BOARD);
        platform =
                editor.apply(
                        platform, new Edit.AddBus(new Bus("b", Protocol.AXI4_LITE, 32, 12, null)));
        platform = editor.apply(platform, new Edit.AddBlock("big", Shipped.CONTROLLER, null));
        platform = editor.apply(platform, new Edit.Attach("big", "registers", "b", null, null));
        assertThat(PlacementPlan.of(bus(platform)).unplaceable())
                .extracting(Unplaceable::label)
                .containsExactly("big");
    }

    /**
     * On a small bus every legal placement is tried: none leaves fewer ranges without a place, and none lets the ranges
     * span fewer address bits.
     */
    @RepeatedTest(80)
    void noOtherPlacementNeedsFewerAddressBits(RepetitionInfo repetition) {
        Random random = new Random(1000 + repetition.getCurrentRepetition());
        Editor editor = new Editor(Shipped.LIBRARY);
        Platform platform = Platform.empty("Test", Shipped.BOARD);
        platform =
                editor.apply(
                        platform, new Edit.AddBus(new Bus("b", Protocol.AXI4_LITE, 32, 12, null)));
        boolean[] taken = new boolean[UNITS];
        AddressRange held = null;
        List<Integer> sizes = new java.util.ArrayList<>();
        for (int count = 0; count < 5; count++) {
            String name = "m" + count;
            int units = 1 << random.nextInt(3);
            int at = random.nextInt(UNITS / units) * units;
            boolean isHeld = random.nextInt(3) == 0 && isFree(taken, at, units);
            platform =
                    editor.apply(
                            platform,
                            new Edit.AddBlock(
                                    name,
                                    Shipped.MEMORY,
                                    Map.of("SIZE", Integer.toString(units * UNIT))));
            platform =
                    editor.apply(
                            platform,
                            new Edit.Attach(
                                    name,
                                    "port",
                                    "b",
                                    isHeld ? new Address((long) at * UNIT) : null,
                                    isHeld));
            if (isHeld) {
                java.util.Arrays.fill(taken, at, at + units, true);
                AddressRange range = AddressRange.of((long) at * UNIT, (long) units * UNIT);
                held = held == null ? range : held.hull(range);
            } else {
                sizes.add(units);
            }
        }
        if (random.nextBoolean()) {
            int at = random.nextInt(UNITS);
            if (!taken[at]) {
                taken[at] = true;
                platform =
                        editor.apply(
                                platform,
                                new Edit.Reserve(
                                        "b",
                                        "later",
                                        new Address((long) at * UNIT),
                                        new Address((at + 1L) * UNIT - 1)));
            }
        }
        PlacementPlan plan = PlacementPlan.of(bus(platform));
        ElaboratedBus after = bus(editor.apply(platform, plan.asEdit()));
        for (TargetRange range : after.placed()) {
            for (var reserved : after.bus().reserved()) {
                assertThat(range.range().overlaps(reserved.range())).isFalse();
            }
        }
        int best = fewestBits(taken, sizes, 0, held);
        if (best == Integer.MAX_VALUE) {
            assertThat(plan.unplaceable()).isNotEmpty();
            assertThat(plan.unplaceable().getFirst().inTheWay()).isNotEmpty();
        } else {
            assertThat(plan.unplaceable()).isEmpty();
            AddressRange hull =
                    after.placed().stream()
                            .map(TargetRange::range)
                            .reduce(AddressRange::hull)
                            .orElseThrow();
            assertThat(hull.spanBits()).isEqualTo(best);
        }
    }

    private static final int UNITS = 16;
    private static final int UNIT = 256;

    private static boolean isFree(boolean[] taken, int at, int units) {
        for (int unit = at; unit < at + units; unit++) {
            if (taken[unit]) {
                return false;
            }
        }
        return true;
    }

    private static int fewestBits(
            boolean[] taken, List<Integer> sizes, int next, AddressRange hull) {
        if (next == sizes.size()) {
            return hull == null ? 0 : hull.spanBits();
        }
        int units = sizes.get(next);
        int best = Integer.MAX_VALUE;
        for (int at = 0; at + units <= UNITS; at += units) {
            if (isFree(taken, at, units)) {
                java.util.Arrays.fill(taken, at, at + units, true);
                AddressRange range = AddressRange.of((long) at * UNIT, (long) units * UNIT);
                best =
                        Math.min(
                                best,
                                fewestBits(
                                        taken,
                                        sizes,
                                        next + 1,
                                        hull == null ? range : hull.hull(range)));
                java.util.Arrays.fill(taken, at, at + units, false);
            }
        }
        return best;
    }

    @org.junit.jupiter.api.Test
    void aBridgeGetsAWindowThatCoversItsChildrenWithRoomToGrow() {
        Editor editor = new Editor(Shipped.LIBRARY);
        Platform platform = bridged(editor, 3);
        PlatformPlacement plan = PlatformPlacement.of(Shipped.elaborate(platform));

        // Three times 4 KiB are exactly three quarters of 16 KiB, so that is enough.
        assertThat(plan.windows())
                .extracting(PlatformPlacement.Growth::from, PlatformPlacement.Growth::to)
                .containsExactly(org.assertj.core.api.Assertions.tuple(8192L, 16384L));
        Platform after = editor.apply(platform, plan.asEdit(Shipped.elaborate(platform)));
        assertThat(PlatformPlacement.of(Shipped.elaborate(after)).isEmpty()).isTrue();
        assertThat(Shipped.elaborate(after).bus("slow").orElseThrow().placed()).hasSize(3);

        assertThat(PlatformPlacement.of(Shipped.elaborate(bridged(editor, 4))).windows())
                .extracting(PlatformPlacement.Growth::to)
                .containsExactly(32768L);
    }

    /** A bridge with a window of 8 KiB, and behind it memories of 4 KiB without a place. */
    private static Platform bridged(Editor editor, int memories) {
        List<Edit> edits =
                new java.util.ArrayList<>(
                        List.of(
                                new Edit.AddBus(new Bus("fast", Protocol.AXI4_LITE, 32, 32, null)),
                                new Edit.AddBus(new Bus("slow", Protocol.APB, 32, 20, null)),
                                new Edit.AddBlock(
                                        "bridge", Shipped.BRIDGE, Map.of("WINDOW", "8192")),
                                new Edit.Attach("bridge", "window", "fast", null, null),
                                new Edit.Attach("bridge", "behind", "slow", null, null)));
        for (int at = 0; at < memories; at++) {
            edits.add(new Edit.AddBlock("m" + at, Shipped.MEMORY, Map.of("SIZE", "4096")));
            edits.add(new Edit.Attach("m" + at, "port", "slow", null, null));
        }
        return editor.apply(Platform.empty("Test", Shipped.BOARD), new Edit.Several(null, edits));
    }

    /** 64 address bits: a range that ends with the last address, and one more in what is left. */
    @org.junit.jupiter.api.Test
    void theTopOfTheSpaceIsNoTrouble() {
        Editor editor = new Editor(Shipped.LIBRARY);
        Address top = new Address(-4096L);
        Platform platform =
                editor.apply(
                        Platform.empty("Test", Shipped.BOARD),
                        new Edit.Several(
                                null,
                                List.of(
                                        new Edit.AddBus(
                                                new Bus("b", Protocol.AXI4_LITE, 32, 64, null)),
                                        new Edit.AddBlock(
                                                "m", Shipped.MEMORY, Map.of("SIZE", "4096")),
                                        new Edit.Attach("m", "port", "b", top, true),
                                        new Edit.AddBlock(
                                                "n", Shipped.MEMORY, Map.of("SIZE", "4096")),
                                        new Edit.Attach("n", "port", "b", null, null))));
        PlacementPlan plan = PlacementPlan.of(bus(platform));
        assertThat(plan.unplaceable()).isEmpty();
        Platform after = editor.apply(platform, plan.asEdit());
        // Next to the held one, so that 13 address bits tell all of them apart.
        AddressRange placed = bus(after).placed().getFirst().range();
        assertThat(placed).isEqualTo(AddressRange.of(-8192L, 4096));
        assertThat(bus(after).freeSpace().gaps()).containsExactly(new AddressRange(0, -8193L));
        RangeEdits edits = new RangeEdits(Shipped.elaborate(after));
        org.assertj.core.api.Assertions.assertThatThrownBy(
                        () ->
                                edits.shift(
                                        List.of(polymetron.elaborate.InterfaceRef.parse("n.port")),
                                        Address.parse("8K"),
                                        true))
                .hasMessageContaining("would pass 64 bits");
    }

    /** The demo's code memory moves, and with it go the vectors that point into it; what is in no way stays. */
    @org.junit.jupiter.api.Test
    void whatPointsIntoAMemoryFollowsIt() {
        Editor editor = new Editor(Shipped.LIBRARY);
        Platform demo = Shipped.demo();
        var before = Shipped.elaborate(demo);
        Edit move = new Edit.Attach("code", "port", "system", new Address(0x4000_0000L), null);
        var after = Shipped.elaborate(editor.apply(demo, Followers.with(before, move)));
        var hart = polymetron.software.Harts.of(after).all().getFirst();
        var old = polymetron.software.Harts.of(before).all().getFirst();
        assertThat(hart.resetVector()).isEqualTo(0x4000_0000L + old.resetVector());
        assertThat(hart.trapVector()).isEqualTo(0x4000_0000L + old.trapVector());
        // A move that nothing points into needs nothing else.
        Edit other =
                new Edit.Attach("lamps", "registers", "system", new Address(0x2000_0000L), null);
        assertThat(Followers.with(before, other)).isSameAs(other);
    }

    @RepeatedTest(40)
    void fewestMovesMoveOnlyWhatIsInTheWay(RepetitionInfo repetition) {
        Platform platform = new polymetron.AnyPlatforms(repetition.getCurrentRepetition()).worked();
        for (ElaboratedBus bus : Shipped.elaborate(platform).buses()) {
            for (Move move : PlacementPlan.of(bus, PlacementWish.FEWEST_MOVES).moves()) {
                TargetRange target = move.target();
                boolean aligned =
                        target.isPlaced()
                                && target.range().base()
                                                % Address.powerOfTwoAtLeast(
                                                        Placement.room(bus, target.form()))
                                        == 0;
                boolean alone =
                        target.isPlaced()
                                && bus.placed().stream()
                                        .filter(other -> !other.ref().equals(target.ref()))
                                        .noneMatch(other -> other.range().overlaps(target.range()))
                                && bus.kept().stream()
                                        .noneMatch(kept -> kept.range().overlaps(target.range()));
                boolean seen = target.isPlaced() && bus.reachable().contains(target.range());
                assertThat(aligned && alone && seen).as(target.label()).isFalse();
            }
        }
        PlacementWish all =
                new PlacementWish(
                        false,
                        Shipped.elaborate(platform).buses().stream()
                                .flatMap(bus -> bus.placed().stream())
                                .map(TargetRange::ref)
                                .collect(java.util.stream.Collectors.toSet()));
        for (PlacementPlan plan : PlatformPlacement.of(Shipped.elaborate(platform), all).plans()) {
            assertThat(plan.moves()).allMatch(move -> move.from() == null);
        }
    }
}
