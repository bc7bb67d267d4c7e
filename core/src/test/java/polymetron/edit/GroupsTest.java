package polymetron.edit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import org.junit.jupiter.api.Test;
import polymetron.Shipped;
import polymetron.library.Vlnv;
import polymetron.output.handoff.Handoff;
import polymetron.platform.Block;
import polymetron.platform.Platform;

final class GroupsTest {
    private final Editor editor = new Editor(Shipped.LIBRARY);

    private Platform panel() {
        return editor.apply(
                Shipped.demo(), new Edit.Group("panel", List.of("lamps", "gain", "interrupts")));
    }

    @Test
    void namesInsideArePrefixedInEveryOutputAndWiresFollow() {
        Platform grouped = panel();
        assertThat(grouped.block("panel_lamps").map(Groups::localName)).contains("lamps");
        assertThat(grouped.block("console").orElseThrow().interrupts().get("irq").block())
                .isEqualTo("panel_interrupts");
        assertThat(Handoff.of(Shipped.elaborate(grouped)).files())
                .filteredOn(file -> file.path().matches(".*\\.(h|dts|csv|json|md)"))
                .filteredOn(file -> file.text().toLowerCase().contains("lamps"))
                .hasSizeGreaterThan(3)
                .allSatisfy(file -> assertThat(file.text().toLowerCase()).contains("panel_lamps"));
    }

    @Test
    void dissolvingGivesTheSamePlatformAgain() {
        assertThat(editor.apply(panel(), new Edit.Ungroup("panel"))).isEqualTo(Shipped.demo());
    }

    @Test
    void aBlockKeepsThePrefixWhenItIsRenamedAndTheGroupIsRenamed() {
        Platform renamed = editor.apply(panel(), new Edit.RenameBlock("panel_lamps", "lights"));
        renamed = editor.apply(renamed, new Edit.RenameGroup("panel", "front"));
        assertThat(renamed.blocks().stream().filter(each -> each.group() != null).map(Block::name))
                .containsExactlyInAnyOrder("front_lights", "front_gain", "front_interrupts");
    }

    @Test
    void whatCannotBeAGroupIsRefused() {
        assertThatThrownBy(() -> editor.apply(Shipped.demo(), new Edit.Group("panel", List.of())))
                .isInstanceOf(RejectedEdit.class)
                .hasMessageContaining("at least one block");
        assertThatThrownBy(() -> editor.apply(Shipped.demo(), new Edit.Ungroup("panel")))
                .isInstanceOf(RejectedEdit.class)
                .hasMessageContaining("no group named panel");
        assertThatThrownBy(
                        () ->
                                editor.apply(
                                        panel(),
                                        new Edit.Group("panel", List.of("console", "missing"))))
                .isInstanceOf(RejectedEdit.class)
                .hasMessageContaining("missing");
    }

    /** What the new version does not have is dropped, everything else stays. */
    @Test
    void anotherVersionKeepsWhatItCan() {
        Vlnv newer = Vlnv.parse("polymetron:memory:block-memory:1.1");
        Platform newest = editor.apply(Shipped.demo(), new Edit.SetType("code", newer));
        Block before = Shipped.demo().block("code").orElseThrow();
        assertThat(newest.block("code")).contains(before.withType(newer));
        Platform two = editor.apply(newest, new Edit.SetParameter("code", "PORTS", "2"));
        Platform back = editor.apply(two, new Edit.SetType("code", before.type()));
        assertThat(back).isEqualTo(Shipped.demo());
        assertThat(Vlnv.BY_VERSION.compare(Vlnv.parse("a:b:c:1.9"), Vlnv.parse("a:b:c:1.10")))
                .isNegative();
    }
}
