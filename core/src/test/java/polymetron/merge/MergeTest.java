package polymetron.merge;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import polymetron.Shipped;
import polymetron.address.Address;
import polymetron.edit.AnyEdits;
import polymetron.edit.Edit;
import polymetron.edit.Editor;
import polymetron.edit.RejectedEdit;
import polymetron.library.Vlnv;
import polymetron.platform.Platform;

/** Edits made at the same time: kept both, or the later refused with what is in the way. */
final class MergeTest {
    private static final Editor EDITOR = new Editor(Shipped.LIBRARY);
    private static final Merge MERGE = new Merge(Shipped.LIBRARY);

    private final Platform base = Shipped.demo();

    private Platform merge(Edit theirs, Edit mine) throws MergeRefused {
        return MERGE.apply(base, EDITOR.apply(base, theirs), mine);
    }

    private void refused(Edit theirs, Edit mine, String why) {
        assertThatThrownBy(() -> merge(theirs, mine))
                .as("%s, then %s", theirs, mine)
                .isInstanceOf(MergeRefused.class)
                .hasMessageContaining(why);
    }

    @Test
    void whatTouchesDifferentThingsIsKeptBoth() throws MergeRefused {
        Edit baud = new Edit.SetParameter("console", "BAUD", "9600");
        List<Edit> others =
                List.of(
                        new Edit.RenameBlock("lamps", "bar"),
                        new Edit.RemoveBlock("gain"),
                        new Edit.RenamePlatform("Another name"),
                        new Edit.SetParameter("code", "SIZE", "65536"),
                        new Edit.AddBlock(
                                "more", Vlnv.parse("polymetron:io:gpio:1.0"), Map.of("WIDTH", "4")),
                        new Edit.Group("panel", List.of("lamps", "gain")),
                        new Edit.Several(
                                "two",
                                List.of(
                                        new Edit.RenameBlock("lamps", "bar"),
                                        new Edit.SetParameter("bar", "WIDTH", "4"))));
        for (Edit other : others) {
            Platform both = EDITOR.apply(EDITOR.apply(base, other), baud);
            assertThat(merge(other, baud)).isEqualTo(both);
            assertThat(Facts.of(merge(baud, other)).changesTo(Facts.of(both))).isEmpty();
        }
    }

    @Test
    void whatTouchesTheSameIsRefused() {
        Edit baud = new Edit.SetParameter("console", "BAUD", "9600");
        refused(new Edit.SetParameter("console", "BAUD", "19200"), baud, "block console");
        refused(new Edit.RemoveBlock("console"), baud, "block console");
        refused(new Edit.RenameBlock("console", "terminal"), baud, "block console");
        refused(
                new Edit.RenamePlatform("One"),
                new Edit.RenamePlatform("Other"),
                "the name of the platform");
        refused(
                new Edit.AddBlock("more", Vlnv.parse("polymetron:io:gpio:1.0"), Map.of()),
                new Edit.AddBlock("more", Vlnv.parse("polymetron:serial:uart:1.0"), Map.of()),
                "no longer possible");
    }

    /** Removing a block takes its connections with it; whoever removes it has not seen the new one. */
    @Test
    void whatWouldHaveAnotherEffectIsRefused() {
        refused(
                new Edit.Group("panel", List.of("lamps")),
                new Edit.Several(
                        "regroup",
                        List.of(
                                new Edit.Group("panel", List.of("gain")),
                                new Edit.Ungroup("panel"))),
                "something else to block lamps");
    }

    /** Neither is wrong alone. */
    @Test
    void whatIsAnErrorOnlyTogetherIsRefused() {
        Address free = new Address(0x1004_0000);
        Edit one =
                new Edit.Several(
                        "one",
                        List.of(
                                new Edit.AddBlock(
                                        "one", Vlnv.parse("polymetron:io:gpio:1.0"), Map.of()),
                                new Edit.Attach("one", "registers", "system", free, null)));
        Edit other =
                new Edit.Several(
                        "other",
                        List.of(
                                new Edit.AddBlock(
                                        "other", Vlnv.parse("polymetron:io:gpio:1.0"), Map.of()),
                                new Edit.Attach("other", "registers", "system", free, null)));
        refused(one, other, "both changes together are an error");
    }

    /**
     * Whatever two people do at the same time: when both are kept, the outcome is the base with what each has changed,
     * fact by fact, and nothing else.
     */
    @Test
    void nothingIsLostAndNothingIsInvented() {
        AnyEdits edits = new AnyEdits(Long.getLong("polymetron.seed", 9));
        int kept = 0;
        int refused = 0;
        Platform base = this.base;
        for (int round = 0; round < Integer.getInteger("polymetron.merges", 20_000); round++) {
            base = round % 100 == 0 ? this.base : base;
            Edit theirs = edits.next();
            Edit mine = edits.next();
            Platform newest;
            Platform intended;
            try {
                newest = EDITOR.apply(base, theirs);
                intended = EDITOR.apply(base, mine);
            } catch (RejectedEdit senseless) {
                continue;
            }
            Platform merged;
            try {
                merged = MERGE.apply(base, newest, mine);
            } catch (MergeRefused why) {
                assertThat(why.getMessage()).isNotBlank();
                refused++;
                continue;
            }
            kept++;
            Facts before = Facts.of(base);
            Map<String, Facts.Change> both = new HashMap<>(before.changesTo(Facts.of(newest)));
            both.putAll(before.changesTo(Facts.of(intended)));
            assertThat(before.changesTo(Facts.of(merged)))
                    .as("%s, then %s", theirs, mine)
                    .isEqualTo(both);
            base = newest;
        }
        assertThat(kept).as("kept, of %s", kept + refused).isGreaterThan(200);
        assertThat(refused).as("refused, of %s", kept + refused).isGreaterThan(20);
    }
}
