package polymetron.lookup;

import static org.assertj.core.api.Assertions.assertThat;

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
import polymetron.elaborate.AddressSpace;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.TargetRange;
import polymetron.platform.Bus;
import polymetron.platform.Platform;

final class WhatIsAtTest {
    @Test
    void namesTheRegisterOfTheBlockForEachInitiator() {
        ElaboratedPlatform demo = Shipped.elaborate(Shipped.demo());
        List<Place> places = WhatIsAt.find(demo, 0x1400_0000L + 0x1004);
        assertThat(places).hasSize(2);
        Place data = places.getFirst();
        assertThat(data.space().initiator().label()).isEqualTo("cpu · data side");
        assertThat(data.target().label()).isEqualTo("interrupts");
        assertThat(data.offset()).isEqualTo(0x1004);
        assertThat(data.hits()).isEmpty();
        assertThat(places.get(1).target()).isNull();
        assertThat(WhatIsAt.find(demo, 0x1400_0008L).getFirst().hits())
                .extracting(Place.Hit::name)
                .containsExactly("PRIORITY[2]");
        assertThat(WhatIsAt.find(demo, 0x1000_0000L).getFirst().hits())
                .extracting(Place.Hit::name)
                .containsExactly("RBR", "THR", "DLL");
    }

    /** Lookup and rulers against a scan over every range, with overlaps. */
    @RepeatedTest(20)
    void agreesWithAScanOverEveryRange(RepetitionInfo repetition) {
        Random random = new Random(repetition.getCurrentRepetition());
        Editor editor = new Editor(Shipped.LIBRARY);
        Platform platform = Shipped.demo();
        for (String block : List.of("console", "gain", "lamps", "service", "timer")) {
            Address base = new Address(0x1000_0000L + random.nextInt(16) * 0x1000L);
            platform =
                    editor.apply(
                            platform, new Edit.Attach(block, "registers", "system", base, null));
        }
        ElaboratedPlatform elaborated = Shipped.elaborate(platform);
        List<AddressRulers.Row> rows = AddressRulers.of(elaborated.spaces());
        for (int probe = 0; probe < 300; probe++) {
            long address = 0x0FFF_F000L + random.nextInt(0x2_4000);
            AddressSpace space = elaborated.spaces().getFirst();
            List<TargetRange> there =
                    space.ranges().stream().filter(each -> each.range().contains(address)).toList();
            if (there.isEmpty()) {
                assertThat(space.at(address)).isEmpty();
            } else {
                assertThat(there).contains(space.at(address).orElseThrow());
            }
            AddressRulers.Row row =
                    rows.stream()
                            .filter(each -> each.range().contains(address))
                            .findFirst()
                            .orElseThrow();
            assertThat(row.cells().getFirst().targets()).containsExactlyElementsOf(there);
        }
        for (int at = 1; at < rows.size(); at++) {
            assertThat(rows.get(at).range().base()).isEqualTo(rows.get(at - 1).range().last() + 1);
        }
    }

    /** Why nothing answers, for each sort of gap. */
    @Test
    void aGapSaysWhyNothingAnswers() {
        Editor editor = new Editor(Shipped.LIBRARY);
        Platform platform =
                editor.apply(
                        Shipped.demo(),
                        new Edit.Several(
                                null,
                                List.of(
                                        new Edit.AddBus(
                                                new Bus("slow", Protocol.APB, 32, 24, "main")),
                                        new Edit.AddBlock("bridge", Shipped.BRIDGE, null),
                                        new Edit.Attach(
                                                "bridge",
                                                "window",
                                                "system",
                                                new Address(0x4000_0000L),
                                                null),
                                        new Edit.Attach("bridge", "behind", "slow", null, null),
                                        new Edit.Reserve(
                                                "system",
                                                "later",
                                                new Address(0x5000_0000L),
                                                new Address(0x5000_FFFFL)),
                                        new Edit.SetReach(
                                                "cpu", "data", "lamps", "registers", false))));
        ElaboratedPlatform worked = Shipped.elaborate(platform);
        long lamps =
                worked.bus("system").orElseThrow().placed().stream()
                        .filter(each -> each.block().name().equals("lamps"))
                        .findFirst()
                        .orElseThrow()
                        .range()
                        .base();
        assertThat(gap(worked, 0x4000_0800L))
                .isEqualTo(new Gap(Gap.Sort.BEHIND, "nothing on slow"));
        assertThat(gap(worked, 0x5000_8000L))
                .isEqualTo(new Gap(Gap.Sort.KEPT, "reserved for later"));
        assertThat(gap(worked, lamps)).isEqualTo(new Gap(Gap.Sort.HIDDEN, "lamps hidden"));
        assertThat(gap(worked, 0x6000_0000L).sort()).isEqualTo(Gap.Sort.FREE);
    }

    private static Gap gap(ElaboratedPlatform platform, long address) {
        return AddressRulers.of(platform.spaces()).stream()
                .filter(row -> row.range().contains(address))
                .findFirst()
                .orElseThrow()
                .cells()
                .getFirst()
                .gap();
    }

    @Test
    void aRegisterIsFoundByTheBeginningOfItsName() {
        ElaboratedPlatform demo = Shipped.elaborate(Shipped.demo());
        assertThat(WhereIs.find(demo, "Console.l", 20))
                .extracting(WhereIs.Found::name)
                .containsExactly("console.LCR", "console.LSR");
        assertThat(WhereIs.find(demo, "console.LSR", 20).getFirst().address())
                .isEqualTo(0x1000_0014L);
        assertThat(WhereIs.find(demo, "nowhere", 20)).isEmpty();
        assertThat(WhereIs.find(demo, "interrupts.priority", 5)).hasSize(5);
    }
}
