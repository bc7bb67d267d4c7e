package polymetron.elaborate;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import org.junit.jupiter.api.Test;
import polymetron.Shipped;
import polymetron.edit.Edit;
import polymetron.edit.Editor;
import polymetron.edit.RejectedEdit;
import polymetron.finding.Checks;
import polymetron.finding.Finding;
import polymetron.platform.Platform;
import polymetron.platform.PlatformDocument;

/** What an initiator reaches is what the buses show it, less what the user hid from it. */
final class ReachTest {
    private static final Editor EDITOR = new Editor(Shipped.LIBRARY);

    private static Edit hide(String target) {
        return new Edit.SetReach("cpu", "data", target, "registers", false);
    }

    private static List<String> seen(Platform platform) {
        return Shipped.elaborate(platform)
                .space(new InterfaceRef("cpu", "data"))
                .orElseThrow()
                .ranges()
                .stream()
                .map(TargetRange::label)
                .toList();
    }

    @Test
    void aHiddenTargetIsNotReachedUntilItIsLetBackIn() {
        Platform hidden = EDITOR.apply(Shipped.demo(), hide("lamps"));
        assertThat(seen(hidden)).doesNotContain("lamps").contains("gain");
        List<Finding> findings = Checks.run(Shipped.elaborate(hidden));
        assertThat(findings).hasSize(1);
        assertThat(findings.getFirst().rule()).isEqualTo("target-unreached");
        Platform back = EDITOR.apply(hidden, findings.getFirst().fixes().getFirst().edit());
        assertThat(PlatformDocument.write(back)).isEqualTo(Shipped.demoText());
        assertThat(PlatformDocument.read("hidden", PlatformDocument.write(hidden)))
                .isEqualTo(hidden);
    }

    @Test
    void whatIsHiddenFollowsNamesAndGoesWithItsBlock() {
        Platform hidden = EDITOR.apply(Shipped.demo(), hide("lamps"));
        Platform renamed = EDITOR.apply(hidden, new Edit.RenameBlock("lamps", "bar"));
        assertThat(seen(renamed)).doesNotContain("bar", "lamps");
        Platform removed = EDITOR.apply(renamed, new Edit.RemoveBlock("bar"));
        assertThat(removed.block("cpu").orElseThrow().attachments().get("data").hidden()).isEmpty();
    }

    @Test
    void onlyInitiatorsOnABusReach() {
        assertThatThrownBy(
                        () ->
                                EDITOR.apply(
                                        Shipped.demo(),
                                        new Edit.SetReach(
                                                "lamps", "registers", "gain", "registers", false)))
                .isInstanceOf(RejectedEdit.class)
                .hasMessageContaining("initiator");
        Platform detached = EDITOR.apply(Shipped.demo(), new Edit.Detach("cpu", "data"));
        assertThatThrownBy(() -> EDITOR.apply(detached, hide("lamps")))
                .hasMessageContaining("on no bus");
    }
}
