package polymetron.cost;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import polymetron.Shipped;
import polymetron.address.Address;
import polymetron.bus.Protocol;
import polymetron.edit.Edit;
import polymetron.edit.Editor;
import polymetron.elaborate.AddressSpace;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterfaceRef;
import polymetron.library.Vlnv;
import polymetron.platform.Bus;
import polymetron.platform.ClockDomain;
import polymetron.platform.Platform;

/** Cycles counted by hand from the least ones of each protocol (Arm IHI 0022, IHI 0024; see {@code Protocol}). */
final class AccessCostTest {
    private static final Editor EDITOR = new Editor(Shipped.LIBRARY);
    private static final Vlnv DMA = Vlnv.parse("polymetron:data-movement:dma:1.0");
    private static final Vlnv PLL = Vlnv.parse("polymetron:infrastructure:pll:1.0");

    private static AccessCost cost(Platform platform, String initiator, String target) {
        ElaboratedPlatform worked = Shipped.elaborate(platform);
        AddressSpace space = worked.space(InterfaceRef.parse(initiator)).orElseThrow();
        return space.ranges().stream()
                .filter(range -> range.ref().toString().equals(target))
                .findFirst()
                .map(range -> AccessCost.of(worked, space, range))
                .orElseThrow();
    }

    /** A slow APB bus behind a bridge, with lamps on it. */
    private static Platform bridged(String domain) {
        List<Edit> edits = new ArrayList<>();
        if (!domain.equals("main")) {
            edits.add(new Edit.AddBlock("pll", PLL, null));
            edits.add(new Edit.SetDomain("pll", "clk", "main"));
            edits.add(new Edit.AddDomain(new ClockDomain(domain, "pll.out0", "reset_button")));
        }
        edits.add(new Edit.AddBus(new Bus("slow", Protocol.APB, 32, 20, domain)));
        edits.add(new Edit.AddBlock("bridge", Shipped.BRIDGE, null));
        edits.add(new Edit.SetDomain("bridge", "clk", "main"));
        edits.add(attach("bridge", "window", "system", 0x4000_0000L));
        edits.add(new Edit.Attach("bridge", "behind", "slow", null, null));
        edits.add(new Edit.AddBlock("far", Shipped.GPIO, null));
        edits.add(new Edit.SetDomain("far", "clk", domain));
        edits.add(attach("far", "registers", "slow", 0));
        return EDITOR.apply(Shipped.demo(), new Edit.Several(null, edits));
    }

    private static Edit attach(String block, String busInterface, String bus, long base) {
        return new Edit.Attach(block, busInterface, bus, new Address(base), null);
    }

    @Test
    void aReadIsTheSumOfWhatIsOnTheWay() {
        // Two initiators: 1 for the choice; AXI4-Lite 2; the block memory's output register 1.
        assertThat(cost(Shipped.demo(), "cpu.data", "code.port").cycles()).isEqualTo(4);
        assertThat(cost(Shipped.demo(), "cpu.data", "console.registers").cycles()).isEqualTo(3);
        // 1 + 2 on the first bus, 1 through the bridge, 2 for APB, 1 for the adapter to AXI4-Lite.
        AccessCost far = cost(bridged("main"), "cpu.data", "far.registers");
        assertThat(far.cycles()).isEqualTo(7);
        assertThat(far.steps()).hasSize(5);
    }

    /**
     * The other side has one access before, to the slowest target: the choice, and there both directions after each other. Then
     * the own choice, and again both directions.
     */
    @Test
    void theWorstCaseIsOneAccessOfEveryOtherInitiatorBefore() {
        long memory = 2 + 1;
        long others = 1 + 2 * memory;
        assertThat(cost(Shipped.demo(), "cpu.data", "code.port").worstCycles())
                .hasValue(others + 1 + 2 * memory);
        assertThat(cost(Shipped.demo(), "cpu.data", "console.registers").worstCycles())
                .hasValue(others + 1 + 2 * 2);
    }

    @Test
    void thereIsNoLimitWhereOthersGoFirst() {
        Bus bus = Shipped.demo().bus("system").orElseThrow();
        Platform first =
                EDITOR.apply(
                        Shipped.demo(),
                        new Edit.Several(
                                null,
                                List.of(
                                        new Edit.ChangeBus(
                                                bus.withArbitration(Bus.Arbitration.BY_PRIORITY)),
                                        new Edit.SetPriority("cpu", "data", 0))));
        assertThat(cost(first, "cpu.data", "code.port").worstCycles()).isPresent();
        assertThat(cost(first, "cpu.instruction", "code.port").worstCycles()).isEmpty();
    }

    /** A bus by priority behind a bridge, with only the bridge on it, holds nothing up. */
    @Test
    void priorityAmongOneChangesNothing() {
        Platform inTurn = bridged("main");
        Bus slow = inTurn.bus("slow").orElseThrow();
        Platform byPriority =
                EDITOR.apply(
                        inTurn,
                        new Edit.ChangeBus(slow.withArbitration(Bus.Arbitration.BY_PRIORITY)));
        for (String target : List.of("far.registers", "code.port")) {
            assertThat(cost(byPriority, "cpu.data", target).worstCycles())
                    .isPresent()
                    .isEqualTo(cost(inTurn, "cpu.data", target).worstCycles());
        }
        assertThat(cost(inTurn, "cpu.data", "far.registers").worstCycles().getAsLong())
                .isGreaterThan(cost(inTurn, "cpu.data", "far.registers").cycles());
    }

