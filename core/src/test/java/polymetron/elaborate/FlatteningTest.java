package polymetron.elaborate;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.RepeatedTest;
import org.junit.jupiter.api.RepetitionInfo;
import org.junit.jupiter.api.Test;
import polymetron.Shipped;
import polymetron.address.Address;
import polymetron.bus.Protocol;
import polymetron.edit.Edit;
import polymetron.edit.Editor;
import polymetron.finding.Checks;
import polymetron.output.handoff.Handoff;
import polymetron.platform.Bus;
import polymetron.platform.Platform;

/** What a processor sees through bridges, against a walk from bus to bus for single addresses. */
final class FlatteningTest {
    private static final Editor EDITOR = new Editor(Shipped.LIBRARY);

    /** Buses in a tree, with bridges and targets at random aligned places, also outside the windows. */
    private static Platform tree(Random random) {
        List<Edit> edits = new ArrayList<>();
        int buses = 2 + random.nextInt(4);
        for (int bus = 1; bus < buses; bus++) {
            String before = bus == 1 ? "system" : "bus" + (1 + random.nextInt(bus - 1));
            long window = 0x1_0000L << random.nextInt(5);
            Address origin = new Address(random.nextInt(4) * 0x8000L);
            long base =
                    before.equals("system")
                            ? 0x4000_0000L + bus * 0x1000_0000L
                            : random.nextInt(8) * window;
            edits.add(new Edit.AddBus(new Bus("bus" + bus, Protocol.APB, 32, 22, "main")));
            edits.add(new Edit.AddBlock("bridge" + bus, Shipped.BRIDGE, null));
            edits.add(new Edit.SetParameter("bridge" + bus, "WINDOW", Long.toString(window)));
            edits.add(new Edit.SetParameter("bridge" + bus, "ORIGIN", origin.toString()));
            edits.add(attach("bridge" + bus, "window", before, base));
            edits.add(new Edit.Attach("bridge" + bus, "behind", "bus" + bus, null, null));
            for (int target = 0; target < 4; target++) {
                String name = "io" + bus + "_" + target;
                edits.add(new Edit.AddBlock(name, Shipped.GPIO, null));
                edits.add(attach(name, "registers", "bus" + bus, random.nextInt(64) * 0x4000L));
            }
        }
        return EDITOR.apply(Shipped.demo(), new Edit.Several(null, edits));
    }

    private static Edit attach(String block, String busInterface, String bus, long base) {
        return new Edit.Attach(block, busInterface, bus, new Address(base), null);
    }

    /** Follows one address from bus to bus, as the hardware would. */
    private static void walk(
            ElaboratedPlatform platform, String bus, long address, List<String> found) {
        for (TargetRange target : platform.bus(bus).orElseThrow().placed()) {
            if (!target.range().contains(address)) {
                continue;
            }
            long offset = address - target.range().base();
            Bridge bridge = target.block().shape().bridge();
            if (bridge == null) {
                found.add(target.ref() + "+" + offset);
            } else {
                String behind = target.block().block().attachments().get(bridge.downstream()).bus();
                walk(platform, behind, offset + bridge.window().base(), found);
            }
        }
    }

    @RepeatedTest(40)
    void isWhatAWalkFromBusToBusFinds(RepetitionInfo repetition) {
        Random random = new Random(repetition.getCurrentRepetition());
        ElaboratedPlatform platform = Shipped.elaborate(tree(random));
        AddressSpace space = platform.space(new InterfaceRef("cpu", "data")).orElseThrow();
        assertThat(space.ranges())
                .isSortedAccordingTo((one, other) -> one.range().compareTo(other.range()));
        List<Long> addresses = new ArrayList<>(List.of(0L, 0xFFFF_FFFFL));
        for (TargetRange seen : space.ranges()) {
            addresses.add(seen.range().base());
            addresses.add(seen.range().base() - 1);
            addresses.add(seen.range().last());
            addresses.add(seen.range().last() + 1);
        }
        for (int each = 0; each < 2_000; each++) {
            addresses.add(0x4000_0000L + random.nextLong(0x5000_0000L));
        }
        for (long address : addresses) {
            List<String> walked = new ArrayList<>();
            walk(platform, "system", address, walked);
            List<String> seen =
                    space.ranges().stream()
                            .filter(target -> target.range().contains(address))
                            .map(target -> target.ref() + "+" + (address - target.range().base()))
                            .toList();
            // The walk may also hit the rest of a target that begins outside a window; no initiator
            // can
            // use that.
            assertThat(walked).as("at %x", address).containsAll(seen);
            walked.removeAll(seen);
            assertThat(walked)
                    .as("at %x, not seen", address)
                    .allSatisfy(
                            hit -> {
                                long offset = Long.parseLong(hit.substring(hit.indexOf('+') + 1));
                                List<String> base = new ArrayList<>();
                                walk(platform, "system", address - offset, base);
                                assertThat(base)
                                        .doesNotContain(hit.substring(0, hit.indexOf('+')) + "+0");
                            });
        }
        assertThat(space.ranges().stream().map(TargetRange::via).flatMap(List::stream))
                .allMatch(name -> name.startsWith("bridge"));
    }

    @Test
    void bridgesInACircleAreNotFollowedForEver() {
        List<Edit> edits =
                List.of(
                        new Edit.AddBus(new Bus("other", Protocol.APB, 32, 32, "main")),
                        new Edit.AddBlock("there", Shipped.BRIDGE, null),
                        new Edit.AddBlock("back", Shipped.BRIDGE, null),
                        attach("there", "window", "system", 0x4000_0000),
                        new Edit.Attach("there", "behind", "other", null, null),
                        attach("back", "window", "other", 0),
                        new Edit.Attach("back", "behind", "system", null, null));
        ElaboratedPlatform platform =
                Shipped.elaborate(EDITOR.apply(Shipped.demo(), new Edit.Several(null, edits)));
        assertThat(Checks.run(platform)).anyMatch(each -> each.rule().equals("bridge-loop"));
        assertThat(platform.space(new InterfaceRef("cpu", "data")).orElseThrow().ranges())
                .hasSize(7);
        assertThat(Handoff.of(platform).files()).isNotEmpty();
    }

    /** Software finds a block behind a bridge where the processor sees it. */
    @Test
    void theHandOffHasTheAddressOfTheProcessor() {
        List<Edit> edits =
                List.of(
                        new Edit.AddBus(new Bus("slow", Protocol.APB, 32, 20, "main")),
                        new Edit.AddBlock("bridge", Shipped.BRIDGE, null),
                        attach("bridge", "window", "system", 0x4000_0000),
                        new Edit.Attach("bridge", "behind", "slow", null, null),
                        attach("lamps", "registers", "slow", 0x3000));
        ElaboratedPlatform moved =
                Shipped.elaborate(EDITOR.apply(Shipped.demo(), new Edit.Several(null, edits)));
        String header =
                Handoff.of(moved).files().stream()
                        .filter(file -> file.path().endsWith("ridge_station.h"))
                        .findFirst()
                        .orElseThrow()
                        .text();
        assertThat(header).containsPattern("LAMPS_BASE\\s+.*0x40003000");
        assertThat(header).doesNotContain("BRIDGE_BASE");
    }
}
