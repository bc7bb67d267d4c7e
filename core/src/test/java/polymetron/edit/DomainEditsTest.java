package polymetron.edit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import org.junit.jupiter.api.Test;
import polymetron.Shipped;
import polymetron.clock.ClockReplan;
import polymetron.clock.ForeignReset;
import polymetron.clock.PllPlan;
import polymetron.clock.PllWish;
import polymetron.elaborate.Domain;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.library.Device;
import polymetron.platform.Block;
import polymetron.platform.Bus;
import polymetron.platform.ClockDomain;
import polymetron.platform.Platform;

/** Clock domains: changed, renamed, removed with what is in them, and given other frequencies. */
final class DomainEditsTest {
    private final Editor editor = new Editor(Shipped.LIBRARY);

    private Platform with(Platform platform, Edit... edits) {
        return editor.apply(platform, new Edit.Several(null, List.of(edits)));
    }

    private static ClockDomain domain(Platform platform, String name) {
        return platform.domain(name).orElseThrow();
    }

    /** The demo with a PLL behind its only domain, and two domains from it. */
    private Platform divided() {
        ElaboratedPlatform demo = Shipped.elaborate(Shipped.demo());
        Domain main = demo.domainIndex().get("main");
        Device.Plls limits = demo.device().plls();
        List<PllWish> wishes =
                List.of(new PllWish("fast", 100_000_000, 0), new PllWish("slow", 25_000_000, 0));
        PllPlan plan = PllPlan.of(limits, main.frequencyHz(), wishes, 1).orElseThrow();
        return with(Shipped.demo(), polymetron.clock.ClockWishes.edit(demo, main, plan.plls()));
    }

    @Test
    void aNewNameIsFollowedByEverythingThatWasInTheDomain() {
        Platform renamed = with(Shipped.demo(), new Edit.RenameDomain("main", "core"));
        assertThat(renamed.domains()).extracting(ClockDomain::name).containsExactly("core");
        assertThat(renamed.buses()).extracting(Bus::domain).containsOnly("core");
        for (Block block : renamed.blocks()) {
            assertThat(block.domains().values()).as(block.name()).doesNotContain("main");
        }
        assertThat(with(renamed, new Edit.RenameDomain("core", "main"))).isEqualTo(Shipped.demo());
        refused(new Edit.RenameDomain("main", "Main"), "name");
        refused(new Edit.RenameDomain("other", "main"), "domain");
    }

    @Test
    void aRemovedDomainLeavesItsBlocksAndBusesToAnother() {
        ClockDomain spare = new ClockDomain("spare", "oscillator", "reset_button");
        Platform two = with(Shipped.demo(), new Edit.AddDomain(spare));
        Platform one = with(two, new Edit.RemoveDomain("main", "spare"));
        assertThat(one).isEqualTo(with(Shipped.demo(), new Edit.RenameDomain("main", "spare")));
        refused(new Edit.RemoveDomain("main", null), "into");
        refused(new Edit.RemoveDomain("main", "main"), "into");
        refused(new Edit.RemoveDomain("main", "nowhere"), "domain");
    }

    @Test
    void aResetGoesWithItsClockAndFromAnotherDomainItIsACrossing() {
        Platform divided = divided();
        Platform moved = with(divided, new Edit.SetDomain("lamps", "clk", "slow"));
        assertThat(moved.block("lamps").orElseThrow().domains())
                .containsEntry("clk", "slow")
                .containsEntry("rst", "slow");
        assertThat(ForeignReset.of(Shipped.elaborate(moved))).isEmpty();

        Platform apart = with(moved, new Edit.SetDomain("lamps", "rst", "main"));
        assertThat(ForeignReset.of(Shipped.elaborate(apart)))
                .extracting(each -> each.block().name(), each -> each.from().name())
                .containsExactly(org.assertj.core.groups.Tuple.tuple("lamps", "main"));

        // Two domains on one clock are one clock: nothing crosses.
        Platform same =
                with(
                        Shipped.demo(),
                        new Edit.AddDomain(new ClockDomain("guard", "oscillator", null)),
                        new Edit.SetDomain("lamps", "clk", "guard"),
                        new Edit.SetDomain("lamps", "rst", "main"));
        assertThat(ForeignReset.of(Shipped.elaborate(same))).isEmpty();
    }

    @Test
    void onlyWhatChangesHasToBeThere() {
        Platform divided = divided();
        Platform without = with(divided, new Edit.RemoveBlock("pll"));
        ClockDomain slow = domain(without, "slow");
        // Its clock is gone with the PLL; another reset can be given all the same.
        assertThat(domain(with(without, new Edit.ChangeDomain(slow.withReset(null))), "slow"))
                .isEqualTo(slow.withReset(null));
        assertThatThrownBy(() -> with(without, new Edit.ChangeDomain(slow.withClock("quartz"))))
                .isInstanceOf(RejectedEdit.class)
                .hasMessageContaining("oscillator");
        assertThat(
                        Shipped.elaborate(
                                        with(
                                                without,
                                                new Edit.ChangeDomain(
                                                        slow.withClock("oscillator"))))
                                .domainIndex()
                                .get("slow")
                                .frequencyHz())
                .isEqualTo(50_000_000);
    }

    /** 24 MHz beside 100 MHz from 50 MHz: 600 MHz inside, divided by 25 and by 6 (worked by hand). */
    @Test
    void anotherFrequencySetsThePllAgainAndKeepsItsOtherClocks() {
        Platform divided = divided();
        ElaboratedPlatform platform = Shipped.elaborate(divided);
        Domain slow = platform.domainIndex().get("slow");
        ClockReplan plan = ClockReplan.of(platform, slow, 24_000_000, 100);
        assertThat(plan.obstacle()).isNull();
        Platform after = with(divided, plan.edit(slow, 24_000_000, plan.settings().getFirst()));
        ElaboratedPlatform now = Shipped.elaborate(after);
        assertThat(now.domainIndex().get("slow").frequencyHz()).isEqualTo(24_000_000);
        assertThat(now.domainIndex().get("fast").frequencyHz()).isEqualTo(100_000_000);
        assertThat(domain(after, "slow").wantedHz()).isEqualTo(24_000_000L);

        Domain main = platform.domainIndex().get("main");
        assertThat(ClockReplan.of(platform, main, 24_000_000, 100).obstacle())
                .contains("does not come from a PLL");
    }

    private void refused(Edit edit, String field) {
        assertThatThrownBy(() -> with(Shipped.demo(), edit))
                .isInstanceOfSatisfying(
                        RejectedEdit.class,
                        refusal -> assertThat(refusal.field()).isEqualTo(field));
    }
}