    /** What runs on another clock takes as many cycles of the initiator's as the clocks differ. */
    @Test
    void cyclesOfASlowerClockCountForMore() {
        ElaboratedPlatform slow = Shipped.elaborate(bridged("slow"));
        double ratio =
                (double) slow.domainIndex().get("main").frequencyHz()
                        / slow.domainIndex().get("slow").frequencyHz();
        AccessCost far = cost(bridged("slow"), "cpu.data", "far.registers");
        // Behind the bridge, which is on the first clock: APB 2, and 1 for the adapter to
        // AXI4-Lite. The crossing takes 2 cycles
        // of the slow clock, or one more, and 3 of the fast one, or one more; 1 registers its
        // answer.
        double least = 3 + Math.ceil((2 + 3) * ratio) + 1;
        double most = 4 + Math.floor((3 + 3) * ratio) + 1;
        assertThat(far.leastCycles()).isEqualTo((long) (1 + 2 + 1 + least));
        assertThat(far.cycles()).isEqualTo((long) (1 + 2 + 1 + most));
        assertThat(far.cycles() - far.leastCycles())
                .as("two cycles of the slower clock")
                .isLessThanOrEqualTo((long) (2 * ratio));
    }

    /** A DMA and a memory on a bus of their own, and what else is on it. */
    private static AccessCost moved(Protocol protocol, String memory, Edit... others) {
        List<Edit> edits = new ArrayList<>();
        edits.add(new Edit.AddBus(new Bus("wide", protocol, 32, 32, "main")));
        edits.add(new Edit.AddBlock("mover", DMA, null));
        edits.add(new Edit.SetDomain("mover", "clk", "main"));
        edits.add(new Edit.Attach("mover", "reads", "wide", null, null));
        edits.add(new Edit.AddBlock("buffer", Vlnv.parse(memory), null));
        edits.add(new Edit.SetDomain("buffer", "clk", "main"));
        edits.add(attach("buffer", "port", "wide", 0));
        edits.addAll(List.of(others));
        return cost(
                EDITOR.apply(Shipped.demo(), new Edit.Several(null, edits)),
                "mover.reads",
                "buffer.port");
    }

    private static final String MEMORY = "polymetron:memory:block-memory:1.1";

    @Test
    void aBurstGoesOnAtThePaceOfItsTarget() {
        // 3 for the first word, as of a single read, and 1 for each of the other 15.
        assertThat(moved(Protocol.AXI4, MEMORY).burstCycles()).isEqualTo(3 + 15);
        // Whose turn it is is chosen once.
        assertThat(
                        moved(
                                        Protocol.AXI4,
                                        MEMORY,
                                        new Edit.Attach("mover", "writes", "wide", null, null))
                                .burstCycles())
                .isEqualTo(1 + 3 + 15);
        // The first version speaks AXI4-Lite: behind the end of AXI4 each word is an access of 2 +
        // 1.
        assertThat(moved(Protocol.AXI4, "polymetron:memory:block-memory:1.0").nextCycles())
                .isEqualTo(3);
    }

    @Test
    void withoutBurstsEachWordIsAnAccess() {
        assertThat(moved(Protocol.AXI4_LITE, MEMORY).nextCycles()).isEqualTo(3);
        assertThat(moved(Protocol.WISHBONE, MEMORY).nextCycles()).isEqualTo(2);
        assertThat(moved(Protocol.AHB_LITE, MEMORY).nextCycles()).isEqualTo(3);
    }

    @Test
    void whatABusCarriesIsWidthTimesClockByCycles() {
        Platform platform =
                EDITOR.apply(Shipped.demo(), new Edit.SetTraffic("cpu", "data", 25_000_000L));
        ElaboratedPlatform worked = Shipped.elaborate(platform);
        long hz = worked.domainIndex().get("main").frequencyHz();
        BusLoad load = BusLoad.of(worked).getFirst();
        // 4 bytes in 2 cycles; with arbitration and the memory's output register in 4.
        assertThat(load.singlesPerSecond()).isCloseTo(2.0 * hz, within(1.0));
        assertThat(load.busy()).isCloseTo(25_000_000.0 / hz, within(1e-9));
        assertThat(load.shares())
                .extracting(share -> share.initiator().toString())
                .containsExactly("cpu.data");

        // 16 transfers of 4 bytes in 2 + 15 cycles.
        Bus bursts = new Bus("system", Protocol.AXI4, 32, 32, "main");
        ElaboratedPlatform wide =
                Shipped.elaborate(EDITOR.apply(Shipped.demo(), new Edit.ChangeBus(bursts)));
        assertThat(BusLoad.capacity(wide, wide.bus("system").orElseThrow(), 16))
                .isCloseTo(64.0 * hz / 17, within(1.0));
    }

    /** Traffic to memory behind a bridge is on both buses. */
    @Test
    void trafficIsOnEveryBusOnTheWay() {
        Platform platform =
                EDITOR.apply(
                        bridged("main"),
                        new Edit.Several(
                                null,
                                List.of(
                                        new Edit.AddBlock("store", Shipped.MEMORY, null),
                                        attach("store", "port", "slow", 0x4000),
                                        new Edit.SetTraffic("cpu", "data", 1_000_000L))));
        assertThat(BusLoad.of(Shipped.elaborate(platform)))
                .allSatisfy(load -> assertThat(load.shares()).hasSize(1));
    }
}
